import type { Keeping, Kept } from '../history/kept';

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
