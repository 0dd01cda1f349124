import { valueText, type Variable } from '../../core/source';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { changedMeanwhile, Refusal } from '../access/refusal';
import { copiesOf } from '../copies/repository';
import { getKept, updateKept, type Keeping, type Kept } from '../history/kept';
import { findRevision, revisionsOf, stateAt, type Revision, type Subject } from '../history/repository';
import { leads } from '../leads/repository';
import { notes } from '../notes/repository';
import { getPassage, updatePassage, type PassageState } from '../passages/repository';
import { tasks } from '../tasks/repository';
import { inTurn } from '../turns';
import { getSource, updateSource, type SourceState } from './repository';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources', 'passages', 'notes', 'leads', 'tasks'] } as const;

/**
 * Takes revisions back. Each must still be the latest of its subject; if one is not, nothing is changed and the
 * person is sent to the history. Gives the revisions this made, for doing it again.
 */
export async function undo(ctx: Context, revisionIds: string[]): Promise<{ revisions: string[] }> {
  const revisions: string[] = [];
  await change(ctx, CHANGE, async (inner) => {
    for await (const id of inTurn(revisionIds)) {
      const made = await undoRevision(inner, id);
      if (made) revisions.push(made);
    }
  });
  return { revisions };
}

/** Takes one revision back, which must still be the latest of its subject; gives the id of the revision that did it. */
export async function undoRevision(ctx: Context, id: string): Promise<string | undefined> {
  const revision = await findRevision(ctx, id);
  if (!revision) throw new Refusal(404, 'There is nothing left to undo.');
  const { subject, subject_id, number, why } = revision;
  const [latest] = await revisionsOf(ctx, subject_id);
  if (latest?.id !== id) throw changedMeanwhile(subject);
  return (await bringBack(ctx, subject, subject_id, number - 1, `undid: ${why}`)).revisionId;
}

async function bringBack(ctx: Context, subject: Subject, id: string, number: number, why: string) {
  if (number < 1) throw new Refusal(409, 'This is the first state there is.');
  const revisions = await revisionsOf(ctx, id);
  if (subject === 'source') {
    const present = await getSource(ctx, id);
    const { record, citekey, checked, binned } = present;
    const state = stateAt<SourceState>({ record, citekey, checked, binned }, revisions, number);
    return updateSource(ctx, id, present.revision, state, why);
  }
  if (subject === 'note') return bringKeptBack(ctx, notes, id, revisions, number, why);
  if (subject === 'lead') return bringKeptBack(ctx, leads, id, revisions, number, why);
  if (subject === 'task') return bringKeptBack(ctx, tasks, id, revisions, number, why);
  const present = await getPassage(ctx, id);
  const { id: _id, revision, added: _added, sourceId: _source, ...present_state } = present;
  return updatePassage(ctx, id, revision, stateAt<PassageState>(present_state, revisions, number), why);
}

async function bringKeptBack<T extends Kept>(
  ctx: Context,
  keeping: Keeping<T>,
  id: string,
  revisions: Revision[],
  number: number,
  why: string,
) {
  const present = await getKept(ctx, keeping, id);
  const state = Object.fromEntries(
    keeping.state.map((k) => [k, (present as unknown as Record<string, unknown>)[k] ?? null]),
  ) as Partial<T>;
  return updateKept(ctx, keeping, id, present.revision, stateAt(state, revisions, number), why);
}

/** Brings a source back to an earlier revision, as a new one; nothing of the history is lost. */
export async function restoreRevision(ctx: Context, id: string, number: number): Promise<void> {
  await change(ctx, CHANGE, (inner) =>
    bringBack(inner, 'source', id, number, `brought back revision ${number}`),
  );
}

/** The history of a source: what each edit changed, newest first. */
export async function historyOf(ctx: Context, id: string) {
  const revisions = await revisionsOf(ctx, id);
  return revisions.map(({ number, at, why, forward, backward }) => ({
    number,
    at,
    why,
    fields: changesIn(forward, backward),
  }));
}

/** How much of a value the history shows. */
const VALUE_SHOWN = 80;

/** The fields a revision changed, each with what it was and what it is; without, where only a part of it changed. */
function changesIn(
  forward: Revision['forward'],
  backward: Revision['backward'],
): { field: string; was: string; is: string }[] {
  const fields = new Set(
    forward
      .map((op) => op.path.split('/').slice(1))
      .filter((path) => path[0] === 'record' && path[1] !== undefined && path[1] !== 'retexa')
      .map((path) => path[1]!),
  );
  const text = (operations: Revision['forward'], field: string) => {
    const whole = operations.find((op) => op.path === `/record/${field}`);
    if (!whole || !('value' in whole)) return '';
    const shown = valueText(field as Variable, whole.value);
    return shown.length > VALUE_SHOWN ? `${shown.slice(0, VALUE_SHOWN).trimEnd()}…` : shown;
  };
  return [...fields].map((field) => ({ field, was: text(backward, field), is: text(forward, field) }));
}

/** Everything the sheet of a source shows beside the record. */
export async function besideSource(ctx: Context, id: string) {
  const [copies, history] = await Promise.all([copiesOf(ctx, id), historyOf(ctx, id)]);
  return { copies, history };
}
