import type { LayoutServerLoad } from './$types';
import { libraryName, listProjects } from '$lib/server/projects';
import { openJobs } from '$lib/server/jobs';
import { savedCounts, savedQueries } from '$lib/server/queries';
import { countsOf } from '$lib/server/overview';
import { languages } from '$lib/server/catalogue';
import { styleName } from '$lib/server/lists';
import { lookOf } from './look';

export const load: LayoutServerLoad = async ({ locals, depends }) => {
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
  );
  const { ctx, projectId } = locals;
  const [projects, counts, jobs, look, library, saved] = await Promise.all([
    listProjects(ctx),
    countsOf(ctx, projectId),
    openJobs(ctx),
    lookOf(locals),
    libraryName(ctx),
    savedQueries(ctx),
  ]);
  return {
    projects,
    projectId,
    counts,
    jobs,
    look: { ...look, name: await styleName(ctx, look.style) },
    library,
    saved,
    // Counted behind what is shown.
    savedCounts: saved.length ? savedCounts(ctx, projectId).catch(() => undefined) : Promise.resolve({}),
    languages: languages(),
  };
};
