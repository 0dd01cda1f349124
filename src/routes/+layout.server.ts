import type { LayoutServerLoad } from './$types';
import { librariesOf, libraryName, peopleOf } from '$lib/server/libraries';
import { listProjects } from '$lib/server/projects';
import { openJobs } from '$lib/server/jobs';
import { savedCounts, savedQueries } from '$lib/server/queries';
import { waitingChoices } from '$lib/server/choosing';
import { countsOf } from '$lib/server/overview';
import { languages } from '$lib/server/catalogue';
import { styleName } from '$lib/server/lists';
import { tagLooks } from '$lib/server/tags';
import { lookOf } from './look';

/** What stands around every view. */
const shellOf = async (locals: App.Locals) => {
  const { ctx, projectId, asker } = locals;
  const [projects, counts, jobs, look, library, libraries, everybody, saved, choosing, looks] =
    await Promise.all([
      listProjects(ctx),
      countsOf(ctx, projectId),
      openJobs(ctx),
      lookOf(locals),
      libraryName(ctx),
      librariesOf(ctx),
      peopleOf(ctx),
      savedQueries(ctx),
      waitingChoices(ctx),
      tagLooks(ctx),
    ]);
  return {
    projects,
    projectId,
    counts,
    jobs,
    look: { ...look, name: await styleName(ctx, look.style) },
    library,
    libraryId: ctx.libraryId,
    libraries,
    role: ctx.role,
    personId: ctx.personId,
    everybody,
    choosing,
    tagLooks: looks,
    /** Who signed in; nobody where somebody works alone. */
    person: asker?.kind === 'person' ? { name: asker.name } : undefined,
    /** Who looks keeps the server. */
    keeps: asker?.kind === 'alone' || (asker?.kind === 'person' && asker.keeper),
    saved,
    // Counted behind what is shown.
    savedCounts: saved.length ? savedCounts(ctx, projectId).catch(() => undefined) : Promise.resolve({}),
    languages: languages(),
  };
};

export const load: LayoutServerLoad = ({ locals, depends }) => {
  depends(
    'retexa:sources',
    'retexa:passages',
    'retexa:notes',
    'retexa:leads',
    'retexa:projects',
    'retexa:duplicates',
    'retexa:presets',
    'retexa:queries',
    'retexa:styles',
    'retexa:jobs',
    'retexa:members',
    'retexa:choices',
    'retexa:votes',
    'retexa:tags',
  );
  // At the door nothing stands around the view.
  const nothing = {} as Awaited<ReturnType<typeof shellOf>>;
  return locals.ctx ? shellOf(locals) : nothing;
};
