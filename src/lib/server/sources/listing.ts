import type { Knex } from 'knex';
import { parseQuery } from '../../core/query';
import { shortLabel, type CslType } from '../../core/source';
import type { Finding } from '../../core/proof';
import { scoped, visible, type Context } from '../access/context';
import { readOf } from '../copies/place';
import { notHere, Refusal } from '../access/refusal';
import { counted } from '../db/counted';
import { twiceAmong } from '../duplicates/groups';
import { log } from '../log';
import { printEach, printedSoFar, type Look, type ShownReference } from '../lists/printing';
import { inOutline, sectionIds } from '../projects/sections';
import { readingOf, type Reading } from '../reading/repository';
import { soughtBy, withFit } from '../search/repository';
import {
  allLiving,
  byWordsAlone,
  findSource,
  getSources,
  living,
  numbersOf,
  openSource,
  type Source,
  type SourceFilter,
  type SourceRow,
} from './repository';
import { tallied, talliesOf } from './tallies';

/** A source as a row of a list. `reference` is absent when it is not printed yet. */
export interface SourceItem {
  id: string;
  revision: number;
  type: string;
  label: string;
  title: string;
  people: string;
  container: string;
  year: number | null;
  citekey: string;
  added: string;
  checked: string | null;
  letter: string;
  tags: string[];
  findings: Finding[];
  passages: number;
  copies: number;
  /** How much of it the person has read, of the copy they came furthest in: 0 to 1; nothing where none was opened. */
  read?: number;
  /** How far the person says they are with it, and how much it matters to them. */
  reading?: Reading;
  /** The pair it is in, when it looks like another. */
  twice?: { a: string; b: string };
  reference?: ShownReference;
}

/** How many living passages, or copies, each of some sources has. */
export async function countsBy(
  ctx: Context,
  table: 'passage' | 'copy',
  ids: string[],
): Promise<Map<string, number>> {
  const query =
    table === 'passage'
      ? visible<{ source_id: string }>(ctx, table).whereNull('binned')
      : scoped<{ source_id: string }>(ctx, table);
  void query.whereIn('source_id', ids);
  const rows = (await query.groupBy('source_id').select('source_id').count({ n: '*' })) as unknown as {
    source_id: string;
    n: number;
  }[];
  return new Map(rows.map((r) => [r.source_id, r.n]));
}

/** Rows of a list, printed as far as the cache has them. */
async function itemsOf(ctx: Context, rows: SourceRow[], look: Look): Promise<SourceItem[]> {
  const ids = rows.map((r) => r.id);
  const sources = rows.map(openSource);
  const [passages, copies, read, reading, printed, twice] = await Promise.all([
    countsBy(ctx, 'passage', ids),
    countsBy(ctx, 'copy', ids),
    readOf(ctx, ids),
    readingOf(ctx, ids),
    printedSoFar(ctx, sources, look),
    twiceAmong(ctx, ids),
  ]);
  return sources.map(({ id, revision, record, citekey, added, checked, findings }, i) => {
    const row = rows[i]!;
    const reference = printed.get(id);
    const pair = twice.get(id);
    return {
      id,
      revision,
      type: record.type,
      label: shortLabel(record),
      title: row.title,
      people: row.people,
      container: record['container-title'] ?? record.publisher ?? '',
      year: row.year,
      citekey,
      added,
      checked,
      letter: row.sort_key.charAt(0).toUpperCase(),
      tags: record.retexa.tags,
      findings,
      passages: passages.get(id) ?? 0,
      copies: copies.get(id) ?? 0,
      ...(read.has(id) ? { read: read.get(id)! } : {}),
      ...(reading.has(id) ? { reading: reading.get(id)! } : {}),
      ...(pair ? { twice: { a: pair.a, b: pair.b } } : {}),
      ...(reference ? { reference } : {}),
    };
  });
}

/** Rows with their references, those that were not printed yet too. What cannot be printed now has none. */
export async function withReferences(ctx: Context, items: SourceItem[], look: Look): Promise<SourceItem[]> {
  const missing = items.filter(({ reference }) => !reference).map(({ id }) => id);
  if (missing.length === 0) return items;
  try {
    const printed = await printEach(ctx, await getSources(ctx, missing), look);
    const byId = new Map(printed.map((reference) => [reference.id, reference]));
    return items.map((item) => {
      const reference = item.reference ?? byId.get(item.id);
      return reference ? { ...item, reference } : item;
    });
  } catch (err) {
    log.warn({ err }, 'rows are shown without their references');
    return items;
  }
}

/** The orders a list can be in, each with the index it is read from. */
export const SORTS = {
  author: ['sort_key', 'asc'],
  title: ['title_key', 'asc'],
  newest: ['year', 'desc'],
  oldest: ['year', 'asc'],
  added: ['added', 'desc'],
  kind: ['type', 'asc'],
} as const;
export type SortKey = keyof typeof SORTS;
/**
 * An order of a list: `fit` is how well words fit, `own` the order in a section, both by author where there are none; or what it
 * is ordered by first, then among what is alike in that, and so on. By author comes last always.
 */
export type Sort = 'fit' | 'own' | SortKey | readonly SortKey[];

/** How many orders one within another are asked for at most. */
const MOST_WITHIN = 4;

/** The order that a text names: `fit`, `own`, or names of orders with commas; nothing where it names none. */
export function sortIn(text: string): Sort | undefined {
  if (text === 'fit' || text === 'own') return text;
  const keys = text.split(',');
  return keys.length <= MOST_WITHIN && keys.every((key) => Object.hasOwn(SORTS, key))
    ? (keys as SortKey[])
    : undefined;
}

/** What a list is ordered by: how SQL says it, and what it is in a row. */
interface OrderedBy {
  sql: string;
  of: (row: SourceRow) => string | number | null;
  direction: 'asc' | 'desc';
}

/** The names at the head of the key sources are sorted by, without year and title: those of one author are alike in it. */
const NAMES: OrderedBy = {
  sql: `substr(source.sort_key, 1, instr(source.sort_key, ' | '))`,
  of: ({ sort_key }) => sort_key.slice(0, sort_key.indexOf(' | ') + 1),
  direction: 'asc',
};

/** What an order asks for, each once, before author, year and title, which every order ends with. */
function orderedBy(sort: Sort): OrderedBy[] {
  const keys = sort === 'fit' || sort === 'own' ? [] : typeof sort === 'string' ? [sort] : sort;
  const seen = new Set<string>();
  const first = keys.filter((key) => !seen.has(SORTS[key][0]) && seen.add(SORTS[key][0]));
  while (first.at(-1) === 'author') first.pop();
  return first.map((key): OrderedBy => {
    const [column, direction] = SORTS[key];
    return column === 'sort_key' ? NAMES : { sql: `source.${column}`, of: (row) => row[column], direction };
  });
}

/** Where a page of a list begins: after a source that is known, or so many from the first. */
export type Beginning = { after: string } | { offset: number };

/** Leaves what comes after a source in an order. */
async function after(ctx: Context, query: Knex.QueryBuilder, id: string, sort: Sort): Promise<void> {
  const row = (await scoped<SourceRow>(ctx, 'source').where({ id }).first()) as SourceRow | undefined;
  if (!row) throw notHere('source');
  const last = { sql: '(source.sort_key, source.id) > (?, ?)', values: [row.sort_key, id] as unknown[] };
  const { sql, values } = orderedBy(sort).reduceRight((rest, { sql: by, of, direction }) => {
    const value = of(row);
    const same = `(${by} IS ? AND ${rest.sql})`;
    // SQLite holds no value for less than any.
    const beyond =
      direction === 'asc'
        ? value === null
          ? `${by} IS NOT NULL`
          : `${by} > ?`
        : value === null
          ? 'false'
          : `(${by} < ? OR ${by} IS NULL)`;
    return {
      sql: `(${same} OR ${beyond})`,
      values: [value, ...rest.values, ...(value === null ? [] : [value])],
    };
  }, last);
  query.whereRaw(sql, values as string[]);
}

/** One page of the sources that fit a filter, and how many fit in all. */
export async function listSources(
  ctx: Context,
  filter: SourceFilter,
  look: Look,
  page: { from: Beginning; limit: number; sort: Sort },
): Promise<{ total: number; items: SourceItem[] }> {
  // Ids alone are read from the index; the rows of a page are fetched by them.
  const asked = parseQuery(filter.text ?? '');
  const fits = page.sort === 'fit' && soughtBy(asked).all !== undefined;
  const { rows: ids } = fits ? { rows: living(ctx, filter, { fitted: true }) } : await allLiving(ctx, filter);
  void ids.limit(page.limit).select('source.id');
  const wanted =
    'offset' in page.from && byWordsAlone(ctx, filter) ? page.from.offset + page.limit : undefined;
  if (fits) withFit(ctx, ids, 'source.no', 'source', asked, wanted);
  if (fits) void ids.orderBy('fitting.fit');
  const own = page.sort === 'own' && filter.section !== undefined && filter.section !== 'none';
  if (own)
    void ids
      .join(
        inOutline(ctx, await sectionIds(ctx, filter.section!)).as('outlined'),
        'outlined.source_id',
        'source.id',
      )
      .orderBy('outlined.place');
  for (const { sql, direction } of orderedBy(page.sort)) void ids.orderByRaw(`${sql} ${direction}`);
  void ids.orderBy(['source.sort_key', 'source.id']);
  if ('offset' in page.from) void ids.offset(page.from.offset);
  else if (fits || own) throw new Refusal(422, 'A list in this order is asked for by its place.');
  else await after(ctx, ids, page.from.after, page.sort);
  const shown = ((await ids) as { id: string }[]).map((r) => r.id);
  const rows = (await scoped<SourceRow>(ctx, 'source').whereIn('id', shown)) as SourceRow[];
  const byId = new Map(rows.map((r) => [r.id, r]));
  const items = await itemsOf(
    ctx,
    shown.flatMap((id) => byId.get(id) ?? []),
    look,
  );
  return { total: await countSources(ctx, filter), items };
}

/** How many sources fit a filter: as it is kept, where the filter is one of those counted, or counted now. */
export async function countSources(ctx: Context, filter: SourceFilter): Promise<number> {
  const { projectId, state, ...more } = filter;
  if (Object.keys(more).length === 0) {
    const counts = await talliesOf(ctx, projectId);
    return counts[state ?? 'sources'];
  }
  const { rows } = await numbersOf(ctx, filter);
  return counted(rows.clearSelect());
}

/** Ids of all sources that fit a filter, in author order. */
export async function listIds(ctx: Context, filter: SourceFilter): Promise<string[]> {
  const rows = (await living(ctx, filter).orderBy('sort_key').select('id')) as { id: string }[];
  return rows.map((r) => r.id);
}

/** Living sources of a project or the library as examples: as many of each kind as `each`, the kinds most have first. */
export async function someOfEachKind(
  ctx: Context,
  projectId: string | undefined,
  each: number,
): Promise<Source[]> {
  const kinds = (await tallied(ctx, 'type', projectId)).sort((a, b) => b.n - a.n);
  const filter = projectId ? { projectId } : {};
  const some: Source[] = [];
  for (const { value } of kinds) {
    const rows = (await living(ctx, { ...filter, type: value as CslType })
      .orderBy(['sort_key', 'id'])
      .limit(each)) as SourceRow[];
    some.push(...rows.map(openSource));
  }
  return some;
}

/** All tags of the library, for offering while typing. */
export async function allTags(ctx: Context): Promise<string[]> {
  return (await tallied(ctx, 'tag')).map((t) => t.value).sort((a, b) => a.localeCompare(b));
}

/** A source that waits in Intake. */
export interface Waiting {
  id: string;
  type: string;
  label: string;
  title: string;
}

/** How many waiting sources are named at once, around the one that is looked at. */
const NAMED = 60;

/**
 * The sources that wait in Intake, in the order they came, those around the one asked for, with that one or the first.
 * `at` is its place among those given, `before` how many wait before the first of them, `total` how many wait in all.
 */
export async function intakeAround(ctx: Context, projectId: string | undefined, wanted: string | null) {
  const filter: SourceFilter = { ...(projectId ? { projectId } : {}), state: 'intake' };
  const { intake: total } = await talliesOf(ctx, projectId);
  const one = wanted ? await findSource(ctx, wanted) : undefined;
  const waits = one && !one.checked && !one.binned && !one.mergedInto ? one : undefined;
  const before = waits
    ? ((
        (await living(ctx, filter)
          .whereRaw('(source.added, source.id) < (?, ?)', [waits.added, waits.id])
          .count({ n: '*' })) as [{ n: number }]
      )[0].n ?? 0)
    : 0;
  const first = Math.max(0, Math.min(before - 5, total - NAMED));
  const rows = (await living(ctx, filter)
    .orderBy(['source.added', 'source.id'])
    .offset(first)
    .limit(NAMED)) as SourceRow[];
  const queue: Waiting[] = rows.map((row) => ({
    id: row.id,
    type: row.type,
    label: shortLabel(openSource(row).record),
    title: row.title,
  }));
  const at = Math.max(
    0,
    rows.findIndex((r) => r.id === waits?.id),
  );
  const row = rows[at];
  return { queue, at, before: first, total, source: row && openSource(row) };
}
