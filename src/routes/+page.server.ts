import type { PageServerLoad } from './$types';
import { chartsOf, deskOf } from '$lib/server/overview';
import { saidForMe } from '$lib/server/replies';
import { listTasks } from '$lib/server/tasks';

/** How many tasks the Desk shows, the soonest due. */
const TASKS = 12;

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:sources', 'retexa:passages', 'retexa:tasks', 'retexa:projects');
  const { ctx, projectId } = locals;
  return {
    desk: await deskOf(ctx, projectId),
    charts: await chartsOf(ctx, projectId),
    forMe: await saidForMe(ctx),
    tasks: await listTasks(ctx, projectId ? { projectId } : {}, TASKS),
  };
};
