import { z } from 'zod';
import { taskWords } from '../../core/forms';
import { shortLabel } from '../../core/source';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { now } from '../db/ids';
import { getKept, insertKept, updateKept } from '../history/kept';
import { getPassage, getPassages } from '../passages/repository';
import { getSources } from '../sources/repository';
import { taskRows, tasks, type Task, type TaskFilter } from './repository';

export type { Task, TaskFilter } from './repository';

/** What is changed here. */
const CHANGE = { right: 'annotate', of: ['tasks', 'passages'] } as const;

const { text, due } = taskWords.shape;

/** A new task: what, by when if one likes, and where. */
export const newTask = z.strictObject({
  text,
  due: due.default(null),
  sourceId: z.string().min(1).max(60).nullable().default(null),
  passageId: z.string().min(1).max(60).nullable().default(null),
  visibility: z.enum(['private', 'library']).default('library'),
});

/** A change of a task, on revision `base`. */
export const taskChange = z.strictObject({
  base: z.number().int(),
  text: text.optional(),
  due: due.optional(),
  done: z.boolean().optional(),
  binned: z.boolean().optional(),
  visibility: z.enum(['private', 'library']).optional(),
});

/** Adds a task. At a passage that is private it is private too, and on the passage's source. */
export async function addTask(ctx: Context, given: z.infer<typeof newTask>): Promise<Task> {
  return change(ctx, { ...CHANGE, names: { source: given.sourceId } }, async (inner) => {
    const passage = given.passageId ? await getPassage(inner, given.passageId) : undefined;
    return insertKept(
      inner,
      tasks,
      {
        ...given,
        sourceId: passage?.sourceId ?? given.sourceId,
        visibility: passage?.visibility === 'private' ? 'private' : given.visibility,
        done: null,
      },
      'added',
    );
  });
}

/** Changes a task, ticks it off, or puts it in the bin, or takes that back. */
export async function changeTask(ctx: Context, id: string, given: z.infer<typeof taskChange>) {
  const { base, done, binned, ...said } = given;
  return change(ctx, CHANGE, async (inner) => {
    const before = await getKept(inner, tasks, id);
    const set = (wanted: boolean | undefined, was: string | null) =>
      wanted === undefined || wanted === (was !== null) ? was : wanted ? now() : null;
    return updateKept<Task>(
      inner,
      tasks,
      id,
      base,
      {
        ...(Object.fromEntries(
          Object.entries(said).filter(([, value]) => value !== undefined),
        ) as Partial<Task>),
        done: set(done, before.done),
        binned: set(binned, before.binned),
      },
      done === true ? 'ticked off' : binned === true ? 'put in the bin' : 'edited',
    );
  });
}

/** Puts a task in the bin or takes it out. */
export async function binTask(ctx: Context, id: string, binned: boolean) {
  return change(ctx, CHANGE, async (inner) => {
    const { revision } = await getKept(inner, tasks, id);
    return changeTask(inner, id, { base: revision, binned });
  });
}

/** A task with the names of what it is at. */
export interface TaskItem extends Task {
  sourceLabel?: string;
  /** The passage it is at, in one line, and the copy it stands in. */
  passage?: { line: string; copyId: string | null };
}

/** How long a passage is as the line of a task. */
const LINE = 90;

/** Living tasks, the soonest due first, then the latest added. */
export async function listTasks(ctx: Context, filter: TaskFilter, limit = 300): Promise<TaskItem[]> {
  const found = await taskRows(ctx, filter, limit);
  const sources = await getSources(ctx, [...new Set(found.flatMap((t) => t.sourceId ?? []))]);
  const labels = new Map(sources.filter((s) => !s.binned).map((s) => [s.id, shortLabel(s.record)]));
  const passages = new Map(
    (
      await getPassages(
        ctx,
        found.flatMap((t) => t.passageId ?? []),
      )
    )
      .filter((p) => !p.binned)
      .map((p) => [p.id, p]),
  );
  return found
    .filter((t) => !t.sourceId || labels.has(t.sourceId))
    .map((task) => {
      const passage = task.passageId ? passages.get(task.passageId) : undefined;
      const line = passage && (passage.gist || passage.exact).slice(0, LINE);
      return {
        ...task,
        ...(task.sourceId ? { sourceLabel: labels.get(task.sourceId)! } : {}),
        ...(passage ? { passage: { line: line!, copyId: passage.copyId } } : {}),
      };
    });
}
