import type { LayoutServerLoad } from './$types';
import { listProjects } from '$lib/server/repositories/projects';
import { openJobs } from '$lib/server/repositories/jobs';
import { countsOf } from '$lib/server/services/overview';
import { languages, styleName } from '$lib/server/catalogue';
import { lookOf } from './look';

export const load: LayoutServerLoad = async ({ locals, depends }) => {
  depends('retexa:data');
  const { ctx, projectId } = locals;
  const [projects, counts, jobs, look, library] = await Promise.all([
    listProjects(ctx),
    countsOf(ctx, projectId),
    openJobs(ctx),
    lookOf(locals),
    ctx.db('library').where({ id: ctx.libraryId }).first('name') as Promise<{ name: string }>,
  ]);
  return {
    projects,
    projectId,
    counts,
    jobs,
    look: { ...look, name: styleName(look.style) },
    library: library.name,
    languages: languages(),
  };
};
