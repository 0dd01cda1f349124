import type { Knex } from 'knex';
import type { Context } from '../access/context';
import { listKept, type Keeping, type Kept } from '../history/kept';

/** Something to do, on a source or at a passage of it, or on nothing. */
export interface Task extends Kept {
  text: string;
  /** The day by which, `YYYY-MM-DD`, where one was said. */
  due: string | null;
  /** When it was ticked off. */
  done: string | null;
  sourceId: string | null;
  passageId: string | null;
  visibility: 'private' | 'library';
}

interface Row extends Kept {
  text: string;
  due: string | null;
  done: string | null;
  source_id: string | null;
  passage_id: string | null;
  visibility: 'private' | 'library';
}

export const tasks: Keeping<Task> = {
  subject: 'task',
  state: ['text', 'due', 'done', 'visibility', 'binned'],
  toRow: ({ text, due, done, sourceId, passageId, visibility, binned }) => ({
    text,
    due,
    done,
    source_id: sourceId,
    passage_id: passageId,
    visibility,
    binned,
  }),
  fromRow: (raw) => {
    const { source_id, passage_id, ...row } = raw as unknown as Row;
    const { id, revision, added, binned, text, due, done, visibility } = row;
    return {
      id,
      revision,
      added,
      binned,
      text,
      due,
      done,
      visibility,
      sourceId: source_id,
      passageId: passage_id,
    };
  },
  searchText: (task) => task.text,
};

/** Which tasks are listed. */
export interface TaskFilter {
  projectId?: string;
  sourceId?: string;
  /** Those ticked off too; without, only those that are still to do. */
  withDone?: boolean;
}

/** Living tasks, the soonest due first, then the latest added. */
export const taskRows = (ctx: Context, filter: TaskFilter, limit: number): Promise<Task[]> =>
  listKept(
    ctx,
    tasks,
    (query: Knex.QueryBuilder) => {
      void query.whereNull('task.binned').orderByRaw('task.done IS NOT NULL, task.due IS NULL, task.due');
      if (!filter.withDone) void query.whereNull('task.done');
      if (filter.sourceId) void query.where('task.source_id', filter.sourceId);
      if (filter.projectId)
        void query.whereIn(
          'task.source_id',
          ctx.db('filing').where({ project_id: filter.projectId }).select('source_id'),
        );
    },
    limit,
  );
