import { shortLabel, sourceRecord, withEdit, problemsOf, type SourceRecord } from '../../core/source';
import type { Finding } from '../../core/proof';
import { scoped, transaction, type Context } from '../context';
import { now } from '../db/ids';
import { tell } from '../events';
import { changedMeanwhile, Refusal } from '../refusal';
import { copiesOf } from '../repositories/copies';
import { getKept, updateKept, type Keeping, type Kept } from '../repositories/kept';
import { leads } from '../repositories/leads';
import { notes } from '../repositories/notes';
import { getPassage, updatePassage, type PassageState } from '../repositories/passages';
import { findRevision, revisionsOf, stateAt, type Revision, type Subject } from '../repositories/revisions';
import {
  getSource,
  living,
  openSource,
  updateSource,
  type Source,
  type SourceFilter,
  type SourceRow,
  type SourceState,
} from '../repositories/sources';
import { freeCitekey } from '../repositories/citekeys';
import { inTurn } from '../turns';
import { printedSoFar, type Look, type ShownReference } from './printing';

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
  reference?: ShownReference;
}

/** How many living passages, or copies, each of some sources has. */
export async function countsBy(
  ctx: Context,
  table: 'passage' | 'copy',
  ids: string[],
): Promise<Map<string, number>> {
  const query = scoped<{ source_id: string }>(ctx, table).whereIn('source_id', ids);
  if (table === 'passage') query.whereNull('binned');
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
  const [passages, copies, printed] = await Promise.all([
    countsBy(ctx, 'passage', ids),
    countsBy(ctx, 'copy', ids),
    printedSoFar(ctx, sources, look),
  ]);
  return sources.map(({ id, revision, record, citekey, added, checked, findings }, i) => {
    const row = rows[i]!;
    const reference = printed.get(id);
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
      ...(reference ? { reference } : {}),
    };
  });
}

export const SORTS = {
  author: ['sort_key', 'asc'],
  title: ['title_key', 'asc'],
  newest: ['year', 'desc'],
  oldest: ['year', 'asc'],
  added: ['added', 'desc'],
} as const;
export type Sort = keyof typeof SORTS;

/** One page of the sources that fit a filter, and how many fit in all. */
export async function listSources(
  ctx: Context,
  filter: SourceFilter,
  look: Look,
  page: { offset: number; limit: number; sort: Sort },
): Promise<{ total: number; items: SourceItem[] }> {
  const [column, direction] = SORTS[page.sort];
  const [{ n }] = (await living(ctx, filter).count({ n: '*' })) as [{ n: number }];
  const rows = (await living(ctx, filter)
    .orderBy([{ column, order: direction }, { column: 'sort_key' }, { column: 'id' }])
    .offset(page.offset)
    .limit(page.limit)) as SourceRow[];
  return { total: n, items: await itemsOf(ctx, rows, look) };
}

/** Ids of all sources that fit a filter, in author order. */
export async function listIds(ctx: Context, filter: SourceFilter): Promise<string[]> {
  const rows = (await living(ctx, filter).orderBy('sort_key').select('id')) as { id: string }[];
  return rows.map((r) => r.id);
}

/** What the filters of a view offer: types, tags and years with how many sources have them. */
export async function facetsOf(ctx: Context, projectId: string | undefined) {
  const filter = projectId ? { projectId } : {};
  const [types, years, tags] = await Promise.all([
    living(ctx, filter).groupBy('type').select('type').count({ n: '*' }).orderBy('n', 'desc') as Promise<
      { type: string; n: number }[]
    >,
    living(ctx, filter)
      .whereNotNull('year')
      .groupBy('year')
      .select('year')
      .count({ n: '*' })
      .orderBy('year') as Promise<{ year: number; n: number }[]>,
    scoped<{ tag: string }>(ctx, 'source_tag')
      .whereIn('source_id', living(ctx, filter).select('id'))
      .groupBy('tag')
      .select('tag')
      .count({ n: '*' })
      .orderBy('tag') as unknown as Promise<{ tag: string; n: number }[]>,
  ]);
  return { types, years, tags };
}

/** All tags of the library, for offering while typing. */
export async function allTags(ctx: Context): Promise<string[]> {
  const rows = (await scoped<{ tag: string }>(ctx, 'source_tag').distinct('tag').orderBy('tag')) as {
    tag: string;
  }[];
  return rows.map((r) => r.tag);
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
  const result = await transaction(ctx, async (inner) => {
    const { record, citekey } = await getSource(inner, id);
    const wanted = edit.citekey?.trim();
    if (wanted !== undefined && wanted !== citekey) {
      if (!/^[^\s{}(),"#%~\\=']+$/.test(wanted))
        throw new Refusal(422, 'The change was not saved:', [
          'citekey: letters, digits and - _ : . + / only',
        ]);
      const taken =
        (await scoped(inner, 'source').where({ citekey: wanted }).whereNot({ id }).first()) ??
        (await scoped(inner, 'alias').where({ alias: wanted }).whereNot({ source_id: id }).first());
      if (taken)
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
  tell(ctx.libraryId, { kind: 'changed' });
  return result;
}

/**
 * Gives sources new citekeys, made as the library makes them now. The old ones go on leading to their sources. Gives the
 * revisions made, for undoing.
 */
export async function renewCitekeys(ctx: Context, ids: string[]): Promise<string[]> {
  const revisions = await transaction(ctx, async (inner) => {
    const made: string[] = [];
    for await (const id of inTurn(ids)) {
      const source = await getSource(inner, id);
      const citekey = await freeCitekey(inner, source.record, { except: id });
      if (citekey === source.citekey) continue;
      const { revisionId } = await updateSource(inner, id, source.revision, { citekey }, 'citekey made anew');
      await inner
        .db('alias')
        .insert({ library_id: ctx.libraryId, alias: source.citekey, source_id: id })
        .onConflict(['library_id', 'alias'])
        .ignore();
      if (revisionId) made.push(revisionId);
    }
    return made;
  });
  tell(ctx.libraryId, { kind: 'changed' });
  return revisions;
}

/** Marks a source as checked, or sends it back to Intake. */
export async function checkSource(
  ctx: Context,
  id: string,
  base: number,
  checked: boolean,
): Promise<Changed> {
  const result = await transaction(ctx, (inner) =>
    updateSource(
      inner,
      id,
      base,
      { checked: checked ? now() : null },
      checked ? 'checked' : 'sent back to Intake',
    ),
  );
  tell(ctx.libraryId, { kind: 'changed' });
  return result;
}

/** Puts sources in the bin or takes them out; gives the revisions made, for undoing. Passages stay with their source. */
export async function binSources(ctx: Context, ids: string[], binned: boolean): Promise<string[]> {
  const revisions = await transaction(ctx, async (inner) => {
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
  tell(ctx.libraryId, { kind: 'changed' });
  return revisions;
}

/**
 * Takes revisions back. Each must still be the latest of its subject; if one is not, nothing is changed and the
 * person is sent to the history.
 */
export async function undo(ctx: Context, revisionIds: string[]): Promise<void> {
  await transaction(ctx, async (inner) => {
    for await (const id of inTurn(revisionIds)) await undoRevision(inner, id);
  });
  tell(ctx.libraryId, { kind: 'changed' });
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
  await transaction(ctx, (inner) =>
    bringBack(inner, 'source', id, number, `brought back revision ${number}`),
  );
  tell(ctx.libraryId, { kind: 'changed' });
}

/** The history of a source: what each edit changed, newest first. */
export async function historyOf(ctx: Context, id: string) {
  const revisions = await revisionsOf(ctx, id);
  return revisions.map(({ number, at, why, forward }) => ({
    number,
    at,
    why,
    fields: [
      ...new Set(
        forward
          .map((op) => op.path.split('/').slice(1))
          .filter((path) => path[0] === 'record' && path[1] !== undefined && path[1] !== 'retexa')
          .map((path) => path[1]!),
      ),
    ],
  }));
}

/** Everything the sheet of a source shows beside the record. */
export async function besideSource(ctx: Context, id: string) {
  const [copies, history] = await Promise.all([copiesOf(ctx, id), historyOf(ctx, id)]);
  return { copies, history };
}
