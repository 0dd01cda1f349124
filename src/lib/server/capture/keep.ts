import { change } from '../access/change';
import { mergeEffect } from '../../core/duplicates';
import { describe, findWords, locatorIn } from '../../core/passages';
import {
  fieldName,
  shortLabel,
  sourceRecord,
  takenOutOf,
  tidiedRecord,
  type SourceRecord,
  type Variable,
} from '../../core/source';
import { nfc, squash } from '../../core/text';
import { type Context } from '../access/context';
import { now } from '../db/ids';
import { readKept } from '../files/store';
import { Refusal } from '../access/refusal';
import { copiesOf, insertCopy, removeCopies, type Copy } from '../copies/repository';
import { getKept, insertKept, updateKept } from '../history/kept';
import { leads } from '../leads/repository';
import { notes } from '../notes/repository';
import { getPassage, insertPassage, passagesWhere, updatePassage } from '../passages/repository';
import { getPreset, type Preset } from '../presets/repository';
import { filedIn, fileSources, findProject, unfileSources } from '../projects/repository';
import { findSection, placeSources, unplaceSources } from '../projects/sections';
import { judged } from '../duplicates/judging';
import { getSource, insertSource, updateSource, type Source } from '../sources/repository';
import type { CaptureInput, Double, Gathered, Into } from './types';

/** What a capture changes. */
export const CHANGE = { right: 'edit', of: ['sources', 'jobs'] } as const;

/** Living sources that a record looks the same as, by the keys they share; `sure` when nothing speaks against it. */
export async function alike(
  ctx: Context,
  record: SourceRecord,
  except?: string,
): Promise<{ source: Source; reason: string; sure: boolean }[]> {
  return (await judged(ctx, record, except)).map(({ source, judgement }) => ({
    source,
    reason: judgement.reasons.join(', ') || 'alike',
    sure: judgement.verdict === 'sure',
  }));
}

/** The same, as it is kept and said: by id and label. */
export async function doublesOf(ctx: Context, record: SourceRecord, except?: string): Promise<Double[]> {
  return (await alike(ctx, record, except)).map(({ source, ...said }) => ({
    id: source.id,
    label: shortLabel(source.record),
    ...said,
    adds: mergeEffect(source.record, record).adds.map((field) => fieldName(field)),
  }));
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
): Promise<{ located: boolean; passageId: string } | undefined> {
  const words = squash(nfc(selection)).slice(0, 20_000);
  if (!words) return undefined;
  const at = copy && findWords(copy.text, words);
  const html = copy ? (await readKept(copy.reading_sha256)).toString('utf8') : '';
  const where = at && copy ? describe(copy.text, at.start, at.end) : null;
  const passage = await insertPassage(ctx, {
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
  return { located: where !== null, passageId: passage.id };
}

/** What a capture put beside a source, so that it can be taken away again and nothing else. */
export interface Beside {
  said: string[];
  filedIn?: string;
  placedIn?: string;
  noteId?: string;
  passageId?: string;
  leadId?: string;
}

/** What a capture added to a source that was there before. */
export interface Addition extends Omit<Beside, 'said'> {
  copies: string[];
  tags: string[];
}

/** Puts what goes with a capture beside its source: project, section, note, quotation, the lead it was. */
async function keepBeside(
  ctx: Context,
  sourceId: string,
  input: CaptureInput,
  copies: Copy[],
): Promise<Beside> {
  const beside: Beside = { said: [] };
  const section = input.sectionId ? await findSection(ctx, input.sectionId) : undefined;
  // What is placed in a section is in its project.
  const projectId = section?.projectId ?? input.projectId;
  if (projectId && (await findProject(ctx, projectId))) {
    if (!(await filedIn(ctx, projectId, [sourceId])).has(sourceId)) beside.filedIn = projectId;
    await fileSources(ctx, projectId, [sourceId]);
  }
  if (section && (await placeSources(ctx, section.id, [sourceId])).length) beside.placedIn = section.id;
  const note = nfc(input.note ?? '').trim();
  if (note)
    beside.noteId = (
      await insertKept(
        ctx,
        notes,
        {
          body: note,
          content: null,
          tint: null,
          projectId: input.projectId ?? null,
          sourceId,
          visibility: 'library',
          shownTo: [],
          ownerId: ctx.personId,
          audio: null,
        },
        'noted at capture',
      )
    ).id;
  const quoted = input.selection && (await keepSelection(ctx, sourceId, copies[0], input.selection));
  if (quoted) {
    beside.passageId = quoted.passageId;
    beside.said.push(
      quoted.located
        ? 'The selection is kept as a quotation.'
        : 'The selection is kept as a quotation, but its place in the copy was not found.',
    );
  }
  if (input.leadId) {
    await tickLead(ctx, input.leadId, sourceId);
    beside.leadId = input.leadId;
  }
  return beside;
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
  return change(ctx, CHANGE, async (inner) => {
    const source = await insertSource(inner, record, { why: 'captured' });
    const kept: Copy[] = [];
    for (const copy of gathered.copies) kept.push(await insertCopy(inner, { ...copy, source_id: source.id }));
    const { said } = await keepBeside(inner, source.id, into, kept);
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
): Promise<{ sourceId: string; label: string; copyId?: string; notes: string[]; added: Addition }> {
  return change(ctx, CHANGE, async (inner) => {
    const source = await getSource(inner, sourceId);
    if (source.binned) throw new Refusal(409, 'That source is in the bin. Take it out first, or keep both.');
    const kept: Copy[] = [];
    const there = new Set((await copiesOf(inner, sourceId)).map((c) => c.sha256));
    for (const copy of gathered.copies)
      // A page is kept again: that it still said so at that time is worth knowing.
      if (copy.kind === 'page' || !there.has(copy.sha256))
        kept.push(await insertCopy(inner, { ...copy, source_id: sourceId }));
    const same = gathered.copies.length > kept.length;
    const record = tagged(source.record, input.tags ?? []);
    const tags = record.retexa.tags.filter((t) => !source.record.retexa.tags.includes(t));
    if (tags.length) await updateSource(inner, sourceId, source.revision, { record }, 'tagged at capture');
    const { said, ...beside } = await keepBeside(inner, sourceId, input, kept);
    return {
      sourceId,
      label: shortLabel(source.record),
      ...(kept[0] ? { copyId: kept[0].id } : {}),
      added: { copies: kept.map((c) => c.id), tags, ...beside },
      notes: [
        kept.length
          ? 'Added to the source you have as another copy.'
          : same
            ? 'This very document is kept with the source already.'
            : 'Nothing new was on the page; the source you have is as it was.',
        ...said,
      ],
    };
  });
}

/**
 * Takes away what a capture added to a source that was there before, and nothing else. Refuses when something hangs on
 * the copy since: that would go with it.
 */
export const takeAway = (ctx: Context, sourceId: string, added: Addition): Promise<void> =>
  change(ctx, { right: 'edit', of: ['sources', 'passages', 'notes', 'leads', 'jobs'] }, async (inner) => {
    const source = await getSource(inner, sourceId);
    for (const copyId of added.copies) {
      const on = await passagesWhere(inner, { copy_id: copyId });
      if (on.some((p) => p.id !== added.passageId))
        throw new Refusal(
          409,
          'You have kept passages of this copy since. Put them in the bin first; the copy stays as it is.',
        );
    }
    const binned = { binned: now() };
    if (added.passageId) {
      const { revision } = await getPassage(inner, added.passageId);
      await updatePassage(inner, added.passageId, revision, { ...binned, copyId: null }, 'capture undone');
    }
    if (added.noteId) {
      const { revision } = await getKept(inner, notes, added.noteId);
      await updateKept(inner, notes, added.noteId, revision, binned, 'capture undone');
    }
    if (added.leadId) {
      const lead = await getKept(inner, leads, added.leadId);
      if (lead.foundId === sourceId)
        await updateKept(
          inner,
          leads,
          lead.id,
          lead.revision,
          { foundId: null, ticked: null },
          'capture undone',
        );
    }
    await removeCopies(inner, added.copies);
    if (added.filedIn) await unfileSources(inner, added.filedIn, [sourceId]);
    if (added.placedIn) await unplaceSources(inner, added.placedIn, [sourceId]);
    const tags = source.record.retexa.tags.filter((t) => !added.tags.includes(t));
    if (tags.length !== source.record.retexa.tags.length)
      await updateSource(
        inner,
        sourceId,
        source.revision,
        { record: { ...source.record, retexa: { ...source.record.retexa, tags } } },
        'capture undone',
      );
  });
