import { applyPatch, createPatch, type Operation } from 'rfc6902';
import { scoped, type Context } from '../access/context';
import { inParts, newId, now } from '../db/ids';
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

/** One operation that was done to many subjects alike, with what takes it back of each. */
export interface AlikeRevision {
  /** The subject. */
  id: string;
  number: number;
  forward: Operation[];
  backward: Operation[];
}

/** Notes a change that was made to many subjects in one statement; gives the revisions. Call in the transaction that makes the change. */
export async function noteRevisions(
  ctx: Context,
  subject: Subject,
  made: readonly AlikeRevision[],
  why: string,
): Promise<string[]> {
  const at = now();
  const rows = made.map(({ id, number, forward, backward }) => ({
    id: newId(),
    library_id: ctx.libraryId,
    subject,
    subject_id: id,
    number,
    person_id: ctx.personId,
    at,
    why,
    forward: JSON.stringify(forward),
    backward: JSON.stringify(backward),
  }));
  await ctx.db('revision').insert(rows);
  return rows.map(({ id }) => id);
}

/** Removes the history of subjects that go for good. */
export async function forgetRevisions(ctx: Context, subjectIds: string[]): Promise<void> {
  for (const part of inParts(subjectIds)) await ctx.db('revision').whereIn('subject_id', part).delete();
}

/** Takes ids of what goes for good out of the history of some kinds, which could not be brought back to them. */
export async function forgetNamed(
  ctx: Context,
  subjects: readonly Subject[],
  ids: readonly string[],
): Promise<void> {
  for (const id of ids)
    await scoped(ctx, 'revision')
      .whereIn('subject', subjects)
      .where((either) => either.where('forward', 'like', `%${id}%`).orWhere('backward', 'like', `%${id}%`))
      .update({
        forward: ctx.db.raw('replace(forward, ?, ?)', [`"${id}"`, 'null']),
        backward: ctx.db.raw('replace(backward, ?, ?)', [`"${id}"`, 'null']),
      });
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
