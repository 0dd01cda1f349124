import type { Knex } from 'knex';
import { parseQuery, printQuery, withField, type QueryField } from '../../core/query';
import { FACETS, type Facet } from '../../core/source';
import type { Context } from '../access/context';
import { HANGS } from '../query';
import { living, type SourceFilter } from './repository';
import { tallied, talliesOf } from './tallies';

/** A value sources are narrowed by, and how many of them have it. */
export interface FacetValue {
  value: string;
  n: number;
}

/** How many values of a facet are given, those that most sources have. */
const MOST_VALUES = 60;

/** Nothing but a project narrows. */
const onlyProject = ({ projectId: _project, ...more }: SourceFilter): boolean =>
  Object.keys(more).length === 0;

/** Those that most have first. */
const byNumber = (values: FacetValue[]): FacetValue[] => values.sort((a, b) => b.n - a.n);

type Rows = Knex.QueryBuilder;

/** More sources than this are looked for in a table of their own, not in a list that is read anew for each thing counted. */
const MANY = 16_000;
let calls = 0;

/**
 * Puts ids where each thing that is counted looks them up, for as long as `work` takes: a table of the connection, which no
 * other sees and nothing is written to disk for.
 */
async function laidOut<T>(ctx: Context, ids: string[], work: (call: number) => Promise<T>): Promise<T> {
  const call = ++calls;
  await ctx.db.raw(
    'CREATE TEMP TABLE IF NOT EXISTS counted_among (call INTEGER, id TEXT, PRIMARY KEY (call, id)) WITHOUT ROWID',
  );
  await ctx.db.raw('INSERT INTO counted_among SELECT ?, value FROM json_each(?)', [
    call,
    JSON.stringify(ids),
  ]);
  try {
    return await work(call);
  } finally {
    await ctx.db('counted_among').where({ call }).delete();
  }
}

/** The sources that a filter leaves, found once for all that is counted among them. */
interface Among {
  ctx: Context;
  filter: SourceFilter;
  /** Leaves of the rows of a table beside sources those of these sources. */
  narrow: (rows: Rows, column: string) => Rows;
  /** Of what stands beside living sources alone: all of the library, where nothing narrows. */
  all: (rows: Rows) => Rows;
}

/** Counts among the sources that a filter leaves. */
async function withAmong<T>(
  ctx: Context,
  filter: SourceFilter,
  count: (of: Among) => Promise<T>,
  many: number,
): Promise<T> {
  const { projectId } = filter;
  if (!onlyProject(filter)) {
    const ids = ((await living(ctx, filter).select('source.id')) as { id: string }[]).map(({ id }) => id);
    const all = (rows: Rows) => rows;
    if (ids.length > many)
      return laidOut(ctx, ids, (call) => {
        const narrow = (rows: Rows, column: string) =>
          rows.whereRaw(`EXISTS (SELECT 1 FROM counted_among WHERE call = ? AND id = ${column})`, [call]);
        return count({ ctx, filter, narrow, all });
      });
    const given = JSON.stringify(ids);
    const narrow = (rows: Rows, column: string) =>
      rows.whereRaw(`${column} IN (SELECT value FROM json_each(?))`, [given]);
    return count({ ctx, filter, narrow, all });
  }
  const narrow = (rows: Rows, column: string) =>
    rows.whereIn(column, living(ctx, filter).select('source.id'));
  // What stands beside sources of a library stands beside its living ones alone, as facets and findings do.
  return count({
    ctx,
    filter,
    narrow: projectId ? narrow : (rows) => rows,
    all: projectId ? (rows) => rows : (rows) => rows.where({ library_id: ctx.libraryId }),
  });
}

/** The values of a column of a table beside sources, those that most have first. */
async function beside(
  { ctx, narrow }: Among,
  table: string,
  column: string,
  only: (rows: Rows) => unknown = () => 0,
): Promise<FacetValue[]> {
  const rows = ctx.db(table) as unknown as Rows;
  only(rows);
  const found = (await narrow(rows, `${table}.source_id`)
    .groupBy(`${table}.${column}`)
    .select(`${table}.${column} as value`)
    .count({ n: '*' })
    .orderBy([{ column: 'n', order: 'desc' }, { column: 'value' }])
    .limit(MOST_VALUES)) as { value: string; n: number }[];
  return found.map(({ value, n }) => ({ value, n }));
}

/** The values of a column of sources, all of them. */
async function byColumn(
  { ctx, filter }: Pick<Among, 'ctx' | 'filter'>,
  column: 'type' | 'year',
): Promise<FacetValue[]> {
  if (onlyProject(filter)) return byNumber(await tallied(ctx, column, filter.projectId));
  // With the sign, the column orders nothing: what narrows is looked up first, and its values are counted then.
  const rows = (await living(ctx, filter)
    .whereRaw(`+source.${column} IS NOT NULL`)
    .groupByRaw(`+source.${column}`)
    .select(`source.${column} as value`)
    .count({ n: '*' })) as { value: string | number; n: number }[];
  return byNumber(rows.map(({ value, n }) => ({ value: String(value), n })));
}

/** How many sources are among those that a query gives as `id`. */
async function numberOf(of: Among, value: string, rows: Rows, column: string): Promise<FacetValue> {
  const [{ n }] = (await of.narrow(rows, column).countDistinct({ n: column })) as [{ n: number }];
  return { value, n };
}

const byFacet = (kind: Facet) => (of: Among) =>
  beside(of, 'facet', 'value', (rows) => of.all(rows).where({ kind }));

/** Of what a person says of their reading, also sources in the bin have some. */
const byReading = (column: 'state' | 'priority') => (of: Among) =>
  beside(of, 'reading', column, (rows) =>
    rows
      .where({ owner_id: of.ctx.personId })
      .whereNotNull(column)
      .whereIn('reading.source_id', living(of.ctx, {}).select('source.id')),
  );

/** The fields of a query that sources are narrowed by, in the order they are offered, each with its values. */
const OFFERED = {
  reading: byReading('state'),
  priority: byReading('priority'),
  type: (of) => byColumn(of, 'type'),
  tag: async (of) =>
    onlyProject(of.filter)
      ? byNumber(await tallied(of.ctx, 'tag', of.filter.projectId)).slice(0, MOST_VALUES)
      : beside(of, 'source_tag', 'tag'),
  ...(Object.fromEntries(FACETS.map((kind) => [kind, byFacet(kind)])) as Record<
    Facet,
    (of: Among) => Promise<FacetValue[]>
  >),
  has: (of) =>
    Promise.all(
      Object.entries(HANGS).map(([has, hanging]) =>
        numberOf(
          of,
          has,
          (hanging(of.ctx) as Rows)
            .clearSelect()
            .whereIn('source_id', living(of.ctx, {}).select('source.id')),
          'source_id',
        ),
      ),
    ),
  async state(of) {
    if (onlyProject(of.filter)) {
      const { intake, findings } = await talliesOf(of.ctx, of.filter.projectId);
      return [
        { value: 'unchecked', n: intake },
        { value: 'found', n: findings },
      ];
    }
    const { ctx } = of;
    return [
      await numberOf(of, 'unchecked', living(ctx, { state: 'intake' }), 'source.id'),
      await numberOf(of, 'found', living(ctx, {}).whereRaw(`source.findings <> '[]'`), 'source.id'),
    ];
  },
  finding: (of) => beside(of, 'finding', 'name', of.all),
} satisfies Partial<Record<QueryField, (of: Among) => Promise<FacetValue[]>>>;

export type OfferedField = keyof typeof OFFERED;

/** A filter without what narrows by one field: its other values are offered beside those chosen. */
function without(filter: SourceFilter, field: OfferedField | 'year'): SourceFilter {
  const { text, ...rest } = filter;
  const left = text === undefined ? '' : printQuery(withField(parseQuery(text), field, []));
  return left ? { ...rest, text: left } : rest;
}

/** The years of what the rest of a filter leaves, for a chart of them. */
export async function yearsOf(ctx: Context, filter: SourceFilter): Promise<{ year: number; n: number }[]> {
  const years = await byColumn({ ctx, filter: without(filter, 'year') }, 'year');
  return years.map(({ value, n }) => ({ year: Number(value), n })).sort((a, b) => a.year - b.year);
}

/**
 * What a view offers to narrow by: each field with its values and how many sources have them, among what the rest of the query
 * leaves. `many`: from how many sources on they are laid out for being counted among.
 */
export async function facetsOf(
  ctx: Context,
  filter: SourceFilter,
  many = MANY,
): Promise<{ field: OfferedField; values: FacetValue[] }[]> {
  const fields = Object.keys(OFFERED) as OfferedField[];
  // Most fields narrow nothing yet, and are counted among the same sources.
  const left = new Map<string, { rest: SourceFilter; fields: OfferedField[] }>();
  for (const field of fields) {
    const rest = without(filter, field);
    const key = JSON.stringify(rest);
    const same = left.get(key) ?? { rest, fields: [] };
    same.fields.push(field);
    left.set(key, same);
  }
  const found = new Map<OfferedField, FacetValue[]>();
  for (const { rest, fields } of left.values())
    await withAmong(
      ctx,
      rest,
      async (of) => {
        for (const field of fields) found.set(field, await OFFERED[field](of));
      },
      many,
    );
  return fields.map((field) => ({ field, values: found.get(field)!.filter(({ n }) => n > 0) }));
}
