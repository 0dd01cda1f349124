import type { Knex } from 'knex';
import { parseQuery, printQuery, withField, type Has, type QueryField } from '../../core/query';
import { FACETS, type Facet } from '../../core/source';
import { scoped, type Context } from '../access/context';
import { counted } from '../db/counted';
import { HANGS } from '../query';
import { allLiving, numbersOf, type SourceFilter } from './repository';
import { tallied, talliesOf } from './tallies';

/** A value sources are narrowed by, and how many of them have it. */
export interface FacetValue {
  value: string;
  n: number;
}

/** How many values of a facet are given, those that most sources have. */
const MOST_VALUES = 60;

type Rows = Knex.QueryBuilder;

/** The sources that a filter leaves, found once for all that is counted among them. */
interface Among {
  ctx: Context;
  /** Leaves of rows of a table beside sources those of these sources; they are given as `source`. */
  narrow: (rows: Rows, column: string) => Rows;
  /** Values of a trait, those that most of them have first. */
  traits: (kind: string) => Promise<FacetValue[]> | FacetValue[];
}

/** Leaves of rows of a table beside sources those of living ones. */
const living = (rows: Rows, column: string): Rows =>
  rows.join('source', 'source.id', column).whereNull('source.binned').whereNull('source.merged_into');

let calls = 0;

/** Counts among all sources of a library: their traits are counted as they come and go. */
const amongAll = (ctx: Context): Among => ({
  ctx,
  narrow: living,
  async traits(kind) {
    // What stands in the row of a source, and its tags, are traits of what is in the bin too.
    if (kind === 'type' || kind === 'tag') {
      const values = await tallied(ctx, kind);
      return values.sort((a, b) => b.n - a.n).slice(0, MOST_VALUES);
    }
    if (kind === 'state') {
      const { intake, findings } = await talliesOf(ctx);
      return [
        { value: 'unchecked', n: intake },
        { value: 'found', n: findings },
      ];
    }
    return (await scoped(ctx, 'trait')
      .where({ kind })
      .where('n', '>', 0)
      .orderBy([{ column: 'n', order: 'desc' }, { column: 'value' }])
      .limit(MOST_VALUES)
      .select('value', 'n')) as FacetValue[];
  },
});

/**
 * Counts among the sources that a filter leaves. Their numbers are laid out in a table of the connection, which no other sees and
 * nothing is written to disk for.
 */
async function withAmong<T>(
  ctx: Context,
  filter: SourceFilter,
  count: (of: Among) => Promise<T>,
): Promise<T> {
  if (Object.keys(filter).length === 0) return count(amongAll(ctx));
  await ctx.db.raw(
    'CREATE TEMP TABLE IF NOT EXISTS counted_among (call INTEGER, no INTEGER, PRIMARY KEY (call, no)) WITHOUT ROWID',
  );
  const call = ++calls;
  const { rows } = await numbersOf(ctx, filter);
  const n = await counted(rows.clone().clearSelect());
  const { sources } = await talliesOf(ctx);
  // Of most of a library, those are laid out that are not among them, and what they have is taken from what all have.
  const most = n > sources / 2;
  const laid = most ? scoped(ctx, 'source').whereNotIn('no', rows).select('no') : rows;
  const { sql, bindings } = laid.toSQL().toNative();
  try {
    await ctx.db.raw(`INSERT INTO counted_among SELECT ${call}, no FROM (${sql})`, [
      ...bindings,
    ] as Knex.RawBinding[]);
    const traits = await (most ? traitsWithout(ctx, call) : traitsOf(ctx, call));
    const these = ctx.db('counted_among').where({ call }).select('no');
    return await count({
      ctx,
      narrow(rows, column) {
        const beside = living(rows, column);
        return most ? beside.whereNotIn('source.no', these) : beside.whereIn('source.no', these);
      },
      traits: (kind) => traits.get(kind) ?? [],
    });
  } finally {
    await ctx.db('counted_among').where({ call }).delete();
  }
}

const HOW_MANY =
  'SELECT trait_id, count(*) AS n FROM counted_among CROSS JOIN trait_of USING (no) WHERE call = ? GROUP BY trait_id';

/** How many of the sources laid out have each trait. */
const traitsOf = (ctx: Context, call: number) =>
  firstOfKinds(
    ctx,
    `SELECT trait.kind, trait.value, had.n FROM (${HOW_MANY}) had CROSS JOIN trait ON trait.id = had.trait_id`,
    [call],
  );

/** How many of a library's sources that are not laid out have each trait. */
const traitsWithout = (ctx: Context, call: number) =>
  firstOfKinds(
    ctx,
    `SELECT trait.kind, trait.value, trait.n - coalesce(had.n, 0) AS n FROM trait LEFT JOIN (${HOW_MANY}) had ON had.trait_id = trait.id WHERE trait.library_id = ?`,
    [call, ctx.libraryId],
  );

/** Of counted traits, by their kind, those that most have. */
async function firstOfKinds(
  ctx: Context,
  sql: string,
  bound: (string | number)[],
): Promise<Map<string, FacetValue[]>> {
  const rows = (await ctx.db.raw(
    `SELECT kind, value, n FROM (SELECT *, row_number() OVER (PARTITION BY kind ORDER BY n DESC, value) AS place FROM (${sql}) WHERE n > 0) WHERE place <= ${MOST_VALUES} ORDER BY kind, place`,
    bound,
  )) as ({ kind: string } & FacetValue)[];
  const traits = new Map<string, FacetValue[]>();
  for (const { kind, ...value } of rows) traits.set(kind, [...(traits.get(kind) ?? []), value]);
  return traits;
}

const byTrait = (kind: string) => async (of: Among) => of.traits(kind);

/** What a person says of their reading. */
const byReading = (column: 'state' | 'priority') => async (of: Among) => {
  const rows = (await of
    .narrow(of.ctx.db('reading') as unknown as Rows, 'reading.source_id')
    .where({ 'reading.owner_id': of.ctx.personId })
    .whereNotNull(`reading.${column}`)
    .groupBy(`reading.${column}`)
    .select(`reading.${column} as value`)
    .count({ n: '*' })
    .orderBy([{ column: 'n', order: 'desc' }, { column: 'value' }])) as unknown as FacetValue[];
  return rows;
};

/** How many of them something hangs on. */
async function numberWith(of: Among, value: Has, hanging: Rows): Promise<FacetValue> {
  const beside = of.ctx.db.from(hanging.as('hanging')) as unknown as Rows;
  const [row] = (await of.narrow(beside, 'hanging.source_id').countDistinct({ n: 'source.no' })) as [
    { n: number },
  ];
  return { value, n: row.n };
}

/** The fields of a query that sources are narrowed by, in the order they are offered, each with its values. */
const OFFERED = {
  reading: byReading('state'),
  priority: byReading('priority'),
  type: byTrait('type'),
  tag: byTrait('tag'),
  ...(Object.fromEntries(FACETS.map((kind) => [kind, byTrait(kind)])) as Record<
    Facet,
    ReturnType<typeof byTrait>
  >),
  has: (of) =>
    Promise.all(
      Object.entries(HANGS).map(([has, hanging]) =>
        numberWith(of, has as keyof typeof HANGS, hanging(of.ctx) as Rows),
      ),
    ),
  state: byTrait('state'),
  finding: byTrait('finding'),
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
  const { projectId, ...narrowing } = without(filter, 'year');
  const years = Object.keys(narrowing).length
    ? // With the sign, the column orders nothing: what narrows is looked up first, and its values are counted then.
      ((await (
        await allLiving(ctx, { projectId, ...narrowing })
      ).rows
        .whereRaw('+source.year IS NOT NULL')
        .groupByRaw('+source.year')
        .select('source.year as value')
        .count({ n: '*' })) as { value: number; n: number }[])
    : await tallied(ctx, 'year', projectId);
  return years.map(({ value, n }) => ({ year: Number(value), n })).sort((a, b) => a.year - b.year);
}

/**
 * What a view offers to narrow by: each field with its values and how many sources have them, among what the rest of the query
 * leaves.
 */
export async function facetsOf(
  ctx: Context,
  filter: SourceFilter,
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
    await withAmong(ctx, rest, async (of) => {
      for (const field of fields) found.set(field, await OFFERED[field](of));
    });
  return fields.map((field) => ({ field, values: found.get(field)!.filter(({ n }) => n > 0) }));
}
