import { applyPatch } from 'rfc6902';
import { fieldName, valueText, type SourceRecord, type Variable } from '../../core/source';
import { change, checkRight } from '../access/change';
import type { Context } from '../access/context';
import { changedMeanwhile, Refusal } from '../access/refusal';
import { copiesOf } from '../copies/repository';
import { getKept, updateKept, type Keeping, type Kept } from '../history/kept';
import {
  findRevision,
  namesOf,
  revisionsOf,
  stateAt,
  type Revision,
  type Subject,
} from '../history/repository';
import { leads } from '../leads/repository';
import { notes } from '../notes/repository';
import { getPassage, updatePassage, type PassageState } from '../passages/repository';
import { tasks } from '../tasks/repository';
import { inTurn } from '../turns';
import { editSource, revisionsOfMade, type MadeOf } from './editing';
import { getSource, updateSource, type SourceState } from './repository';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources', 'passages', 'notes', 'leads', 'tasks'] } as const;

/**
 * Takes revisions back. Each must still be the latest of its subject; if one is not, nothing is changed and the
 * person is sent to the history. Gives the revisions this made, for doing it again.
 */
export async function undo(ctx: Context, revisionIds: string[]): Promise<{ revisions: string[] }> {
  return change(ctx, { ...CHANGE, right: 'annotate' }, async (inner) => ({
    revisions: revisionsOfMade(await undoEach(inner, revisionIds)),
  }));
}

/** The same in a transaction that is under way, of which nobody is told. */
export async function undoEach(inner: Context, revisionIds: readonly string[]): Promise<MadeOf[]> {
  const revisions: MadeOf[] = [];
  for await (const id of inTurn(revisionIds)) {
    const made = await undoRevision(inner, id);
    if (made) revisions.push({ sourceId: '', revisionId: made });
  }
  return revisions;
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

/** The same, or nothing where its subject was changed since: the change goes before. */
export const undoUnlessChanged = (ctx: Context, id: string): Promise<string | undefined> =>
  undoRevision(ctx, id).catch((error: unknown) => {
    if (!(error instanceof Refusal)) throw error;
    return undefined;
  });

async function bringBack(ctx: Context, subject: Subject, id: string, number: number, why: string) {
  if (number < 1) throw new Refusal(409, 'This is the first state there is.');
  const revisions = await revisionsOf(ctx, id);
  // Who keeps passages, notes and tasks takes their own back; of those, what another made is refused where it is written.
  if (subject === 'source' || subject === 'lead') checkRight(ctx, 'edit');
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
  const { id: _id, revision, added: _added, sourceId: _source, ownerId: _owner, ...present_state } = present;
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

/** A field that a revision changed, with what it was and what it is, in words. */
export interface FieldChanged {
  field: string;
  was: string;
  is: string;
}

/** How much of a value the history shows, in characters. */
const VALUE_SHOWN = 2_000;

/** The history of a source, newest first: who changed what, when and why. */
export async function historyOf(
  ctx: Context,
  id: string,
): Promise<{ number: number; at: string; who: string; why: string; fields: FieldChanged[] }[]> {
  const [source, revisions] = [await getSource(ctx, id), await revisionsOf(ctx, id)];
  const names = await namesOf(ctx, [...new Set(revisions.map((r) => r.person_id))]);
  let { record }: { record: Partial<SourceRecord> } = source;
  return revisions.map((revision) => {
    const { number, at, why, person_id } = revision;
    const after = record;
    record = recordBefore(record, revision);
    return {
      number,
      at,
      why,
      who: names.get(person_id) ?? '',
      fields: changesBetween(record, after, revision),
    };
  });
}

/** A record as it was before a revision. */
function recordBefore(after: Partial<SourceRecord>, { backward }: Revision): Partial<SourceRecord> {
  const state = structuredClone({ record: after, citekey: '', checked: null, binned: null }) as {
    record?: Partial<SourceRecord>;
  };
  // Of a state with more to it than its record, what is not there is left as it is.
  applyPatch(
    state,
    backward.filter(({ path }) => path.startsWith('/record')),
  );
  return state.record ?? {};
}

/** The fields that a revision changed. */
function changesBetween(
  before: Partial<SourceRecord>,
  after: Partial<SourceRecord>,
  { forward }: Revision,
): FieldChanged[] {
  const named = forward
    .map((op) => op.path.split('/').slice(1))
    .filter(([of, field]) => of === 'record' && field !== undefined && field !== 'retexa')
    .map(([, field]) => field!);
  const text = (record: Partial<SourceRecord>, field: string) => {
    const shown = valueText(field, record[field as Variable]);
    return shown.length > VALUE_SHOWN ? `${shown.slice(0, VALUE_SHOWN).trimEnd()}…` : shown;
  };
  return [...new Set(named)].map((field) => ({ field, was: text(before, field), is: text(after, field) }));
}

/** Puts one field of a source back to what it was before a revision; gives the revision made, if it is a change. */
export const restoreField = (
  ctx: Context,
  id: string,
  number: number,
  field: string,
): Promise<{ revisionId?: string }> =>
  change(ctx, CHANGE, async (inner) => {
    const { record, revision: base } = await getSource(inner, id);
    let was: Partial<SourceRecord> = record;
    for (const revision of await revisionsOf(inner, id))
      if (revision.number >= number) was = recordBefore(was, revision);
    // A field is named in a request, and may be named as what every object has.
    const value = Object.hasOwn(was, field) ? was[field as Variable] : null;
    const { revisionId } = await editSource(
      inner,
      id,
      base,
      { fields: { [field]: value } },
      `brought back ${fieldName(field).toLowerCase()} of before revision ${number}`,
    );
    return revisionId ? { revisionId } : {};
  });

/** Everything the sheet of a source shows beside the record. */
export async function besideSource(ctx: Context, id: string) {
  const [copies, history] = await Promise.all([copiesOf(ctx, id), historyOf(ctx, id)]);
  return { copies, history };
}
