import { applyPatch, createPatch, type Operation } from 'rfc6902';
import { scoped, type Context } from '../access/context';
import { newId, now } from '../db/ids';
import { Refusal } from '../access/refusal';

export type Subject = 'source' | 'passage' | 'note' | 'lead' | 'task';

/** One edit of a source, passage, note, lead or task: who, when, why, and the JSON Patches (RFC 6902) both ways. */
export interface Revision {
  id: string;
  subject: Subject;
  subject_id: string;
  number: number;
  person_id: string;
  at: string;
  why: string;
  forward: Operation[];
  backward: Operation[];
}

interface Row extends Omit<Revision, 'forward' | 'backward'> {
  forward: string;
  backward: string;
}

const opened = (row: Row): Revision => ({
  ...row,
  forward: JSON.parse(row.forward) as Operation[],
  backward: JSON.parse(row.backward) as Operation[],
});

/** Notes the change of a subject's state as revision `number`. Call in the transaction that makes the change. */
export async function noteRevision(
  ctx: Context,
  subject: Subject,
  subjectId: string,
  number: number,
  before: unknown,
  after: unknown,
  why: string,
): Promise<string> {
  const id = newId();
  await ctx.db('revision').insert({
    id,
    library_id: ctx.libraryId,
    subject,
    subject_id: subjectId,
    number,
    person_id: ctx.personId,
    at: now(),
    why,
    forward: JSON.stringify(createPatch(before, after)),
    backward: JSON.stringify(createPatch(after, before)),
  });
  return id;
}

/** The revisions of a subject, newest first. */
export async function revisionsOf(ctx: Context, subjectId: string): Promise<Revision[]> {
  const rows = await scoped<Row>(ctx, 'revision').where({ subject_id: subjectId }).orderBy('number', 'desc');
  return (rows as Row[]).map(opened);
}

/** What those are called who made revisions, by their ids. */
export async function namesOf(ctx: Context, personIds: string[]): Promise<Map<string, string>> {
  const rows = (await ctx.db('person').whereIn('id', personIds).select('id', 'name')) as {
    id: string;
    name: string;
  }[];
  return new Map(rows.map(({ id, name }) => [id, name]));
}

/** One revision by its id. */
export async function findRevision(ctx: Context, id: string): Promise<Revision | undefined> {
  const row = (await scoped<Row>(ctx, 'revision').where({ id }).first()) as Row | undefined;
  return row && opened(row);
}

/**
 * A subject's state as it was right after revision `number`, from its present state and the patches between.
 * `revisions` are all of the subject, newest first. Throws a Refusal when a patch does not fit.
 */
export function stateAt<T>(present: T, revisions: Revision[], number: number): T {
  const state = structuredClone(present);
  for (const revision of revisions) {
    if (revision.number <= number) break;
    if (applyPatch(state, revision.backward).some((e) => e !== null))
      throw new Refusal(500, `Revision ${revision.number} could not be taken back. Nothing was changed.`);
  }
  return state;
}
