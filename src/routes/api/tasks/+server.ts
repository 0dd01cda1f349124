import { addTask, newTask } from '$lib/server/tasks';
import { changes } from '../../answer';

/** Adds a task, on a source or at a passage. */
export const POST = changes(newTask, (given, ctx) => addTask(ctx, given));
