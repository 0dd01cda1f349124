import { change, checkRight } from '../access/change';
import { hasHanging, removeSources } from '../bin';
import { forgetAllLists } from '../lists/printing';
import { talliesOf } from '../sources/tallies';
import { SAMPLE } from './sample';
import { forgetSteps, lastSteps, noteSteps, openImports, type ImportStep } from './steps';
import { mergeEffect, mergeRecords, type MergeField } from '../../core/duplicates';
import {
  FILE_TIME,
  READABLE,
  readFormat,
  sniff,
  type ReadableName,
  type ReadEntry,
  type Skipped,
} from '../../core/formats';
import { headline, shortLabel, valueText, type SourceRecord } from '../../core/source';
import { textOfBytes } from '../../reading/text';
import { scoped, transaction, type Context } from '../access/context';
import { now } from '../db/ids';
import { tell, tellJob } from '../access/events';
import { megabytes, MOST_BYTES } from '../limits';
import { log } from '../log';
import { Refusal } from '../access/refusal';
import { held, hold, letGo } from '../jobs/holds';
import { getJob, insertJob, updateJob, type Job } from '../jobs/repository';
import { fileSources, findProject } from '../projects/repository';
import {
  findSource,
  getSource,
  getSources,
  insertSource,
  sourceByKey,
  updateSource,
} from '../sources/repository';
import { stop, stopWords, underWay, Stopped } from '../jobs/running';
import { inTurn } from '../turns';
import { read } from '../workers/pools';
import { alike } from '../capture';
import { inBrief } from './reports';
import { binSources, undoRevision } from '../sources';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources', 'jobs'] } as const;

/** A file of references to import. */
export { recentImports, type ImportInBrief } from './reports';

export interface ImportInput {
  fileName: string;
  format: ReadableName;
  projectId?: string;
  toIntake: boolean;
}

/** What is done with an entry whose work is in the library already. */
export const ANSWERS = ['merge', 'skip', 'both'] as const;
export type Answer = (typeof ANSWERS)[number];

/** An entry of a file that looks like a source there is. `sure` when nothing speaks against their being one work. */
export interface Here {
  index: number;
  line: number;
  label: string;
  of: { id: string; label: string };
  reason: string;
  sure: boolean;
  /** What merging would do to the source there is; questions asked by an earlier release do not have it. */
  merging?: Merging;
}

/** What merging an entry into a source adds to it, replaces in it, and keeps of it where the entry says otherwise. */
export interface Merging {
  adds: Differing[];
  replaces: Differing[];
  keeps: Differing[];
  tags: string[];
  /** Names of fields that are kept for the file's format. */
  kept: string[];
}

/** A field in which an entry and the source there is differ, its values as lines of text. */
export interface Differing {
  field: MergeField;
  yours: string;
  file: string;
}

/** The question of an import whose entries are partly in the library: nothing is added until it is answered. */
export interface ImportQuestion {
  kind: 'asks';
  total: number;
  skipped: Skipped[];
  here: Here[];
}

/** An entry that became a source, or went into one. */
export interface Added {
  id: string;
  label: string;
  line: number;
  notes: string[];
}

/** What came of an import. */
export interface ImportReport {
  kind: 'done';
  fileName: string;
  format: ReadableName;
  added: Added[];
  skipped: Skipped[];
  /** Sources there were, into which an entry was merged, with the revision that did it. */
  merged: (Added & { revision: string | null })[];
  /** How many entries were left out because their work was here. */
  leftOut: number;
  doubles: { id: string; label: string; of: string; reason: string }[];
}

export type ImportResult = ImportQuestion | ImportReport;

interface HeldImport {
  kind: 'import';
  entries: ReadEntry[];
  skipped: Skipped[];
}

const CANCELLED = 'The import was cancelled. Nothing of the file was added.';

const withTime = (record: SourceRecord, at: string, fileName: string): SourceRecord => ({
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

/**
 * Begins the import of a file and gives its job at once. The file is read in a worker; its entries are added in short
 * transactions, all of them or none, at once when none of them is in the library, else when the person has said what to do with those.
 * Refuses at once what is too large or in no format known.
 */
export async function importFile(
  ctx: Context,
  bytes: Uint8Array,
  given: Omit<ImportInput, 'format'>,
): Promise<Job> {
  checkRight(ctx, 'edit');
  if (bytes.byteLength > MOST_BYTES)
    throw new Refusal(
      413,
      `${given.fileName} is larger than ${megabytes(MOST_BYTES)}. Cut it into smaller files.`,
    );
  const text = textOfBytes(bytes);
  const format = sniff(text, given.fileName);
  if (!format)
    throw new Refusal(
      415,
      `${given.fileName} is in no format Retexa reads. It reads ${Object.values(READABLE)
        .map((f) => f.label)
        .join(', ')}.`,
    );
  const input: ImportInput = { ...given, format };
  const job = await insertJob(ctx, 'import', input);
  void carryOut(ctx, job.id, (doing) => readAndMatch(ctx, job.id, text, input, doing));
  return job;
}

interface Doing {
  signal: AbortSignal;
  /** Says how far it is, and stops here when the import was cancelled. */
  step(words: string, done?: number, total?: number): void;
}

const carryOut = (
  ctx: Context,
  jobId: string,
  work: (doing: Doing) => Promise<ImportResult>,
): Promise<void> =>
  underWay(jobId, async (signal) => {
    const doing: Doing = {
      signal,
      step(words, done, total) {
        tellJob(ctx.libraryId, {
          id: jobId,
          kind: 'import',
          state: 'running',
          step: words,
          ...(total ? { done, total } : {}),
        });
        if (signal.aborted) throw new Refusal(499, CANCELLED);
      },
    };
    try {
      await updateJob(ctx, jobId, { state: 'running' });
      const result = await work(doing);
      await updateJob(ctx, jobId, { state: 'done', result, brief: inBrief(result) });
    } catch (error) {
      if (!(error instanceof Refusal) && !signal.aborted)
        log.error({ job: jobId, err: error }, 'import failed');
      // A server that ends takes it back when it starts again.
      if (!(signal.reason instanceof Stopped))
        await takeStepsBack(ctx, jobId).catch((e: unknown) =>
          log.error({ job: jobId, err: e }, 'import not taken back'),
        );
      const message = signal.aborted
        ? stopWords(signal, CANCELLED)
        : error instanceof Refusal
          ? error.message
          : 'Something went wrong inside Retexa during the import. Nothing of the file was added.';
      await updateJob(ctx, jobId, { state: 'failed', result: null, error: { message, details: [] } }).catch(
        (e: unknown) => log.error({ err: e }, 'job not noted'),
      );
    } finally {
      tell(ctx.libraryId, 'sources', 'jobs');
    }
  });

/** Stops an import that is under way; what it added so far is taken back. */
export function cancelImport(jobId: string): void {
  stop(jobId);
}

async function readAndMatch(
  ctx: Context,
  jobId: string,
  text: string,
  input: ImportInput,
  doing: Doing,
): Promise<ImportResult> {
  doing.step(`Reading ${input.fileName}`);
  const { entries, skipped } = await read({ task: 'file', format: input.format, text }, doing.signal);
  const here: Here[] = [];
  for await (const [index, entry] of inTurn(entries.entries())) {
    if (index % 50 === 0) doing.step('Looking for what is here already', index, entries.length);
    const found = await hereAlready(ctx, entry);
    if (found) here.push({ index, line: entry.line, label: headline(entry.record), ...found });
  }
  if (here.length === 0)
    return add(ctx, { kind: 'import', entries, skipped }, input, new Map(), doing, jobId);
  await hold(ctx, jobId, { kind: 'import', entries, skipped } satisfies HeldImport);
  return { kind: 'asks', total: entries.length, skipped, here };
}

/**
 * The source an entry looks like, if any. An entry that comes back under the citekey its source has, or says nothing
 * that the source does not, is surely that work even where the two records alone could not tell.
 */
async function hereAlready(
  ctx: Context,
  { key, record }: ReadEntry,
): Promise<Pick<Here, 'of' | 'reason' | 'sure' | 'merging'> | undefined> {
  const doubles = await alike(ctx, record);
  const keyed = key ? await sourceByKey(ctx, key) : undefined;
  const double = doubles.find((d) => d.source.id === keyed) ?? doubles.find((d) => d.sure) ?? doubles[0];
  const source = double?.source ?? (keyed ? await findSource(ctx, keyed) : undefined);
  if (!source) return undefined;
  const { id } = source;
  const merging = mergingOf(source.record, record);
  const { adds, replaces, keeps } = merging;
  const nothingElse = adds.length + replaces.length + keeps.length === 0;
  // Two works may well have one key; only a record that says the same makes it the same work.
  if (!double && !nothingElse) return undefined;
  return {
    of: { id, label: shortLabel(source.record) },
    reason: [double?.reason, id === keyed && 'same citekey'].filter(Boolean).join(', '),
    sure: double?.sure || id === keyed || nothingElse,
    merging,
  };
}

/** How much of a value a question shows. */
const VALUE_SHOWN = 200;

function mergingOf(yours: SourceRecord, file: SourceRecord): Merging {
  const effect = mergeEffect(yours, file);
  const line = (record: SourceRecord, field: MergeField) => {
    const text = valueText(field, record[field]);
    return text.length > VALUE_SHOWN ? `${text.slice(0, VALUE_SHOWN).trimEnd()}…` : text;
  };
  const differing = (fields: MergeField[]): Differing[] =>
    fields.map((field) => ({ field, yours: line(yours, field), file: line(file, field) }));
  return {
    adds: differing(effect.adds),
    replaces: differing(effect.replaces),
    keeps: differing(effect.keeps),
    tags: effect.tags,
    kept: effect.kept,
  };
}

/** Answers what to do with the entries that are here, by their index; those not named are kept beside. Goes on with the import. */
export async function answerImport(
  ctx: Context,
  jobId: string,
  answers: Record<number, Answer>,
): Promise<void> {
  const job = await getJob(ctx, jobId);
  const content = await held<HeldImport>(ctx, jobId);
  const question = job.result as ImportResult | null;
  if (
    job.state !== 'done' ||
    content?.kind !== 'import' ||
    question?.kind !== 'asks' ||
    !(await letGo(ctx, jobId))
  )
    throw new Refusal(409, 'This import waits for no answer any more.');
  const decided = new Map(
    question.here.map((h) => [h.index, { answer: answers[h.index] ?? 'both', sourceId: h.of.id }] as const),
  );
  await updateJob(ctx, jobId, { state: 'running' });
  void carryOut(ctx, jobId, (doing) => add(ctx, content, job.input as ImportInput, decided, doing, jobId));
}

type Decided = Map<number, { answer: Answer; sourceId: string }>;

async function add(
  ctx: Context,
  { entries, skipped }: HeldImport,
  input: ImportInput,
  decided: Decided,
  doing: Doing,
  jobId: string,
): Promise<ImportReport> {
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
      const steps: ImportStep[] = [];
      for await (const [i, entry] of inTurn(entries.slice(from, from + AT_ONCE).entries())) {
        const record = withTime(entry.record, at, fileName);
        const decision = decided.get(from + i);
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
  await transaction(ctx, (inner) => forgetSteps(inner, jobId));
  return report;
}

/** How many entries are added in one transaction: others write between them, and wait no longer than for so many. */
const AT_ONCE = 8;
/** How often pages are told that the library grows, in milliseconds. */
const TOLD_EVERY = 2_000;

/**
 * Takes back what an import that did not end well has done, in short transactions, the last first. What it added is
 * removed, unless somebody has worked with it meanwhile: that goes to the bin. What it merged is as it was before, unless
 * it was changed since.
 */
async function takeStepsBack(ctx: Context, jobId: string): Promise<void> {
  for (;;) {
    const steps = await lastSteps(ctx, jobId, TAKEN_AT_ONCE);
    if (steps.length === 0) return transaction(ctx, forgetAllLists);
    await transaction(ctx, async (inner) => {
      const untouched: string[] = [];
      for (const { sourceId, revisionId, alias, merged } of steps) {
        if (alias)
          await inner.db('alias').where({ library_id: ctx.libraryId, alias, source_id: sourceId }).delete();
        const added = merged ? undefined : await findSource(inner, sourceId);
        if (added?.revision === 1 && !(await hasHanging(inner, sourceId))) untouched.push(sourceId);
        else if (added && !added.binned) await binSources(inner, [sourceId], true);
        else if (revisionId)
          await undoRevision(inner, revisionId).catch((error: unknown) => {
            // It was changed since; the change goes before.
            if (!(error instanceof Refusal)) throw error;
          });
      }
      await removeSources(inner, untouched, true);
      await forgetSteps(
        inner,
        jobId,
        steps.map((s) => s.id),
      );
    });
  }
}

/** How many steps are taken back in one transaction. */
const TAKEN_AT_ONCE = 25;

/** Takes back the imports that a stopped server left in the middle. Run once at start, before anything is asked. */
export async function takeBackInterrupted(db: Context['db']): Promise<void> {
  for (const { job_id, library_id, person_id } of await openImports(db))
    await takeStepsBack({ db, libraryId: library_id, personId: person_id, role: 'owner' }, job_id);
}

async function addNew(
  ctx: Context,
  record: SourceRecord,
  entry: ReadEntry,
  input: ImportInput,
  report: ImportReport,
): Promise<ImportStep> {
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
): Promise<ImportStep> {
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
    const taken = await scoped<{ citekey: string }>(ctx, 'source').where({ citekey: entry.key }).first();
    if (taken) notes.push(`citekey ${entry.key} belongs to another source; here it is ${source.citekey}`);
    else {
      const [led] = (await ctx
        .db('alias')
        .insert({ library_id: ctx.libraryId, alias: entry.key, source_id: id })
        .onConflict(['library_id', 'alias'])
        .ignore()
        .returning('alias')) as { alias: string }[];
      alias = led?.alias;
      notes.push(`citekey ${entry.key} leads to ${source.citekey}`);
    }
  }
  const revision = revisionId ?? null;
  report.merged.push({ id, label: shortLabel(source.record), line: entry.line, notes, revision });
  return { sourceId: id, merged: true, revisionId: revision, ...(alias ? { alias } : {}) };
}

/**
 * Takes a whole import back: everything it added that is still there goes to the bin, and what it merged is as it was
 * before, unless it was changed since. Gives the revisions made, for undoing, and the labels of what was left alone.
 */
export async function takeImportBack(
  ctx: Context,
  job: Job,
): Promise<{ revisions: string[]; left: string[] }> {
  const report = job.result as ImportResult | null;
  if (job.kind !== 'import' || report?.kind === 'asks' || !report)
    throw new Refusal(409, 'There is no import to take back here.');
  return change(ctx, CHANGE, async (inner) => {
    const there = await getSources(
      inner,
      report.added.map((a) => a.id),
    );
    const revisions = await binSources(
      inner,
      there.filter((s) => !s.binned && !s.mergedInto).map((s) => s.id),
      true,
    );
    const left: string[] = [];
    for await (const { revision, label } of inTurn([...(report.merged ?? [])].reverse())) {
      if (!revision) continue;
      try {
        const undone = await undoRevision(inner, revision);
        if (undone) revisions.push(undone);
      } catch (error) {
        if (!(error instanceof Refusal)) throw error;
        left.push(label);
      }
    }
    return { revisions, left };
  });
}

/** Puts a few invented sources into an empty library; refuses where there are sources already. Gives their ids. */
export async function addSample(ctx: Context): Promise<{ ids: string[] }> {
  const { entries } = readFormat('bibtex', SAMPLE);
  return change(ctx, CHANGE, async (inner) => {
    if ((await talliesOf(inner)).sources > 0)
      throw new Refusal(409, 'There are sources here already. The sample is for an empty library.');
    const ids: string[] = [];
    for (const { key, record } of entries) {
      const source = await insertSource(inner, withTime(record, now(), 'the sample'), {
        why: 'of the sample',
        ...(key ? { citekey: key } : {}),
      });
      ids.push(source.id);
    }
    return { ids };
  });
}
