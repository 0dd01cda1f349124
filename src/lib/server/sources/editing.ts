import {
  makeCitekey,
  problemsOf,
  sourceRecord,
  withEdit,
  type CitekeyPattern,
  type SourceRecord,
} from '../../core/source';
import { mended, withSic, type Finding } from '../../core/proof';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { now } from '../db/ids';
import { inTurn } from '../turns';
import { keyTaken, leadTo } from './aliases';
import { freeCitekey, setCitekeyPattern } from './citekeys';
import { getSource, getSources, updateSource, type Source } from './repository';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources'] } as const;

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

/** Adds a tag to several sources, or mends what will print wrong in them as far as the proof knows; all or none. */
export const editSources = (
  ctx: Context,
  ids: string[],
  { tag, fix }: { tag?: string | undefined; fix?: boolean | undefined },
): Promise<{ revisions: string[] }> =>
  change(ctx, CHANGE, async (inner) => {
    const revisions: string[] = [];
    for await (const id of inTurn(ids)) {
      const source = await getSource(inner, id);
      const fields = fix ? mended(source.record) : {};
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
