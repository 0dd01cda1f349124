import { changeTask, taskChange } from '$lib/server/tasks';
import { changes, idOf } from '../../../answer';

/** Changes a task, ticks it off or puts it in the bin, on revision `base`. */
export const PATCH = changes(taskChange, (given, ctx, event) => changeTask(ctx, idOf(event), given));
