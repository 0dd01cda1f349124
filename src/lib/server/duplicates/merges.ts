import { scoped, type Context } from '../access/context';
import { notHere } from '../access/refusal';
import { now } from '../db/ids';
import type { Joined } from '../passages/joining';
import type { Hung } from '../sources/hanging';
import type { SourceRow } from '../sources/repository';

/** Everything a merge changed, as it was before. */
export interface Before {
  survivor: SourceRow;
  absorbed: SourceRow;
  /** The survivor's revision with the merged record. */
  mergedRevision: number;
  hung: Hung;
  /** Passages that became one; none in merges of earlier releases. */
  joined?: Joined[];
}

/** A merge as it is kept. */
export interface Merge {
  id: string;
  /** What was merged in one step is undone in one; merges of earlier releases are each a step. */
  step: string | null;
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
export async function insertMerge(ctx: Context, id: string, step: string, before: Before): Promise<void> {
  await ctx.db('merge').insert({
    id,
    step,
    library_id: ctx.libraryId,
    survivor_id: before.survivor.id,
    absorbed_id: before.absorbed.id,
    person_id: ctx.personId,
    at: now(),
    before: JSON.stringify(before),
  });
}

/** What was merged in one step, in the order it was; refuses when the library has none of the id. */
export async function getStep(ctx: Context, id: string): Promise<Merge[]> {
  // An index for each: one question of both is answered by going through all merges.
  const rows = [
    ...((await scoped<Row>(ctx, 'merge').where({ step: id }).orderBy('id')) as Row[]),
    ...((await scoped<Row>(ctx, 'merge').where({ id })) as Row[]),
  ];
  if (rows.length === 0) throw notHere('merge');
  return rows.map((row) => opened(ctx, row));
}

/** Most steps that are shown for undoing. */
const MOST_STEPS = 50;

/** The last steps that are not undone, newest first. */
export async function openSteps(ctx: Context): Promise<{ id: string; at: string; merges: Merge[] }[]> {
  const rows = (await scoped<Row>(ctx, 'merge')
    .whereNull('undone')
    .orderBy('at', 'desc')
    .limit(1_000)) as Row[];
  const steps = new Map<string, { id: string; at: string; merges: Merge[] }>();
  for (const row of rows) {
    const id = row.step ?? row.id;
    const step = steps.get(id);
    if (step) step.merges.push(opened(ctx, row));
    else if (steps.size < MOST_STEPS) steps.set(id, { id, at: row.at, merges: [opened(ctx, row)] });
    else break;
  }
  for (const { merges } of steps.values()) merges.sort((x, y) => (x.id < y.id ? -1 : 1));
  return [...steps.values()];
}

/** Notes that a merge is undone. */
export async function markUndone(ctx: Context, id: string): Promise<void> {
  await scoped(ctx, 'merge').where({ id }).update({ undone: now() });
}
