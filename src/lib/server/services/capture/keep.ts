import { compare } from '../../../core/duplicates';
import { describe, findWords, locatorIn } from '../../../core/passages';
import {
  derive,
  shortLabel,
  sourceRecord,
  takenOutOf,
  tidiedRecord,
  type SourceRecord,
  type Variable,
} from '../../../core/source';
import { nfc, squash } from '../../../core/text';
import { transaction, type Context } from '../../context';
import { now } from '../../db/ids';
import { readKept } from '../../files/store';
import { Refusal } from '../../refusal';
import { insertCopy, type Copy } from '../../repositories/copies';
import { getKept, insertKept, updateKept } from '../../repositories/kept';
import { leads } from '../../repositories/leads';
import { notes } from '../../repositories/notes';
import { insertPassage } from '../../repositories/passages';
import { getPreset, type Preset } from '../../repositories/presets';
import { fileSources, findProject } from '../../repositories/projects';
import { placeSource } from '../../repositories/sections';
import {
  getSource,
  insertSource,
  sourcesWithKeys,
  updateSource,
  type Source,
} from '../../repositories/sources';
import type { CaptureInput, Double, Gathered, Into } from './types';

interface FoundDouble extends Double {
  sure: boolean;
}

/** Living sources that a record looks the same as, by the keys they share; `sure` when nothing speaks against it. */
export async function alike(
  ctx: Context,
  record: SourceRecord,
): Promise<{ source: Source; reason: string; sure: boolean }[]> {
  const { titleKey, creatorKey, year, doi, isbn, addressKey } = derive(record);
  const found = await sourcesWithKeys(ctx, {
    ...(doi ? { doi } : {}),
    ...(addressKey ? { address_key: addressKey } : {}),
    ...(titleKey ? { title_key: titleKey, isbn, creator_key: creatorKey, year } : {}),
  });
  return found
    .map((source) => ({ source, judgement: compare(record, source.record) }))
    .filter(({ judgement }) => judgement.verdict !== 'different')
    .map(({ source, judgement }) => ({
      source,
      reason: judgement.reasons.join(', ') || 'alike',
      sure: judgement.verdict === 'same',
    }));
}

/** The same, as it is kept and said: by id and label. */
export async function doublesOf(ctx: Context, record: SourceRecord, except?: string): Promise<FoundDouble[]> {
  return (await alike(ctx, record))
    .filter(({ source }) => source.id !== except)
    .map(({ source, ...said }) => ({ id: source.id, label: shortLabel(source.record), ...said }));
}

/** The preset of a capture, if it names one that is still there. */
export async function presetOf(ctx: Context, into: Into): Promise<Preset | undefined> {
  return into.presetId ? getPreset(ctx, into.presetId).catch(() => undefined) : undefined;
}

/** A record with a preset's type and defaults where the capture says nothing of its own. */
export function withPreset(record: SourceRecord, preset: Preset | undefined): SourceRecord {
  if (!preset) return record;
  const vague = record.type === 'webpage' || record.type === 'document';
  const filled: Record<string, unknown> = {};
  const origins = { ...record.retexa.origins };
  const seen = (value: unknown) => ({
    kind: 'person' as const,
    value,
    at: now(),
    why: `preset “${preset.name}”`,
  });
  if (preset.type && vague && preset.type !== record.type) {
    filled.type = preset.type;
    origins.type = [...(origins.type ?? []), seen(preset.type)];
  }
  for (const [field, value] of Object.entries(preset.defaults)) {
    if (!value || record[field as Variable] !== undefined) continue;
    filled[field] = value;
    origins[field] = [...(origins[field] ?? []), seen(value)];
  }
  return sourceRecord.parse({ ...record, ...filled, retexa: { ...record.retexa, origins } });
}

const tagged = (record: SourceRecord, tags: string[]): SourceRecord => ({
  ...record,
  retexa: {
    ...record.retexa,
    tags: [...new Set([...record.retexa.tags, ...tags.map((t) => nfc(squash(t))).filter(Boolean)])],
  },
});

/** Keeps the words a person had selected on a page as a passage, located in the copy where they are found. */
async function keepSelection(
  ctx: Context,
  sourceId: string,
  copy: Copy | undefined,
  selection: string,
): Promise<boolean> {
  const words = squash(nfc(selection)).slice(0, 20_000);
  if (!words) return false;
  const at = copy && findWords(copy.text, words);
  const html = copy ? (await readKept(copy.reading_sha256)).toString('utf8') : '';
  const where = at && copy ? describe(copy.text, at.start, at.end) : null;
  await insertPassage(ctx, {
    sourceId,
    copyId: where && copy ? copy.id : null,
    kind: 'quotation',
    selectors: where,
    exact: where?.quote.exact ?? words,
    locator: where ? locatorIn(html, where.quote.exact) : null,
    gist: '',
    ownWords: '',
    tint: 'claim',
    visibility: 'library',
    anchor: where ? 'found' : 'lost',
  });
  return where !== null;
}

/** Puts what goes with a capture beside its source: project, section, note, quotation, the lead it was. */
async function keepBeside(
  ctx: Context,
  sourceId: string,
  input: CaptureInput,
  copies: Copy[],
): Promise<string[]> {
  const said: string[] = [];
  if (input.projectId && (await findProject(ctx, input.projectId)))
    await fileSources(ctx, input.projectId, [sourceId]);
  if (input.sectionId) await placeSource(ctx, input.sectionId, sourceId);
  const note = nfc(input.note ?? '').trim();
  if (note)
    await insertKept(
      ctx,
      notes,
      { body: note, projectId: input.projectId ?? null, sourceId, audio: null },
      'noted at capture',
    );
  if (input.selection) {
    const located = await keepSelection(ctx, sourceId, copies[0], input.selection);
    said.push(
      located
        ? 'The selection is kept as a quotation.'
        : 'The selection is kept as a quotation, but its place in the copy was not found.',
    );
  }
  if (input.leadId) await tickLead(ctx, input.leadId, sourceId);
  return said;
}

/** Ticks a lead off: it became a source. */
export async function tickLead(ctx: Context, leadId: string, sourceId: string): Promise<void> {
  const lead = await getKept(ctx, leads, leadId).catch(() => undefined);
  if (lead)
    await updateKept(ctx, leads, leadId, lead.revision, { foundId: sourceId, ticked: now() }, 'found');
}

/** Keeps what was gathered as a new source with its copies, all or nothing. */
export async function keepNew(
  ctx: Context,
  gathered: Gathered,
  input: CaptureInput,
): Promise<{ sourceId: string; label: string; copyId?: string; notes: string[] }> {
  const preset = await presetOf(ctx, input);
  const clean = tidiedRecord(gathered.record);
  const into: CaptureInput = {
    ...input,
    ...(preset?.projectId && !input.projectId ? { projectId: preset.projectId } : {}),
    ...(preset?.sectionId && !input.sectionId ? { sectionId: preset.sectionId } : {}),
  };
  const record = tagged(withPreset(clean.record, preset), [...(preset?.tags ?? []), ...(input.tags ?? [])]);
  return transaction(ctx, async (inner) => {
    const source = await insertSource(inner, record, { why: 'captured' });
    const kept: Copy[] = [];
    for (const copy of gathered.copies) kept.push(await insertCopy(inner, { ...copy, source_id: source.id }));
    const said = await keepBeside(inner, source.id, into, kept);
    return {
      sourceId: source.id,
      label: shortLabel(record),
      ...(kept[0] ? { copyId: kept[0].id } : {}),
      notes: [...gathered.notes, ...takenOutOf(clean.fields), ...said],
    };
  });
}

/** Adds what was gathered to a source that is already there: its copies, tags, note and quotation; the record stays. */
export async function keepAsCopy(
  ctx: Context,
  gathered: Gathered,
  input: CaptureInput,
  sourceId: string,
): Promise<{ sourceId: string; label: string; copyId?: string; notes: string[] }> {
  return transaction(ctx, async (inner) => {
    const source = await getSource(inner, sourceId);
    if (source.binned) throw new Refusal(409, 'That source is in the bin. Take it out first, or keep both.');
    const kept: Copy[] = [];
    for (const copy of gathered.copies) kept.push(await insertCopy(inner, { ...copy, source_id: sourceId }));
    const record = tagged(source.record, input.tags ?? []);
    if (record.retexa.tags.length !== source.record.retexa.tags.length)
      await updateSource(inner, sourceId, source.revision, { record }, 'tagged at capture');
    const said = await keepBeside(inner, sourceId, input, kept);
    return {
      sourceId,
      label: shortLabel(source.record),
      ...(kept[0] ? { copyId: kept[0].id } : {}),
      notes: [
        kept.length
          ? 'Added to the source you have as another copy.'
          : 'Nothing new was on the page; the source you have is as it was.',
        ...said,
      ],
    };
  });
}
