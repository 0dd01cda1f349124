import {
  fieldChanged,
  fieldName,
  makeCitekey,
  problemsOf,
  shortLabel,
  sourceRecord,
  translationsOf,
  valueText,
  withEdit,
  withTranslations,
  type Credibility,
  type CitekeyPattern,
  type FieldChange,
  type SourceRecord,
  type Translation,
  type Variable,
} from '../../core/source';
import { mended, withSic, type Finding } from '../../core/proof';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { changedMeanwhile, Refusal } from '../access/refusal';
import { inParts, now } from '../db/ids';
import { revisionsOf, stateAt } from '../history/repository';
import { inTurn } from '../turns';
import { keyTaken, leadTo } from './aliases';
import { freeCitekey, setCitekeyPattern } from './citekeys';
import { getSource, getSources, updateSource, type Source, type SourceState } from './repository';
import { addTag } from './tagging';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources'] } as const;

/** A change of a record from a form: fields set or removed, tags, type. Bad values refuse with one line each. */
export interface RecordEdit {
  fields: Record<string, unknown>;
  tags?: string[];
  citekey?: string;
  /** How far it can be trusted: the answers that are given anew, those taken back without a value. */
  credibility?: Credibility;
  /** All its titles in other languages. */
  translations?: Translation[];
}

function edited(record: SourceRecord, edit: RecordEdit): SourceRecord {
  const next = withEdit(record, edit.fields, now());
  const tags = edit.tags ? [...new Set(edit.tags.map((t) => t.trim()).filter(Boolean))] : next.retexa.tags;
  const { credibility: before, ...rest } = next.retexa;
  const answers = Object.entries({ ...before, ...edit.credibility }).filter(([, answer]) => answer);
  const said = answers.length ? { credibility: Object.fromEntries(answers) } : {};
  const whole = { ...next, retexa: { ...rest, tags, ...said } };
  const parsed = sourceRecord.safeParse(
    edit.translations ? withTranslations(whole, edit.translations) : whole,
  );
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

/**
 * Refuses an edit that would write over what another wrote since revision `base`, naming each such field with what stands in it
 * now. An edit of other fields goes in beside theirs.
 */
async function checkUntouched(ctx: Context, present: Source, base: number, edit: RecordEdit): Promise<void> {
  if (present.revision === base) return;
  // No revision there was.
  if (base < 1 || base > present.revision) throw changedMeanwhile('source');
  const { record, citekey, checked, binned } = present;
  const state: SourceState = { record, citekey, checked, binned };
  const then = stateAt(state, await revisionsOf(ctx, present.id), base);
  const differs = (a: unknown, b: unknown) => JSON.stringify(a) !== JSON.stringify(b);
  const [was, is] = [then.record as Record<string, unknown>, record as Record<string, unknown>];
  const touched = Object.keys(edit.fields).filter((field) => differs(was[field], is[field]));
  // Of another kind, other fields are asked for, and what one typed may have no place in it.
  if (was.type !== is.type && !touched.includes('type')) touched.push('type');
  if (edit.tags && differs(then.record.retexa.tags, record.retexa.tags)) touched.push('tags');
  const [judged, judges] = [then.record.retexa.credibility ?? {}, record.retexa.credibility ?? {}];
  const answered = Object.keys(edit.credibility ?? {}) as (keyof Credibility)[];
  if (answered.some((question) => judged[question] !== judges[question])) touched.push('credibility');
  if (edit.translations && differs(translationsOf(then.record), translationsOf(record)))
    touched.push('translations');
  if (edit.citekey !== undefined && then.citekey !== citekey) touched.push('citekey');
  if (touched.length)
    throw changedMeanwhile(
      'source',
      touched.map((field) => `${field}: changed meanwhile`),
    );
}

/** Saves an edit made on revision `base`; what others changed since then stays, and is not written over. */
export async function editSource(
  ctx: Context,
  id: string,
  base: number,
  edit: RecordEdit,
  why = 'edited',
): Promise<Changed> {
  return change(ctx, CHANGE, async (inner) => {
    const present = await getSource(inner, id);
    const { record, citekey } = present;
    await checkUntouched(inner, present, base, edit);
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
      present.revision,
      { record: edited(record, edit), ...(wanted ? { citekey: wanted } : {}) },
      why,
    );
  });
}

/** Changes fields of a source as it is in the transaction that is under way; nobody is told. */
export const editSourceIn = (
  inner: Context,
  { id, revision, record }: Source,
  edit: Pick<RecordEdit, 'fields'>,
  why: string,
): Promise<Changed> => updateSource(inner, id, revision, { record: edited(record, edit) }, why);

/**
 * Gives sources new citekeys, made as the library makes them now. The old ones go on leading to their sources. Gives the
 * revisions made, for undoing.
 */
export const renewCitekeys = (ctx: Context, ids: readonly string[]): Promise<{ revisions: string[] }> =>
  change(ctx, CHANGE, async (inner) => ({
    revisions: revisionsOfMade(await renewCitekeyOfEach(inner, ids)),
  }));

/** The same in a transaction that is under way, of which nobody is told. */
export async function renewCitekeyOfEach(inner: Context, ids: readonly string[]): Promise<MadeOf[]> {
  const made: MadeOf[] = [];
  for await (const id of inTurn(ids)) {
    const source = await getSource(inner, id);
    const citekey = await freeCitekey(inner, source.record, { except: id });
    if (citekey === source.citekey) continue;
    const { revisionId } = await updateSource(inner, id, source.revision, { citekey }, 'citekey made anew');
    await leadTo(inner, source.citekey, id);
    if (revisionId) made.push({ sourceId: id, revisionId });
  }
  return made;
}

/** Lets a finding of a source stand as it is, or (without one) asks the check again. Gives the revision made, if any. */
export async function letStandIn(
  ctx: Context,
  source: Source,
  check: string,
  finding: Finding | undefined,
  why: string,
): Promise<string | undefined> {
  const record = withSic(source.record, check, finding);
  return (await updateSource(ctx, source.id, source.revision, { record }, why)).revisionId;
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

/** A revision that was made of a source among many. */
export interface MadeOf {
  sourceId: string;
  revisionId: string;
}
export const revisionsOfMade = (made: readonly MadeOf[]): string[] =>
  made.map(({ revisionId }) => revisionId);

/** Puts sources in the bin or takes them out; gives the revisions made, for undoing. Passages stay with their source. */
export const binSources = (ctx: Context, ids: string[], binned: boolean): Promise<string[]> =>
  change(ctx, CHANGE, async (inner) => revisionsOfMade(await binEach(inner, ids, binned)));

/** The same in a transaction that is under way, of which nobody is told. */
export async function binEach(inner: Context, ids: readonly string[], binned: boolean): Promise<MadeOf[]> {
  const made: MadeOf[] = [];
  for await (const id of inTurn(ids)) {
    const source = await getSource(inner, id);
    const { revisionId } = await updateSource(
      inner,
      id,
      source.revision,
      { binned: binned ? now() : null },
      binned ? 'put in the bin' : 'taken out of the bin',
    );
    if (revisionId) made.push({ sourceId: id, revisionId });
  }
  return made;
}

/** How the library makes citekeys from now on; keys that were given stay. */
export const changeCitekeys = (ctx: Context, pattern: CitekeyPattern): Promise<void> =>
  change(ctx, CHANGE, (inner) => setCitekeyPattern(inner, pattern));

/** The keys some sources have, and would get by a pattern. */
export const citekeysBy = async (ctx: Context, pattern: CitekeyPattern, ids: string[]) =>
  (await getSources(ctx, ids.slice(0, 10))).map((s) => ({
    id: s.id,
    now: s.citekey,
    made: makeCitekey(s.record, () => false, pattern),
  }));

/** What is done to several sources at once. */
export interface EditOfMany {
  tag?: string | undefined;
  fix?: boolean | undefined;
  checked?: boolean | undefined;
  change?: FieldChange | undefined;
}

const WHY_CHANGED = { set: 'set in several', clear: 'cleared in several', replace: 'words replaced in' };

/**
 * Changes several sources: a tag is added, what will print wrong is mended as far as the proof knows, they are marked as checked
 * or not, one field is changed; all of them or none. Gives the revisions made, for undoing.
 */
export const editSources = (
  ctx: Context,
  ids: string[],
  what: EditOfMany,
): Promise<{ revisions: string[] }> =>
  change(ctx, CHANGE, async (inner) => ({ revisions: revisionsOfMade(await editEach(inner, ids, what)) }));

/** The same in a transaction that is under way, of which nobody is told. */
export async function editEach(
  inner: Context,
  ids: readonly string[],
  { tag, fix, checked, change: changing }: EditOfMany,
): Promise<MadeOf[]> {
  if (tag && !fix && checked === undefined && !changing) return addTag(inner, ids, tag);
  const revisions: MadeOf[] = [];
  for await (const id of inTurn(ids)) {
    const source = await getSource(inner, id);
    const { record } = source;
    if (checked !== undefined && checked === Boolean(source.checked)) continue;
    const made = changing && fieldChanged(record, changing);
    if (changing && !made) continue;
    const fields = made ? { [changing!.field]: made.value } : fix ? mended(record) : {};
    const edit = { fields, ...(tag ? { tags: [...record.retexa.tags, tag] } : {}) };
    const why = changing
      ? `${WHY_CHANGED[changing.act]}: ${fieldName(changing.field).toLowerCase()}`
      : tag
        ? `tagged ${tag}`
        : checked === undefined
          ? 'findings fixed'
          : checked
            ? 'checked'
            : 'sent back to Intake';
    const { revisionId } = await updateSource(
      inner,
      id,
      source.revision,
      {
        record: editedNamed(source, edit),
        ...(checked === undefined ? {} : { checked: checked ? now() : null }),
      },
      why,
    );
    if (revisionId) revisions.push({ sourceId: id, revisionId });
  }
  return revisions;
}

/** The same as `edited`, of one of several: a refusal names which. */
function editedNamed({ record }: Source, edit: RecordEdit): SourceRecord {
  try {
    return edited(record, edit);
  } catch (e) {
    if (!(e instanceof Refusal)) throw e;
    const name = shortLabel(record);
    throw new Refusal(
      e.status,
      e.message,
      e.details.map((detail) => `${name}: ${detail}`),
      e.code,
    );
  }
}

/** How many sources a preview of a change shows. */
const SHOWN = 200;

/** What a change of one field would make of some sources: how many it changes, and the first of these. */
export async function previewChange(
  ctx: Context,
  ids: string[],
  changing: FieldChange,
): Promise<{
  total: number;
  shown: { id: string; label: string; was: string; is: string }[];
  changes: string[];
}> {
  const shown: { id: string; label: string; was: string; is: string }[] = [];
  const changes: string[] = [];
  for await (const part of inTurn(inParts(ids)))
    for (const { id, record } of await getSources(ctx, part)) {
      const made = fieldChanged(record, changing);
      if (!made) continue;
      changes.push(id);
      const { field } = changing;
      if (shown.length < SHOWN)
        shown.push({
          id,
          label: shortLabel(record),
          was: valueText(field, record[field as Variable]),
          is: valueText(field, made.value),
        });
    }
  return { total: changes.length, shown, changes };
}
