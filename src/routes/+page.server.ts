import type { PageServerLoad } from './$types';
import { deskOf } from '$lib/server/overview';
import { listTasks } from '$lib/server/tasks';

/** How many tasks the Desk shows, the soonest due. */
const TASKS = 12;

export const load: PageServerLoad = async ({ locals, depends }) => {
  depends('retexa:sources', 'retexa:passages', 'retexa:tasks');
  const { ctx, projectId } = locals;
  return {
    desk: await deskOf(ctx, projectId),
    tasks: await listTasks(ctx, projectId ? { projectId } : {}, TASKS),
  };
};
