import { scoped, type Context } from '../access/context';
import { notHere } from '../access/refusal';
import { now } from '../db/ids';
import type { Hung } from '../sources/hanging';
import type { SourceRow } from '../sources/repository';

/** Everything a merge changed, as it was before. */
export interface Before {
  survivor: SourceRow;
  absorbed: SourceRow;
  /** The survivor's revision with the merged record. */
  mergedRevision: number;
  hung: Hung;
}

/** A merge as it is kept. */
export interface Merge {
  id: string;
  at: string;
  undone: string | null;
  before: Before;
}

interface Row extends Omit<Merge, 'before'> {
  before: string;
}

/** What merges of earlier releases remember instead of `hung`. */
interface Earlier {
  passages: { id: string }[];
  copies: string[];
  filings: Hung['joined'][string];
  aliases: { alias: string; source_id: string }[];
  aparts: { a_id: string; b_id: string; person_id: string; at: string }[];
  pointing?: { table: 'note' | 'lead'; column: string; id: string }[];
  placements?: Hung['joined'][string];
}

const opened = (ctx: Context, { before, ...row }: Row): Merge => {
  const parsed = JSON.parse(before) as Before | (Omit<Before, 'hung'> & Earlier);
  return { ...row, before: 'hung' in parsed ? parsed : { ...parsed, hung: hungOf(ctx, parsed) } };
};

function hungOf(ctx: Context, before: Earlier): Hung {
  const pointing = (table: string, column: string) =>
    (before.pointing ?? []).filter((p) => p.table === table && p.column === column).map((p) => p.id);
  const whole = <T>(rows: T[]) => rows.map((row) => ({ ...row, library_id: ctx.libraryId }));
  return {
    went: {
      'passage.source_id': before.passages.map((p) => p.id),
      'copy.source_id': before.copies,
      'note.source_id': pointing('note', 'source_id'),
      'lead.met_in': pointing('lead', 'met_in'),
      'lead.found_id': pointing('lead', 'found_id'),
    },
    joined: {
      'filing.source_id': before.filings,
      'placement.source_id': before.placements ?? [],
      'alias.source_id': whole(before.aliases),
      'apart.a_id': whole(before.aparts),
    },
  };
}

/** Keeps what a merge changed. */
export async function insertMerge(ctx: Context, id: string, before: Before): Promise<void> {
  await ctx.db('merge').insert({
    id,
    library_id: ctx.libraryId,
    survivor_id: before.survivor.id,
    absorbed_id: before.absorbed.id,
    person_id: ctx.personId,
    at: now(),
    before: JSON.stringify(before),
  });
}

/** A merge; refuses when the library has none of the id. */
export async function getMerge(ctx: Context, id: string): Promise<Merge> {
  const row = (await scoped<Row>(ctx, 'merge').where({ id }).first()) as Row | undefined;
  if (!row) throw notHere('merge');
  return opened(ctx, row);
}

/** The last merges that are not undone, newest first, at most fifty. */
export async function openMerges(ctx: Context): Promise<Merge[]> {
  const rows = (await scoped<Row>(ctx, 'merge').whereNull('undone').orderBy('at', 'desc').limit(50)) as Row[];
  return rows.map((row) => opened(ctx, row));
}

/** Notes that a merge is undone. */
export async function markUndone(ctx: Context, id: string): Promise<void> {
  await scoped(ctx, 'merge').where({ id }).update({ undone: now() });
}
