import type { Knex } from 'knex';
import { parseQuery, printQuery, type Query } from '../../core/query';
import { facetsOfRecord, shortLabel, sourceRecord, type CslType, type SourceRecord } from '../../core/source';
import { proof, type Finding } from '../../core/proof';
import { scoped, type Context } from '../access/context';
import { inParts, newId, now } from '../db/ids';
import { changedMeanwhile, notHere } from '../access/refusal';
import { inTurn } from '../turns';
import { freeCitekey } from './citekeys';
import { columnsOf, DERIVED, searchText } from './derived';
import { judge } from '../duplicates/judging';
import { proposeAnew } from '../duplicates/spelled';
import { noteRevision } from '../history/repository';
import { keepFindings } from '../proof/repository';
import { takeOrcids } from '../people/orcids';
import { placedAnywhere, placedBelow } from '../projects/sections';
import { asQueried, fieldsOf } from '../query';
import { index, isCommon, sourcesWithWords } from '../search/repository';
import { talliesOf } from './tallies';

/** A source as stored, its record opened. */
export interface Source {
  id: string;
  record: SourceRecord;
  revision: number;
  citekey: string;
  added: string;
  checked: string | null;
  binned: string | null;
  mergedInto: string | null;
  findings: Finding[];
}

/** A source's row in the database. */
export interface SourceRow {
  id: string;
  library_id: string;
  owner_id: string;
  record: string;
  revision: number;
  citekey: string;
  added: string;
  checked: string | null;
  binned: string | null;
  merged_into: string | null;
  type: string;
  title: string;
  title_key: string;
  creator_key: string;
  year: number | null;
  doi: string | null;
  isbn: string | null;
  address_key: string | null;
  sort_key: string;
  people: string;
  findings: string;
  derived: number;
}

/** What a revision of a source covers. */
export interface SourceState {
  record: SourceRecord;
  citekey: string;
  checked: string | null;
  binned: string | null;
}

const stateOf = ({ record, citekey, checked, binned }: Source): SourceState => ({
  record,
  citekey,
  checked,
  binned,
});

export const openSource = (row: SourceRow): Source => ({
  id: row.id,
  record: JSON.parse(row.record) as SourceRecord,
  revision: row.revision,
  citekey: row.citekey,
  added: row.added,
  checked: row.checked,
  binned: row.binned,
  mergedInto: row.merged_into,
  findings: JSON.parse(row.findings) as Finding[],
});

/** A source's short label, of a row that has its record only. */
export const labelOfRecord = (record: string): string => shortLabel(JSON.parse(record) as SourceRecord);

/**
 * Writes what stands beside the row: tags, what is found in it, the search index, and the pairs that look like one work, which it gives. `fresh`
 * for a source that was not there before, `tagsAlone` where nothing but its tags changed.
 */
export async function writeBeside(
  ctx: Context,
  id: string,
  source: Pick<Source, 'record' | 'revision' | 'citekey' | 'binned' | 'findings'>,
  fresh = false,
  tagsAlone = false,
) {
  if (!fresh) await ctx.db('source_tag').where({ source_id: id }).delete();
  const tags = [...new Set(source.record.retexa.tags)];
  if (tags.length)
    await ctx.db('source_tag').insert(tags.map((tag) => ({ library_id: ctx.libraryId, source_id: id, tag })));
  await index(ctx, 'source', id, source.binned ? '' : searchText(source), fresh);
  if (tagsAlone) return [];
  if (!fresh) await ctx.db('facet').where({ source_id: id }).delete();
  // Of the living alone, so that all of a library are counted without asking which these are.
  const facets = source.binned ? [] : facetsOfRecord(source.record);
  if (facets.length)
    await ctx
      .db('facet')
      .insert(facets.map((facet) => ({ ...facet, library_id: ctx.libraryId, source_id: id })));
  await keepFindings(ctx, id, source.binned ? [] : source.findings, fresh);
  const alike = await judge(ctx, id, source.binned ? undefined : source, fresh);
  await proposeAnew(ctx);
  return alike;
}

/**
 * Derives anew what an earlier version derived, of as many sources as `most`; gives how many there were. Call in a
 * transaction.
 */
export async function renewDerived(ctx: Context, most: number): Promise<number> {
  const rows = (await scoped<SourceRow>(ctx, 'source')
    .where('derived', '<', DERIVED)
    .limit(most)) as SourceRow[];
  for (const row of rows) {
    const source = openSource(row);
    const findings = proof(source.record);
    await scoped<SourceRow>(ctx, 'source').where({ id: row.id }).update(columnsOf(source.record, findings));
    await writeBeside(ctx, row.id, { ...source, findings, binned: source.binned ?? source.mergedInto });
  }
  return rows.length;
}

/**
 * Adds a source. Call in a transaction with what belongs to it. `citekey` is kept when it is free. Gives it with those there
 * are that look like the same work.
 */
export async function insertSource(
  ctx: Context,
  record: SourceRecord,
  options: { checked?: boolean; citekey?: string; why: string },
): Promise<Source & { alike: Awaited<ReturnType<typeof writeBeside>> }> {
  const valid = sourceRecord.parse(record);
  const source: Source = {
    id: newId(),
    record: valid,
    revision: 1,
    citekey: await freeCitekey(ctx, valid, { wanted: options.citekey }),
    added: now(),
    checked: options.checked ? now() : null,
    binned: null,
    mergedInto: null,
    findings: proof(valid),
  };
  await ctx.db('source').insert({
    id: source.id,
    library_id: ctx.libraryId,
    owner_id: ctx.personId,
    revision: 1,
    citekey: source.citekey,
    added: source.added,
    checked: source.checked,
    ...columnsOf(valid, source.findings),
  });
  const alike = await writeBeside(ctx, source.id, source, true);
  if (valid.retexa.orcids) await takeOrcids(ctx, valid.retexa.orcids);
  await noteRevision(ctx, 'source', source.id, 1, {}, stateOf(source), options.why);
  return { ...source, alike };
}

/** The living source a citekey belongs to, or that a merge or an import made it lead to. */
export const sourceByKey = async (ctx: Context, key: string): Promise<string | undefined> =>
  (await sourcesByKeys(ctx, [key])).get(key);

/** The living sources that citekeys belong to, or that a merge or an import made them lead to, by citekey. */
export async function sourcesByKeys(ctx: Context, keys: string[]): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  for await (const part of inTurn(inParts(keys))) {
    const led = (await scoped<{ alias: string }>(ctx, 'alias')
      .join('source', 'source.id', 'alias.source_id')
      .whereIn('alias', part)
      .whereNull('source.binned')
      .whereNull('source.merged_into')
      .select('alias as key', 'source.id')) as unknown as { key: string; id: string }[];
    const own = (await living(ctx, {})
      .whereIn('citekey', part)
      .select('citekey as key', 'id')) as unknown as {
      key: string;
      id: string;
    }[];
    for (const { key, id } of [...led, ...own]) found.set(key, id);
  }
  return found;
}

/** One source by id, binned and merged ones too. */
export async function findSource(ctx: Context, id: string): Promise<Source | undefined> {
  const row = (await scoped<SourceRow>(ctx, 'source').where({ id }).first()) as SourceRow | undefined;
  return row && openSource(row);
}

/** A source as it is stored; refuses when it is not in the library. */
export async function getRow(ctx: Context, id: string): Promise<SourceRow> {
  const row = (await scoped<SourceRow>(ctx, 'source').where({ id }).first()) as SourceRow | undefined;
  if (!row) throw notHere('source');
  return row;
}

/** Marks a source as merged into another, or as a source of its own again. */
export async function setMergedInto(ctx: Context, source: Source, survivorId: string | null): Promise<void> {
  await scoped<SourceRow>(ctx, 'source').where({ id: source.id }).update({ merged_into: survivorId });
  await writeBeside(ctx, source.id, survivorId ? { ...source, binned: 'merged' } : source);
}

/** One source by id; refuses when it is not in the library. */
export async function getSource(ctx: Context, id: string): Promise<Source> {
  const source = await findSource(ctx, id);
  if (!source) throw notHere('source');
  return source;
}

/** Several sources, in the order asked for; those not in the library are left out. */
export async function getSources(ctx: Context, ids: readonly string[]): Promise<Source[]> {
  const byId = new Map<string, Source>();
  for (const part of inParts(ids)) {
    const rows = (await scoped<SourceRow>(ctx, 'source').whereIn('id', part)) as SourceRow[];
    for (const row of rows) byId.set(row.id, openSource(row));
  }
  return ids.flatMap((id) => byId.get(id) ?? []);
}

/** Living sources after one, in the order of their ids, at most `limit`: what is stored of each. */
export const livingRecordsAfter = (
  ctx: Context,
  after: string,
  limit: number,
): Promise<{ id: string; revision: number; record: string }[]> =>
  living(ctx, {})
    .where('source.id', '>', after)
    .orderBy('source.id')
    .limit(limit)
    .select('source.id', 'source.revision', 'source.record') as unknown as Promise<
    { id: string; revision: number; record: string }[]
  >;

/** The living sources that fit a filter, with the revision each has. */
export const revisionsIn = (
  ctx: Context,
  filter: SourceFilter,
): Promise<{ id: string; revision: number }[]> =>
  living(ctx, filter).select('source.id', 'source.revision') as unknown as Promise<
    { id: string; revision: number }[]
  >;

/** The revisions that some sources have now, by id; those that are living. */
export async function revisionsNow(ctx: Context, ids: string[]): Promise<Map<string, number>> {
  const found = new Map<string, number>();
  for (const part of inParts(ids)) {
    const rows = (await living(ctx, {})
      .whereIn('source.id', part)
      .select('source.id', 'source.revision')) as {
      id: string;
      revision: number;
    }[];
    for (const { id, revision } of rows) found.set(id, revision);
  }
  return found;
}

/** Refuses when one of some sources is not in the library. */
export async function checkSources(ctx: Context, ids: string[]): Promise<void> {
  for (const part of inParts([...new Set(ids)])) {
    const [{ n }] = (await scoped<SourceRow>(ctx, 'source')
      .whereIn('id', part)
      .count({ n: '*' })) as unknown as [{ n: number }];
    if (n !== part.length) throw notHere('source');
  }
}

/** What works are looked up by among the sources there are. */
export interface LookUp {
  doi?: string | undefined;
  address_key?: string | undefined;
  title_key?: string | undefined;
}

/** How many sources of one title are looked at; more are pieces of a periodical that tell nothing apart. */
const MOST_ALIKE = 20;

/** Living sources that have the DOI, the address or the title of any of some works, each once. */
export async function sourcesWithAnyKey(ctx: Context, works: readonly LookUp[]): Promise<Source[]> {
  const ids = new Set<string>();
  for (const column of ['doi', 'address_key', 'title_key'] as const) {
    const values = [...new Set(works.flatMap((work) => work[column] ?? []))];
    for (const part of inParts(values)) {
      const rows = (await scoped<SourceRow>(ctx, 'source').whereIn(column, part).select('id', column)) as {
        id: string;
      }[];
      const seen = new Map<string, number>();
      for (const row of rows) {
        const value = (row as unknown as Record<string, string>)[column]!;
        const n = (seen.get(value) ?? 0) + 1;
        seen.set(value, n);
        // Many pieces of a periodical are called the same; that many tell nothing.
        if (n <= MOST_ALIKE) ids.add(row.id);
      }
    }
  }
  return (await getSources(ctx, [...ids])).filter((s) => !s.binned && !s.mergedInto);
}

/** Living sources whose folded title begins with one of some, at most `most`. */
export async function sourcesBeginning(ctx: Context, titles: string[], most = 500): Promise<Source[]> {
  const ids: string[] = [];
  for (const part of inParts([...new Set(titles)])) {
    const found = (await ctx.db.raw(
      `WITH wanted(title) AS (VALUES ${part.map(() => '(?)').join(', ')})
       SELECT source.id FROM wanted JOIN source ON source.library_id = ?
         AND source.title_key >= wanted.title AND source.title_key < wanted.title || ? LIMIT ?`,
      [...part, ctx.libraryId, '\uffff', most],
    )) as { id: string }[];
    ids.push(...found.map((row) => row.id));
  }
  return (await getSources(ctx, [...new Set(ids)])).filter((s) => !s.binned && !s.mergedInto);
}

/** Whether two states of a source differ in its tags and in nothing that more is made from. */
function differInTags(a: SourceState, b: SourceState): boolean {
  const without = ({ record, ...state }: SourceState) => {
    const { retexa, ...fields } = record;
    return JSON.stringify([state, fields, { ...retexa, tags: [] }]);
  };
  return without(a) === without(b);
}

/**
 * Changes a source. `base` is the revision the change was made on; another one refuses with 409 and changes nothing.
 * Gives the source as it is now and the id of the revision made (none when nothing changed).
 */
export async function updateSource(
  ctx: Context,
  id: string,
  base: number,
  change: Partial<SourceState>,
  why: string,
): Promise<{ source: Source; revisionId?: string }> {
  const before = await getSource(ctx, id);
  if (before.revision !== base) throw changedMeanwhile('source');
  const after: Source = { ...before, ...change, record: sourceRecord.parse(change.record ?? before.record) };
  const [was, is] = [stateOf(before), stateOf(after)];
  if (JSON.stringify(was) === JSON.stringify(is)) return { source: before };
  after.revision = base + 1;
  after.findings = proof(after.record);
  const changed = await scoped<SourceRow>(ctx, 'source')
    .where({ id, revision: base })
    .update({
      revision: after.revision,
      citekey: after.citekey,
      checked: after.checked,
      binned: after.binned,
      ...columnsOf(after.record, after.findings),
    });
  if (changed !== 1) throw changedMeanwhile('source');
  await writeBeside(ctx, id, after, false, differInTags(was, is));
  const revisionId = await noteRevision(ctx, 'source', id, after.revision, was, is, why);
  return { source: after, revisionId };
}

/** Narrows rows of what hangs on sources to those of sources that the fields of a query ask for. */
export function ofSourcesAsked(ctx: Context, rows: Knex.QueryBuilder, column: string, query: Query): void {
  const fields = fieldsOf(query);
  if (fields.terms.length === 0) return;
  void rows.whereIn(column, living(ctx, { text: printQuery(fields) }).select('source.id'));
}

/** Which sources a view shows. `text` is a query as it is written. */
export interface SourceFilter {
  projectId?: string;
  text?: string;
  type?: CslType;
  tag?: string;
  /** Those placed under a section or one under it, by its id; with `none`, those under no section of the project. */
  section?: string;
  state?: 'intake';
  /** These alone. */
  ids?: readonly string[];
}

/** The living sources (neither binned nor merged away) that fit a filter; `how` as `asQueried` has it. */
export function living(
  ctx: Context,
  filter: SourceFilter,
  how?: { fitted?: boolean; common?: boolean },
): Knex.QueryBuilder {
  const query = scoped<SourceRow>(ctx, 'source').whereNull('source.binned').whereNull('source.merged_into');
  if (filter.projectId)
    query.whereIn('source.id', ctx.db('filing').where({ project_id: filter.projectId }).select('source_id'));
  if (filter.type) query.where('source.type', filter.type);
  if (filter.tag)
    query.whereIn('source.id', scoped(ctx, 'source_tag').where({ tag: filter.tag }).select('source_id'));
  if (filter.section === 'none')
    void query.whereNotIn('source.id', placedAnywhere(ctx, filter.projectId).select('placement.source_id'));
  else if (filter.section)
    void query.whereIn('source.id', placedBelow(ctx, filter.section).select('placement.source_id'));
  if (filter.state === 'intake') query.whereNull('source.checked');
  if (filter.ids) void query.whereIn('source.id', filter.ids);
  if (filter.text) asQueried(ctx, query, parseQuery(filter.text), how);
  return query;
}

/** The same in the way that is the least work for all of them, or for the first in an order of their columns. */
export async function allLiving(ctx: Context, filter: SourceFilter): Promise<{ rows: Knex.QueryBuilder }> {
  if (!filter.text) return { rows: living(ctx, filter) };
  const { sources } = await talliesOf(ctx);
  return { rows: living(ctx, filter, { common: await isCommon(ctx, parseQuery(filter.text), sources) }) };
}

/** The numbers of the sources that a filter leaves which asks for words and nothing else; nothing where it asks for more. */
export function byWordsAlone(ctx: Context, { text, ...more }: SourceFilter): Knex.QueryBuilder | undefined {
  return text && Object.keys(more).length === 0 ? sourcesWithWords(ctx, parseQuery(text)) : undefined;
}

/** The numbers of the living sources that fit a filter, in no order. */
export async function numbersOf(ctx: Context, filter: SourceFilter): Promise<{ rows: Knex.QueryBuilder }> {
  const byWords = byWordsAlone(ctx, filter);
  if (byWords) return { rows: byWords };
  const { rows } = await allLiving(ctx, filter);
  return { rows: rows.select('source.no') };
}
