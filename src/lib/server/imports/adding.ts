import { mergeRecords } from '../../core/duplicates';
import { FILE_TIME, type ReadEntry } from '../../core/formats';
import { shortLabel, type SourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { tell } from '../access/events';
import { now } from '../db/ids';
import type { Doing, Keep } from '../jobs/runner';
import { fileSources, findProject } from '../projects/repository';
import { leadTo } from '../sources/aliases';
import { findSource, getSource, insertSource, updateSource } from '../sources/repository';
import { inTurn } from '../turns';
import { forgetSteps, noteSteps, type Step } from '../jobs/steps';
import type { Decided, HeldImport, ImportInput, ImportReport } from './types';

/** A record as it was read, the origins of its values with the time and the file they were read from. */
export const withTime = (record: SourceRecord, at: string, fileName: string): SourceRecord => ({
  ...record,
  retexa: {
    ...record.retexa,
    origins: Object.fromEntries(
      Object.entries(record.retexa.origins).map(([field, list]) => [
        field,
        list.map((s) => (s.at === FILE_TIME ? { ...s, at, why: `from ${fileName}`.slice(0, 400) } : s)),
      ]),
    ),
  },
});

/** How many entries are added in one transaction: others write between them, and wait no longer than for so many. */
const AT_ONCE = 8;
/** How long it goes on before others get a turn, in milliseconds: whoever saves a field meanwhile needs several. */
const TURN = 3;
/** How often pages are told that the library grows, in milliseconds. */
const TOLD_EVERY = 2_000;

/**
 * Adds the entries of a file in short transactions, and notes what each did, so that all of it can be taken back until
 * it is kept.
 */
export async function addEntries(
  ctx: Context,
  { entries, skipped }: HeldImport,
  input: ImportInput,
  decided: Decided,
  doing: Doing,
  jobId: string,
): Promise<Keep<ImportReport>> {
  const { fileName, format } = input;
  const report: ImportReport = {
    kind: 'done',
    fileName,
    format,
    added: [],
    skipped,
    merged: [],
    leftOut: 0,
    doubles: [],
  };
  const at = now();
  const project = input.projectId ? await findProject(ctx, input.projectId) : undefined;
  let told = Date.now();
  for (let from = 0; from < entries.length; from += AT_ONCE) {
    doing.step(`Adding ${from + 1} of ${entries.length}`, from + 1, entries.length);
    await transaction(ctx, async (inner) => {
      const steps: Step[] = [];
      for await (const [i, entry] of inTurn(entries.slice(from, from + AT_ONCE).entries(), TURN)) {
        const record = withTime(entry.record, at, fileName);
        const decision = decided[from + i];
        if (decision?.answer === 'skip') report.leftOut++;
        else if (decision?.answer === 'merge' && (await findSource(inner, decision.sourceId)))
          steps.push(await mergeInto(inner, decision.sourceId, record, entry, fileName, at, report));
        else steps.push(await addNew(inner, record, entry, input, report));
      }
      if (project)
        await fileSources(
          inner,
          project.id,
          steps.map((s) => s.sourceId),
        );
      await noteSteps(inner, jobId, steps);
    });
    // Pages that are open see it grow, now and then: to tell them of each part would keep them busy.
    if (Date.now() - told > TOLD_EVERY) {
      tell(ctx.libraryId, 'sources');
      told = Date.now();
    }
  }
  // Whoever stops it before it is kept gets nothing of it.
  doing.step('Keeping them', entries.length, entries.length);
  return async (inner) => {
    await forgetSteps(inner, jobId);
    return report;
  };
}

async function addNew(
  ctx: Context,
  record: SourceRecord,
  entry: ReadEntry,
  input: ImportInput,
  report: ImportReport,
): Promise<Step> {
  const source = await insertSource(ctx, record, {
    checked: !input.toIntake,
    why: `imported from ${input.fileName}`,
    ...(entry.key ? { citekey: entry.key } : {}),
  });
  const label = shortLabel(record);
  const notes =
    entry.key && source.citekey !== entry.key
      ? [...entry.notes, `citekey ${entry.key} was taken; it is ${source.citekey} now`]
      : entry.notes;
  report.added.push({ id: source.id, label, line: entry.line, notes });
  const [double] = source.alike;
  if (double)
    report.doubles.push({
      id: source.id,
      label,
      of: shortLabel(double.source.record),
      reason: double.judgement.reasons.join(', ') || 'alike',
    });
  return { sourceId: source.id };
}

/** Adds to a source what an entry knows besides; the entry's key leads to it from now on, where it is free. */
async function mergeInto(
  ctx: Context,
  id: string,
  record: SourceRecord,
  entry: ReadEntry,
  fileName: string,
  at: string,
  report: ImportReport,
): Promise<Step> {
  const before = await getSource(ctx, id);
  const { source, revisionId } = await updateSource(
    ctx,
    id,
    before.revision,
    { record: mergeRecords(before.record, record, {}, at) },
    `merged with an entry of ${fileName}`,
  );
  const notes = [...entry.notes];
  let alias: string | undefined;
  if (entry.key && entry.key !== source.citekey) {
    if (await leadTo(ctx, entry.key, id)) {
      alias = entry.key;
      notes.push(`citekey ${entry.key} leads to ${source.citekey}`);
    } else notes.push(`citekey ${entry.key} belongs to another source; here it is ${source.citekey}`);
  }
  const revision = revisionId ?? null;
  report.merged.push({ id, label: shortLabel(source.record), line: entry.line, notes, revision });
  return { sourceId: id, merged: true, revisionId: revision, ...(alias ? { alias } : {}) };
}
