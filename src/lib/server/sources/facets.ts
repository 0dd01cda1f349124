import type { Knex } from 'knex';
import { HAS, parseQuery, printQuery, withField, type QueryField } from '../../core/query';
import { FACETS, type Facet } from '../../core/source';
import type { Context } from '../access/context';
import { asQueried } from '../query';
import { living, type SourceFilter } from './repository';
import { tallied, talliesOf } from './tallies';

/** A value sources are narrowed by, and how many of them have it. */
export interface FacetValue {
  value: string;
  n: number;
}

/** How many values of a facet are given, those that most sources have. */
const MOST_VALUES = 60;
/** What can hang on a source that is counted. */
const COUNTED_HAS = [
  'copy',
  'pdf',
  'passages',
  'notes',
  'tasks',
] as const satisfies readonly (typeof HAS)[number][];

type Rows = Promise<FacetValue[]>;

/** Values and counts of a query that gives `value`, those that most sources have first. */
async function counted(query: Knex.QueryBuilder): Rows {
  const rows = (await query
    .count({ n: '*' })
    .orderBy([{ column: 'n', order: 'desc' }, { column: 'value' }])
    .limit(MOST_VALUES)) as { value: string | number; n: number }[];
  return rows.map(({ value, n }) => ({ value: String(value), n }));
}

/** Those that most have first. */
const byNumber = (values: FacetValue[]): FacetValue[] => values.sort((a, b) => b.n - a.n);

/** By a column of sources, all values of it. */
async function byColumn(ctx: Context, column: 'type' | 'year', filter: SourceFilter): Rows {
  if (onlyProject(filter)) return byNumber(await tallied(ctx, column, filter.projectId));
  const rows = (await living(ctx, filter)
    .whereNotNull(`source.${column}`)
    .groupBy(`source.${column}`)
    .select(`source.${column} as value`)
    .count({ n: '*' })) as { value: string | number; n: number }[];
  return byNumber(rows.map(({ value, n }) => ({ value: String(value), n })));
}

/** By the rows of a table beside sources. */
const beside = (ctx: Context, table: string, column: string, filter: SourceFilter): Knex.QueryBuilder =>
  ctx
    .db(table)
    .whereIn(`${table}.source_id`, living(ctx, filter).select('source.id'))
    .groupBy(`${table}.${column}`)
    .select(`${table}.${column} as value`) as unknown as Knex.QueryBuilder;

/** How many fit a filter and a query more. */
async function countOf(ctx: Context, filter: SourceFilter, more: string): Promise<FacetValue> {
  const query = living(ctx, filter);
  asQueried(ctx, query, parseQuery(more));
  const [{ n }] = (await query.count({ n: '*' })) as [{ n: number }];
  return { value: more.slice(more.indexOf(':') + 1), n };
}

/** Nothing but a project narrows. */
const onlyProject = ({ projectId: _project, ...more }: SourceFilter): boolean =>
  Object.keys(more).length === 0;

const byFacet = (kind: Facet) => (ctx: Context, filter: SourceFilter) =>
  counted(beside(ctx, 'facet', 'value', filter).where('facet.kind', kind));

const byReading = (column: 'state' | 'priority') => (ctx: Context, filter: SourceFilter) =>
  counted(
    beside(ctx, 'reading', column, filter)
      .where('reading.owner_id', ctx.personId)
      .whereNotNull(`reading.${column}`),
  );

/** The years of what the rest of a filter leaves, for a chart of them. */
export async function yearsOf(ctx: Context, filter: SourceFilter): Promise<{ year: number; n: number }[]> {
  const years = await byColumn(ctx, 'year', without(filter, 'year'));
  return years.map(({ value, n }) => ({ year: Number(value), n })).sort((a, b) => a.year - b.year);
}

/** The fields of a query that sources are narrowed by, in the order they are offered, each with its values. */
const OFFERED = {
  reading: byReading('state'),
  priority: byReading('priority'),
  type: (ctx, filter) => byColumn(ctx, 'type', filter),
  tag: async (ctx, filter) =>
    onlyProject(filter)
      ? byNumber(await tallied(ctx, 'tag', filter.projectId)).slice(0, MOST_VALUES)
      : counted(beside(ctx, 'source_tag', 'tag', filter)),
  ...(Object.fromEntries(FACETS.map((kind) => [kind, byFacet(kind)])) as Record<
    Facet,
    (ctx: Context, filter: SourceFilter) => Rows
  >),
  has: (ctx, filter) => Promise.all(COUNTED_HAS.map((has) => countOf(ctx, filter, `has:${has}`))),
  async state(ctx, filter) {
    if (!onlyProject(filter))
      return Promise.all(['unchecked', 'found'].map((state) => countOf(ctx, filter, `state:${state}`)));
    const { intake, findings } = await talliesOf(ctx, filter.projectId);
    return [
      { value: 'unchecked', n: intake },
      { value: 'found', n: findings },
    ];
  },
  finding: (ctx, filter) => counted(beside(ctx, 'finding', 'name', filter)),
} satisfies Partial<Record<QueryField, (ctx: Context, filter: SourceFilter) => Rows>>;

export type OfferedField = keyof typeof OFFERED;

/** A filter without what narrows by one field: its other values are offered beside those chosen. */
function without(filter: SourceFilter, field: OfferedField | 'year'): SourceFilter {
  const { text, ...rest } = filter;
  const left = text === undefined ? '' : printQuery(withField(parseQuery(text), field, []));
  return left ? { ...rest, text: left } : rest;
}

/** What a view offers to narrow by: each field with its values and how many sources have them, among what the rest of the query leaves. */
export async function facetsOf(
  ctx: Context,
  filter: SourceFilter,
): Promise<{ field: OfferedField; values: FacetValue[] }[]> {
  const fields = Object.keys(OFFERED) as OfferedField[];
  const values = await Promise.all(fields.map((field) => OFFERED[field](ctx, without(filter, field))));
  return fields.map((field, i) => ({ field, values: values[i]!.filter(({ n }) => n > 0) }));
}
