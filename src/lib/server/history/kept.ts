import type { Knex } from 'knex';
import { scoped, visible, type Context } from '../access/context';
import { checkOwn } from '../access/change';
import { checkWhoSees, type Shown } from '../access/shown';
import { newId, now } from '../db/ids';
import { changedMeanwhile, notHere } from '../access/refusal';
import { noteRevision, type Subject } from './repository';
import { index } from '../search/repository';

/** A row with a history of its own: notes, leads and tasks. */
export interface Kept {
  id: string;
  revision: number;
  added: string;
  binned: string | null;
}

/** How a kind of kept rows is stored: its table, which columns are its state, and what it is found by. */
export interface Keeping<T extends Kept> {
  subject: Extract<Subject, 'note' | 'lead' | 'task'>;
  state: readonly string[];
  toRow: (state: Partial<T>) => Record<string, unknown>;
  fromRow: (row: Record<string, unknown>) => T;
  searchText: (kept: T) => string;
  /** What is kept of it in other tables, written anew whenever it is another. */
  beside?: (ctx: Context, kept: T) => Promise<void>;
}

/** The rows of a kind the person may see: of tasks and notes, none that somebody else keeps private. */
const seen = <T extends Kept>(ctx: Context, { subject }: Keeping<T>) =>
  subject === 'lead'
    ? scoped<Record<string, unknown>>(ctx, subject)
    : visible<Record<string, unknown>>(ctx, subject);

const stateOf = <T extends Kept>(keeping: Keeping<T>, kept: T) =>
  Object.fromEntries(keeping.state.map((k) => [k, (kept as unknown as Record<string, unknown>)[k] ?? null]));

/** Adds one, with its first revision. Call in a transaction with what belongs to it. */
export async function insertKept<T extends Kept>(
  ctx: Context,
  keeping: Keeping<T>,
  state: Omit<T, 'id' | 'revision' | 'added' | 'binned'>,
  why: string,
): Promise<T> {
  const kept = { id: newId(), revision: 1, added: now(), binned: null, ...state } as unknown as T;
  const { id, revision, added } = kept;
  await ctx.db(keeping.subject).insert({
    id,
    revision,
    added,
    library_id: ctx.libraryId,
    owner_id: ctx.personId,
    ...keeping.toRow(kept),
  });
  await index(ctx, keeping.subject, id, keeping.searchText(kept));
  await keeping.beside?.(ctx, kept);
  await noteRevision(ctx, keeping.subject, id, 1, {}, stateOf(keeping, kept), why);
  return kept;
}

export async function getKept<T extends Kept>(ctx: Context, keeping: Keeping<T>, id: string): Promise<T> {
  return keeping.fromRow(await rowOf(ctx, keeping, id));
}

async function rowOf<T extends Kept>(ctx: Context, keeping: Keeping<T>, id: string) {
  const row = (await seen(ctx, keeping).where({ id }).first()) as Record<string, unknown> | undefined;
  if (!row) throw notHere(keeping.subject);
  return row;
}

/** Those a query leaves, newest first. */
export async function listKept<T extends Kept>(
  ctx: Context,
  keeping: Keeping<T>,
  narrow: (query: Knex.QueryBuilder) => unknown,
  limit = 1_000,
): Promise<T[]> {
  const query = seen(ctx, keeping) as unknown as Knex.QueryBuilder;
  narrow(query);
  const rows = (await query.orderBy('added', 'desc').orderBy('id', 'desc').limit(limit)) as Record<
    string,
    unknown
  >[];
  return rows.map(keeping.fromRow);
}

const isShown = (kept: object): kept is Shown => 'visibility' in kept && 'shownTo' in kept;

/** Changes one on revision `base`; gives the revision made, for undoing. Refuses when somebody changed it meanwhile. */
export async function updateKept<T extends Kept>(
  ctx: Context,
  keeping: Keeping<T>,
  id: string,
  base: number,
  change: Partial<T>,
  why: string,
): Promise<{ revisionId?: string }> {
  const row = await rowOf(ctx, keeping, id);
  checkOwn(ctx, row.owner_id as string);
  const present = keeping.fromRow(row);
  if (present.revision !== base) throw changedMeanwhile(keeping.subject);
  const next: T = { ...present, ...change, revision: base + 1 };
  if (isShown(next) && next.visibility === 'library') Object.assign(next, { shownTo: [] });
  if (isShown(present) && isShown(next)) checkWhoSees(ctx, row.owner_id as string, present, next);
  const [before, after] = [stateOf(keeping, present), stateOf(keeping, next)];
  if (JSON.stringify(before) === JSON.stringify(after)) return {};
  const changed = (await scoped(ctx, keeping.subject)
    .where({ id, revision: base })
    .update({ ...keeping.toRow(next), revision: next.revision })) as number;
  if (changed !== 1) throw changedMeanwhile(keeping.subject);
  await index(ctx, keeping.subject, id, next.binned ? '' : keeping.searchText(next));
  await keeping.beside?.(ctx, next);
  return { revisionId: await noteRevision(ctx, keeping.subject, id, next.revision, before, after, why) };
}
