import { change } from '../access/change';
import type { Knex } from 'knex';
import {
  makeCitekey,
  valueText,
  type Variable,
  shortLabel,
  sourceRecord,
  type CitekeyPattern,
  withEdit,
  problemsOf,
  type SourceRecord,
} from '../../core/source';
import { type Finding, proof } from '../../core/proof';
import { scoped, visible, type Context } from '../access/context';
import { now } from '../db/ids';
import { changedMeanwhile, notHere, Refusal } from '../access/refusal';
import { copiesOf } from '../copies/repository';
import { getKept, updateKept, type Keeping, type Kept } from '../history/kept';
import { leads } from '../leads/repository';
import { notes } from '../notes/repository';
import { getPassage, updatePassage, type PassageState } from '../passages/repository';
import { findRevision, revisionsOf, stateAt, type Revision, type Subject } from '../history/repository';
import {
  findSource,
  getSource,
  getSources,
  living,
  openSource,
  updateSource,
  type Source,
  type SourceFilter,
  type SourceRow,
  type SourceState,
} from './repository';
import { keyTaken, leadTo } from './aliases';
import { freeCitekey, setCitekeyPattern } from './citekeys';
import { twiceAmong } from '../duplicates/repository';
import { tallied, talliesOf } from './tallies';
import { inTurn } from '../turns';
import { printedSoFar, type Look, type ShownReference } from '../lists/printing';

export { citekeyPattern } from './citekeys';
export { KNOWN_FIELDS, knownPeople, knownValues } from './known';
export { getSource, getSources, type Source, type SourceFilter } from './repository';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources'] } as const;

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
  const [passages, copies, printed, twice] = await Promise.all([
    countsBy(ctx, 'passage', ids),
    countsBy(ctx, 'copy', ids),
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
      ...(pair ? { twice: { a: pair.a, b: pair.b } } : {}),
      ...(reference ? { reference } : {}),
    };
  });
}

/** The orders a list can be in, each with the index it is read from. */
export const SORTS = {
  author: ['sort_key', 'asc'],
  title: ['title_key', 'asc'],
  newest: ['year', 'desc'],
  oldest: ['year', 'asc'],
  added: ['added', 'desc'],
} as const;
export type Sort = keyof typeof SORTS;

/** Where a page of a list begins: after a source that is known, or so many from the first. */
export type Beginning = { after: string } | { offset: number };

/** Leaves what comes after a source in an order. */
async function after(ctx: Context, query: Knex.QueryBuilder, id: string, sort: Sort): Promise<void> {
  const row = (await scoped<SourceRow>(ctx, 'source').where({ id }).first()) as SourceRow | undefined;
  if (!row) throw notHere('source');
  const [column, direction] = SORTS[sort];
  const rest = [row.sort_key, id];
  if (column === 'sort_key') return void query.whereRaw('(source.sort_key, source.id) > (?, ?)', rest);
  const value = row[column];
  const same = `source.${column} IS ? AND (source.sort_key, source.id) > (?, ?)`;
  // SQLite holds no value for less than any.
  const beyond =
    direction === 'asc'
      ? value === null
        ? `source.${column} IS NOT NULL`
        : `source.${column} > ?`
      : value === null
        ? 'false'
        : `(source.${column} < ? OR source.${column} IS NULL)`;
  query.whereRaw(`((${same}) OR ${beyond})`, [value, ...rest, ...(value === null ? [] : [value])]);
}

/** One page of the sources that fit a filter, and how many fit in all. */
export async function listSources(
  ctx: Context,
  filter: SourceFilter,
  look: Look,
  page: { from: Beginning; limit: number; sort: Sort },
): Promise<{ total: number; items: SourceItem[] }> {
  const [column, direction] = SORTS[page.sort];
  // Ids alone are read from the index; the rows of a page are fetched by them.
  const ids = living(ctx, filter)
    .orderBy([
      { column: `source.${column}`, order: direction },
      { column: 'source.sort_key' },
      { column: 'source.id' },
    ])
    .limit(page.limit)
    .select('source.id');
  if ('offset' in page.from) void ids.offset(page.from.offset);
  else await after(ctx, ids, page.from.after, page.sort);
  const wanted = ((await ids) as { id: string }[]).map((r) => r.id);
  const rows = (await scoped<SourceRow>(ctx, 'source').whereIn('id', wanted)) as SourceRow[];
  const byId = new Map(rows.map((r) => [r.id, r]));
  const items = await itemsOf(
    ctx,
    wanted.flatMap((id) => byId.get(id) ?? []),
    look,
  );
  return { total: await howMany(ctx, filter), items };
}

/** How many sources fit a filter: as it is kept, where the filter is one of those counted, or counted now. */
async function howMany(ctx: Context, filter: SourceFilter): Promise<number> {
  const { projectId, state, ...more } = filter;
  if (Object.keys(more).length === 0) {
    const counts = await talliesOf(ctx, projectId);
    return counts[state === 'intake' || state === 'findings' ? state : 'sources'];
  }
  const [{ n }] = (await living(ctx, filter).count({ n: '*' })) as [{ n: number }];
  return n;
}

/** Ids of all sources that fit a filter, in author order. */
export async function listIds(ctx: Context, filter: SourceFilter): Promise<string[]> {
  const rows = (await living(ctx, filter).orderBy('sort_key').select('id')) as { id: string }[];
  return rows.map((r) => r.id);
}

/**
 * What the filters of a view offer: types, tags and years with how many sources have them, each among what the other
 * filters leave.
 */
export async function facetsOf(ctx: Context, filter: SourceFilter) {
  const { type: _type, ...butType } = filter;
  const { tag: _tag, ...butTag } = filter;
  const { from: _from, to: _to, ...butYears } = filter;
  const [types, years, tags] = await Promise.all([
    facet(ctx, 'type', butType),
    facet(ctx, 'year', butYears),
    facet(ctx, 'tag', butTag),
  ]);
  return {
    types: types.sort((a, b) => b.n - a.n).map(({ value, n }) => ({ type: value, n })),
    years: years.map(({ value, n }) => ({ year: Number(value), n })).sort((a, b) => a.year - b.year),
    tags: tags.sort((a, b) => a.value.localeCompare(b.value)).map(({ value, n }) => ({ tag: value, n })),
  };
}

/** The values of one facet among what a filter leaves: as they are kept, where only a project narrows. */
async function facet(
  ctx: Context,
  kind: 'type' | 'year' | 'tag',
  { projectId, ...more }: SourceFilter,
): Promise<{ value: string; n: number }[]> {
  if (Object.keys(more).length === 0) return tallied(ctx, kind, projectId);
  const filter = { ...more, ...(projectId ? { projectId } : {}) };
  const query: Knex.QueryBuilder =
    kind === 'tag'
      ? ctx
          .db('source_tag')
          .whereIn('source_id', living(ctx, filter).select('source.id'))
          .groupBy('tag')
          .select('tag as value')
      : living(ctx, filter)
          .whereNotNull(`source.${kind}`)
          .groupBy(`source.${kind}`)
          .select(`source.${kind} as value`);
  const rows = (await query.count({ n: '*' })) as { value: string | number; n: number }[];
  return rows.map(({ value, n }) => ({ value: String(value), n }));
}

/** All tags of the library, for offering while typing. */
export async function allTags(ctx: Context): Promise<string[]> {
  return (await tallied(ctx, 'tag')).map((t) => t.value).sort((a, b) => a.localeCompare(b));
}

/** A change of a record from a form: fields set or removed, tags, type. Bad values refuse with one line each. */
export interface RecordEdit {
  fields: Record<string, unknown>;
  tags?: string[];
  citekey?: string;
}

function edited(record: SourceRecord, edit: RecordEdit): SourceRecord {
  const next = withEdit(record, edit.fields, now());
  const tags = edit.tags ? [...new Set(edit.tags.map((t) => t.trim()).filter(Boolean))] : next.retexa.tags;
  const parsed = sourceRecord.safeParse({ ...next, retexa: { ...next.retexa, tags } });
  if (!parsed.success) throw new Refusal(422, 'The change was not saved:', problemsOf(parsed.error));
  return parsed.data;
}

/** A record as it would be after an edit, for showing how it prints; nothing is saved. */
export async function previewEdit(ctx: Context, id: string, edit: RecordEdit): Promise<SourceRecord> {
  return edited((await getSource(ctx, id)).record, edit);
}

export interface Changed {
  source: Source;
  revisionId?: string;
}

/** Saves an edit made on revision `base`. */
export async function editSource(
  ctx: Context,
  id: string,
  base: number,
  edit: RecordEdit,
  why = 'edited',
): Promise<Changed> {
  return change(ctx, CHANGE, async (inner) => {
    const { record, citekey } = await getSource(inner, id);
    const wanted = edit.citekey?.trim();
    if (wanted !== undefined && wanted !== citekey) {
      if (!/^[^\s{}(),"#%~\\=']+$/.test(wanted))
        throw new Refusal(422, 'The change was not saved:', [
          'citekey: letters, digits and - _ : . + / only',
        ]);
      if (await keyTaken(inner, wanted, id))
        throw new Refusal(422, 'The change was not saved:', [`citekey: ${wanted} belongs to another source`]);
    }
    return updateSource(
      inner,
      id,
      base,
      { record: edited(record, edit), ...(wanted ? { citekey: wanted } : {}) },
      why,
    );
  });
}

/**
 * Gives sources new citekeys, made as the library makes them now. The old ones go on leading to their sources. Gives the
 * revisions made, for undoing.
 */
export async function renewCitekeys(ctx: Context, ids: string[]): Promise<string[]> {
  return change(ctx, CHANGE, async (inner) => {
    const made: string[] = [];
    for await (const id of inTurn(ids)) {
      const source = await getSource(inner, id);
      const citekey = await freeCitekey(inner, source.record, { except: id });
      if (citekey === source.citekey) continue;
      const { revisionId } = await updateSource(inner, id, source.revision, { citekey }, 'citekey made anew');
      await leadTo(inner, source.citekey, id);
      if (revisionId) made.push(revisionId);
    }
    return made;
  });
}

/** Marks a source as checked, or sends it back to Intake. */
export async function checkSource(
  ctx: Context,
  id: string,
  base: number,
  checked: boolean,
): Promise<Changed> {
  return change(ctx, CHANGE, (inner) =>
    updateSource(
      inner,
      id,
      base,
      { checked: checked ? now() : null },
      checked ? 'checked' : 'sent back to Intake',
    ),
  );
}

/** Puts sources in the bin or takes them out; gives the revisions made, for undoing. Passages stay with their source. */
export async function binSources(ctx: Context, ids: string[], binned: boolean): Promise<string[]> {
  return change(ctx, CHANGE, async (inner) => {
    const made: string[] = [];
    for await (const id of inTurn(ids)) {
      const source = await getSource(inner, id);
      const { revisionId } = await updateSource(
        inner,
        id,
        source.revision,
        { binned: binned ? now() : null },
        binned ? 'put in the bin' : 'taken out of the bin',
      );
      if (revisionId) made.push(revisionId);
    }
    return made;
  });
}

/**
 * Takes revisions back. Each must still be the latest of its subject; if one is not, nothing is changed and the
 * person is sent to the history. Gives the revisions this made, for doing it again.
 */
export async function undo(ctx: Context, revisionIds: string[]): Promise<{ revisions: string[] }> {
  const revisions: string[] = [];
  await change(ctx, CHANGE, async (inner) => {
    for await (const id of inTurn(revisionIds)) {
      const made = await undoRevision(inner, id);
      if (made) revisions.push(made);
    }
  });
  return { revisions };
}

/** Takes one revision back, which must still be the latest of its subject; gives the id of the revision that did it. */
export async function undoRevision(ctx: Context, id: string): Promise<string | undefined> {
  const revision = await findRevision(ctx, id);
  if (!revision) throw new Refusal(404, 'There is nothing left to undo.');
  const { subject, subject_id, number, why } = revision;
  const [latest] = await revisionsOf(ctx, subject_id);
  if (latest?.id !== id) throw changedMeanwhile(subject);
  return (await bringBack(ctx, subject, subject_id, number - 1, `undid: ${why}`)).revisionId;
}

async function bringBack(ctx: Context, subject: Subject, id: string, number: number, why: string) {
  if (number < 1) throw new Refusal(409, 'This is the first state there is.');
  const revisions = await revisionsOf(ctx, id);
  if (subject === 'source') {
    const present = await getSource(ctx, id);
    const { record, citekey, checked, binned } = present;
    const state = stateAt<SourceState>({ record, citekey, checked, binned }, revisions, number);
    return updateSource(ctx, id, present.revision, state, why);
  }
  if (subject === 'note') return bringKeptBack(ctx, notes, id, revisions, number, why);
  if (subject === 'lead') return bringKeptBack(ctx, leads, id, revisions, number, why);
  const present = await getPassage(ctx, id);
  const { id: _id, revision, added: _added, sourceId: _source, ...present_state } = present;
  return updatePassage(ctx, id, revision, stateAt<PassageState>(present_state, revisions, number), why);
}

async function bringKeptBack<T extends Kept>(
  ctx: Context,
  keeping: Keeping<T>,
  id: string,
  revisions: Revision[],
  number: number,
  why: string,
) {
  const present = await getKept(ctx, keeping, id);
  const state = Object.fromEntries(
    keeping.state.map((k) => [k, (present as unknown as Record<string, unknown>)[k] ?? null]),
  ) as Partial<T>;
  return updateKept(ctx, keeping, id, present.revision, stateAt(state, revisions, number), why);
}

/** Brings a source back to an earlier revision, as a new one; nothing of the history is lost. */
export async function restoreRevision(ctx: Context, id: string, number: number): Promise<void> {
  await change(ctx, CHANGE, (inner) =>
    bringBack(inner, 'source', id, number, `brought back revision ${number}`),
  );
}

/** The history of a source: what each edit changed, newest first. */
export async function historyOf(ctx: Context, id: string) {
  const revisions = await revisionsOf(ctx, id);
  return revisions.map(({ number, at, why, forward, backward }) => ({
    number,
    at,
    why,
    fields: changesIn(forward, backward),
  }));
}

/** How much of a value the history shows. */
const VALUE_SHOWN = 80;

/** The fields a revision changed, each with what it was and what it is; without, where only a part of it changed. */
function changesIn(
  forward: Revision['forward'],
  backward: Revision['backward'],
): { field: string; was: string; is: string }[] {
  const fields = new Set(
    forward
      .map((op) => op.path.split('/').slice(1))
      .filter((path) => path[0] === 'record' && path[1] !== undefined && path[1] !== 'retexa')
      .map((path) => path[1]!),
  );
  const text = (operations: Revision['forward'], field: string) => {
    const whole = operations.find((op) => op.path === `/record/${field}`);
    if (!whole || !('value' in whole)) return '';
    const shown = valueText(field as Variable, whole.value);
    return shown.length > VALUE_SHOWN ? `${shown.slice(0, VALUE_SHOWN).trimEnd()}…` : shown;
  };
  return [...fields].map((field) => ({ field, was: text(backward, field), is: text(forward, field) }));
}

/** Everything the sheet of a source shows beside the record. */
export async function besideSource(ctx: Context, id: string) {
  const [copies, history] = await Promise.all([copiesOf(ctx, id), historyOf(ctx, id)]);
  return { copies, history };
}

/** How the library makes citekeys from now on; the sources named get new keys by it too. Gives the revisions made. */
export const changeCitekeys = (
  ctx: Context,
  pattern: CitekeyPattern,
  renew: string[] = [],
): Promise<{ revisions: string[] }> =>
  change(ctx, CHANGE, async (inner) => {
    await setCitekeyPattern(inner, pattern);
    return { revisions: renew.length ? await renewCitekeys(inner, renew) : [] };
  });

/** The keys some sources have, and would get by a pattern. */
export const citekeysBy = async (ctx: Context, pattern: CitekeyPattern, ids: string[]) =>
  (await getSources(ctx, ids.slice(0, 10))).map((s) => ({
    id: s.id,
    now: s.citekey,
    made: makeCitekey(s.record, () => false, pattern),
  }));

/** Adds a tag to several sources, or carries out every fix the proof offers for them; all or none. */
export const editSources = (
  ctx: Context,
  ids: string[],
  { tag, fix }: { tag?: string | undefined; fix?: boolean | undefined },
): Promise<{ revisions: string[] }> =>
  change(ctx, CHANGE, async (inner) => {
    const revisions: string[] = [];
    for await (const id of inTurn(ids)) {
      const source = await getSource(inner, id);
      const fields = fix ? Object.assign({}, ...proof(source.record).map((f) => f.fix?.edit ?? {})) : {};
      const tags = tag ? [...source.record.retexa.tags, tag] : undefined;
      const { revisionId } = await editSource(
        inner,
        id,
        source.revision,
        { fields, ...(tags ? { tags } : {}) },
        tag ? `tagged ${tag}` : 'findings fixed',
      );
      if (revisionId) revisions.push(revisionId);
    }
    return { revisions };
  });

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
