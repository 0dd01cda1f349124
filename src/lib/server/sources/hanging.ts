import { scoped, type Context } from '../access/context';
import { inParts } from '../db/ids';

/** What of one table hangs on a source, and what becomes of it. */
export interface Hanging {
  table: string;
  /** The column that points at the source. */
  column: string;
  /** The column at the other end, of what stands between two sources. */
  other?: string;
  /**
   * When its source goes into another: rows of their own go over; filings, which are there once for each pair of ids, go
   * over unless the other source has one; what is made anew from the records, or tells what happened, stays.
   */
  merging: 'goes over' | 'joins' | 'stays';
  /** For what joins: the column that together with the source makes a row, and the table it points at. */
  beside?: { column: string; of?: string };
  /** When its source leaves for good: it leaves with it, or stays and hangs on nothing. */
  leaving: 'leaves' | 'lets go';
  /** A person made it: a source that has it is not as it was added. */
  made?: true;
}

/**
 * Everything that hangs on a source: what merging, undoing a merge, the bin and deleting go by. A table that points at a
 * source is added here and nowhere else; a test holds this against the foreign keys there are.
 */
export const HANGING: readonly Hanging[] = [
  { table: 'passage', column: 'source_id', merging: 'goes over', leaving: 'leaves', made: true },
  { table: 'copy', column: 'source_id', merging: 'goes over', leaving: 'leaves' },
  { table: 'note', column: 'source_id', merging: 'goes over', leaving: 'lets go', made: true },
  {
    table: 'note_named',
    column: 'source_id',
    merging: 'joins',
    beside: { column: 'note_id', of: 'note' },
    leaving: 'leaves',
  },
  { table: 'task', column: 'source_id', merging: 'goes over', leaving: 'leaves', made: true },
  { table: 'lead', column: 'met_in', merging: 'goes over', leaving: 'lets go', made: true },
  { table: 'lead', column: 'found_id', merging: 'goes over', leaving: 'lets go', made: true },
  {
    table: 'filing',
    column: 'source_id',
    merging: 'joins',
    beside: { column: 'project_id', of: 'project' },
    leaving: 'leaves',
  },
  {
    table: 'placement',
    column: 'source_id',
    merging: 'joins',
    beside: { column: 'section_id', of: 'section' },
    leaving: 'leaves',
    made: true,
  },
  {
    table: 'reading',
    column: 'source_id',
    merging: 'joins',
    beside: { column: 'owner_id' },
    leaving: 'leaves',
    made: true,
  },
  // What was said of a candidate hangs on it and not on its source.
  {
    table: 'candidate',
    column: 'source_id',
    merging: 'joins',
    beside: { column: 'choice_id', of: 'choice' },
    leaving: 'leaves',
    made: true,
  },
  { table: 'alias', column: 'source_id', merging: 'joins', beside: { column: 'alias' }, leaving: 'leaves' },
  { table: 'apart', column: 'a_id', other: 'b_id', merging: 'joins', leaving: 'leaves' },
  { table: 'likeness', column: 'a_id', other: 'b_id', merging: 'stays', leaving: 'leaves' },
  { table: 'likeness_member', column: 'source_id', merging: 'stays', leaving: 'leaves' },
  { table: 'lookup', column: 'source_id', merging: 'stays', leaving: 'leaves' },
  { table: 'relation', column: 'a_id', other: 'b_id', merging: 'joins', leaving: 'leaves' },
  { table: 'merge', column: 'survivor_id', other: 'absorbed_id', merging: 'stays', leaving: 'leaves' },
  { table: 'facet', column: 'source_id', merging: 'stays', leaving: 'leaves' },
  { table: 'finding', column: 'source_id', merging: 'stays', leaving: 'leaves' },
  { table: 'printed', column: 'source_id', merging: 'stays', leaving: 'leaves' },
  { table: 'source', column: 'merged_into', merging: 'stays', leaving: 'lets go' },
];

const ends = ({ column, other }: Hanging): string[] => (other ? [column, other] : [column]);

/** The name under which a merge remembers what hung there. */
const nameOf = ({ table, column }: Hanging): string => `${table}.${column}`;

type Row = Record<string, string | number | null>;

/** What hung on two sources before one went into the other. */
export interface Hung {
  /** Ids of what went over, by table and column. */
  went: Record<string, string[]>;
  /** What joined: the rows of both. */
  joined: Record<string, Row[]>;
}

/** Rows that hang on any of some sources. */
async function rowsOn(ctx: Context, hanging: Hanging, ids: string[]): Promise<Row[]> {
  const rows: Row[] = [];
  // A question for each end: one of both is answered by going through the whole table.
  for (const column of ends(hanging))
    for (const part of inParts(ids))
      rows.push(...((await ctx.db(hanging.table).whereIn(column, part)) as Row[]));
  return [...new Map(rows.map((row) => [JSON.stringify(row), row])).values()];
}

/** Ids of what hangs on sources in a table whose rows are their own. */
export const idsOn = async (
  ctx: Context,
  table: string,
  column: string,
  ids: string[],
): Promise<string[]> => {
  const found: string[] = [];
  for (const part of inParts(ids)) {
    const rows = (await scoped(ctx, table).whereIn(column, part).select('id')) as { id: string }[];
    found.push(...rows.map((r) => r.id));
  }
  return found;
};

/** Rows as they are when `from` has become `to`, without those that would stand between a source and itself. */
const carried = (hanging: Hanging, rows: Row[], from: string, to: string): Row[] =>
  rows
    .map((row) => {
      const over = { ...row };
      for (const column of ends(hanging)) if (over[column] === from) over[column] = to;
      if (!hanging.other) return over;
      const [a, b] = [over[hanging.column] as string, over[hanging.other] as string].sort();
      return { ...over, [hanging.column]: a!, [hanging.other]: b! };
    })
    .filter((row) => !hanging.other || row[hanging.column] !== row[hanging.other]);

/** What tells a row of those that join from others of its table. */
const keyOf = (hanging: Hanging): string[] => [
  ...ends(hanging),
  ...(hanging.beside ? [hanging.beside.column] : []),
];

async function removeRows(ctx: Context, hanging: Hanging, rows: Row[]): Promise<void> {
  for (const row of rows)
    await ctx
      .db(hanging.table)
      .where(Object.fromEntries(keyOf(hanging).map((column) => [column, row[column] as string])))
      .delete();
}

/** Puts rows in that are not there; what they stand beside may be gone since, and they with it. */
async function putRows(ctx: Context, hanging: Hanging, rows: Row[]): Promise<void> {
  const { table, beside } = hanging;
  for (const row of rows) {
    if (beside?.of && !(await ctx.db(beside.of).where({ id: row[beside.column] }).first('id'))) continue;
    await ctx.db(table).insert(row).onConflict().ignore();
  }
}

/** Carries everything that hangs on `from` over to `to`; gives what hung on both before, for carrying it back. */
export async function carryOver(ctx: Context, from: string, to: string): Promise<Hung> {
  const hung: Hung = { went: {}, joined: {} };
  for (const hanging of HANGING) {
    const { table, column, merging } = hanging;
    if (merging === 'goes over') {
      const ids = await idsOn(ctx, table, column, [from]);
      hung.went[nameOf(hanging)] = ids;
      for (const part of inParts(ids))
        await ctx
          .db(table)
          .whereIn('id', part)
          .update({ [column]: to });
    }
    if (merging === 'joins') {
      const rows = await rowsOn(ctx, hanging, [from, to]);
      hung.joined[nameOf(hanging)] = rows;
      const moving = rows.filter((row) => ends(hanging).some((end) => row[end] === from));
      await removeRows(ctx, hanging, moving);
      await putRows(ctx, hanging, carried(hanging, moving, from, to));
    }
  }
  return hung;
}

/** Carries back what was carried over from `from` to `to`. What came to `to` since stays there. */
export async function carryBack(ctx: Context, from: string, to: string, hung: Hung): Promise<void> {
  for (const hanging of HANGING) {
    const { table, column } = hanging;
    for (const part of inParts(hung.went[nameOf(hanging)] ?? []))
      await scoped(ctx, table)
        .whereIn('id', part)
        .update({ [column]: from });
    const rows = hung.joined[nameOf(hanging)] ?? [];
    await removeRows(ctx, hanging, carried(hanging, rows, from, to));
    await putRows(ctx, hanging, rows);
  }
}

/** Whether anything a person made hangs on a source. */
export async function hasHanging(ctx: Context, id: string): Promise<boolean> {
  for (const { table, column, made } of HANGING)
    if (made && (await ctx.db(table).where(column, id).first(column))) return true;
  return false;
}

/**
 * Takes from sources that leave for good everything that hangs on them: it leaves too or hangs on nothing. What has more
 * to it than its row is removed by `removers`, by its table.
 */
export async function takeOff(
  ctx: Context,
  ids: string[],
  removers: Record<string, (ctx: Context, ids: string[]) => Promise<void>>,
): Promise<void> {
  for (const hanging of HANGING) {
    const { table, column, leaving } = hanging;
    const remove = removers[table];
    if (leaving === 'lets go')
      for (const part of inParts(ids))
        await ctx
          .db(table)
          .whereIn(column, part)
          .update({ [column]: null });
    else if (remove) await remove(ctx, await idsOn(ctx, table, column, ids));
    else
      for (const end of ends(hanging))
        for (const part of inParts(ids)) await ctx.db(table).whereIn(end, part).delete();
  }
}
