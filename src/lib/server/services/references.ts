import { setImmediate } from 'node:timers/promises';
import {
  htmlDocument,
  latexDocument,
  listToHtml,
  listToText,
  markdownDocument,
  missingFor,
  rtfDocument,
  type PrintedList,
} from '../../core/citing';
import { FILE_TIME, FORMATS, sniff, writeFormat, type FormatName, type Loss } from '../../core/formats';
import { shortLabel, type SourceRecord, type Variable } from '../../core/source';
import { styleName } from '../catalogue';
import { scoped, transaction, type Context } from '../context';
import { now } from '../db/ids';
import { tell } from '../events';
import { log } from '../log';
import { Refusal } from '../refusal';
import { insertJob, updateJob, type Job } from '../repositories/jobs';
import { fileSources, findProject } from '../repositories/projects';
import { getSources, insertSource, type Source } from '../repositories/sources';
import { read } from '../workers/pools';
import { textOfBytes } from '../../reading/text';
import { doublesOf } from './capture';
import { docxDocument } from './docx';
import { printedFields, printList, shown, type Look } from './printing';
import { binSources, listIds } from './sources';

/** Which sources a list holds. */
export type Scope =
  { kind: 'library' } | { kind: 'project'; projectId: string } | { kind: 'selection'; ids: string[] };

/** The sources of a scope, in the order of their authors. */
export async function sourcesIn(ctx: Context, scope: Scope): Promise<Source[]> {
  const ids =
    scope.kind === 'selection'
      ? scope.ids
      : await listIds(ctx, scope.kind === 'project' ? { projectId: scope.projectId } : {});
  const sources = await getSources(ctx, ids);
  return sources.filter((s) => !s.binned && !s.mergedInto);
}

/** A list as the page shows it, with the preflight: findings of what it holds. */
export async function referenceList(ctx: Context, scope: Scope, look: Look) {
  const sources = await sourcesIn(ctx, scope);
  const byId = new Map(sources.map((s) => [s.id, s]));
  const list = await printList(ctx, sources, look);
  const asks = new Map<string, Variable[]>();
  for (const type of new Set(sources.map((s) => s.record.type)))
    asks.set(type, await printedFields(look.style, type));
  const missing = (source: Source | undefined) => {
    if (!source) return [];
    const said = new Set(source.findings.map((f) => f.field));
    return missingFor(asks.get(source.record.type) ?? [], source.record).filter((f) => !said.has(f));
  };
  const entries = list.entries.map((e) => ({
    ...shown(e),
    findings: byId.get(e.id)?.findings ?? [],
    missing: missing(byId.get(e.id)),
    label: e.label,
  }));
  return {
    entries,
    hangingIndent: list.hangingIndent,
    hasList: list.hasList,
    total: sources.length,
    ...copies(list),
  };
}

/** What is put on the clipboard. */
const copies = (list: PrintedList) => ({ plain: listToText(list), rich: listToHtml(list) });

export const OUTPUTS = [
  'docx',
  'html',
  'rtf',
  'text',
  'markdown',
  'latex',
  'csl-json',
  'bibtex',
  'ris',
] as const;
export type Output = (typeof OUTPUTS)[number];

export interface ExportFile {
  name: string;
  mediaType: string;
  body: string;
  /** Whether `body` is the file's bytes in base64. */
  binary?: boolean;
  losses: (Loss & { label: string })[];
}

const isFormat = (output: Output): output is FormatName => output in FORMATS;

/** A printed list as a document. */
async function documentOf(
  list: PrintedList,
  output: Exclude<Output, FormatName>,
  look: Look,
): Promise<Omit<ExportFile, 'losses'>> {
  const title = 'References';
  const text = (extension: string, mediaType: string, body: string) => ({
    name: `references.${extension}`,
    mediaType,
    body,
  });
  switch (output) {
    case 'docx':
      return {
        name: 'references.docx',
        mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
        body: (await docxDocument(list, title, look.locale)).toString('base64'),
        binary: true,
      };
    case 'html':
      return text('html', 'text/html; charset=utf-8', htmlDocument(list, title, look.locale));
    case 'rtf':
      return text('rtf', 'application/rtf', rtfDocument(list, title));
    case 'markdown':
      return text('md', 'text/markdown; charset=utf-8', markdownDocument(list, title));
    case 'latex':
      return text('tex', 'application/x-tex; charset=utf-8', latexDocument(list, title));
    case 'text':
      return text('txt', 'text/plain; charset=utf-8', listToText(list, { wrap: true }));
  }
}

/** A scope as a file: a printed list in a style, or records in a format. */
export async function exportFile(
  ctx: Context,
  scope: Scope,
  look: Look,
  output: Output,
): Promise<ExportFile> {
  const sources = await sourcesIn(ctx, scope);
  if (!isFormat(output)) {
    const list = await printList(ctx, sources, look);
    if (!list.hasList)
      throw new Refusal(422, `${styleName(look.style)} has no reference list. Choose another style.`);
    return { ...(await documentOf(list, output, look)), losses: [] };
  }
  const { text, losses } = writeFormat(
    output,
    sources.map((s) => ({ key: s.citekey, record: s.record })),
  );
  const labels = new Map(sources.map((s) => [s.citekey, shortLabel(s.record)]));
  return {
    name: `references.${FORMATS[output].extension}`,
    mediaType: `${FORMATS[output].mediaType}; charset=utf-8`,
    body: text,
    losses: losses.map((l) => ({ ...l, label: labels.get(l.key) ?? l.key })),
  };
}

/** A file of references to import. */
export interface ImportInput {
  fileName: string;
  format: FormatName;
  projectId?: string;
  toIntake: boolean;
}

/** What came of an import. */
export interface ImportReport {
  fileName: string;
  format: FormatName;
  added: { id: string; label: string; line: number; notes: string[] }[];
  skipped: { line: number; reason: string; text: string }[];
  doubles: { id: string; label: string; of: string; reason: string }[];
}

const MAX_IMPORT = 40 * 1024 * 1024;

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
 * Begins the import of a file and gives its job at once. The file is read in a worker; all its entries are added in
 * one transaction. Refuses at once what is too large or in no format known.
 */
export async function importFile(
  ctx: Context,
  bytes: Uint8Array,
  given: Omit<ImportInput, 'format'>,
): Promise<Job> {
  if (bytes.byteLength > MAX_IMPORT)
    throw new Refusal(413, `${given.fileName} is larger than 40 MB. Cut it into smaller files.`);
  const text = textOfBytes(bytes);
  const format = sniff(text, given.fileName);
  if (!format)
    throw new Refusal(
      415,
      `${given.fileName} is in no format Retexa reads. It reads BibTeX (.bib), RIS (.ris) and CSL-JSON (.json).`,
    );
  const input: ImportInput = { ...given, format };
  const job = await insertJob(ctx, 'import', input);
  tell(ctx.libraryId, { kind: 'changed' });
  void runImport(ctx, job, text, input);
  return job;
}

async function runImport(ctx: Context, job: Job, text: string, input: ImportInput): Promise<void> {
  const step = (words: string, done?: number, total?: number) =>
    tell(ctx.libraryId, {
      kind: 'job',
      job: { id: job.id, kind: 'import', state: 'running', step: words, ...(total ? { done, total } : {}) },
    });
  try {
    await updateJob(ctx, job.id, { state: 'running' });
    step(`Reading ${input.fileName}`);
    const { entries, skipped } = await read({ task: 'file', format: input.format, text });
    const report: ImportReport = {
      fileName: input.fileName,
      format: input.format,
      added: [],
      skipped,
      doubles: [],
    };
    const at = now();
    await transaction(ctx, async (inner) => {
      const project = input.projectId ? await findProject(inner, input.projectId) : undefined;
      for (const [i, entry] of entries.entries()) {
        const record = withTime(entry.record, at, input.fileName);
        const doubles = await doublesOf(inner, record);
        const source = await insertSource(inner, record, {
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
        const double = doubles[0];
        if (double) report.doubles.push({ id: source.id, label, of: double.label, reason: double.reason });
        if (i % 25 === 0) {
          step(`Adding ${i + 1} of ${entries.length}`, i + 1, entries.length);
          // The database answers at once, so without this nothing else would be served until the end.
          await setImmediate();
        }
      }
      if (project)
        await fileSources(
          inner,
          project.id,
          report.added.map((a) => a.id),
        );
      await updateJob(inner, job.id, { state: 'done', result: report });
    });
  } catch (error) {
    if (!(error instanceof Refusal)) log.error({ job: job.id, err: error }, 'import failed');
    const message =
      error instanceof Refusal
        ? error.message
        : 'Something went wrong inside Retexa during the import. Nothing of the file was added.';
    await updateJob(ctx, job.id, { state: 'failed', error: { message, details: [] } }).catch((e: unknown) =>
      log.error({ err: e }, 'job not noted'),
    );
  } finally {
    tell(ctx.libraryId, { kind: 'changed' });
  }
}

/** Takes a whole import back: everything it added that is still there goes to the bin. */
export async function takeImportBack(ctx: Context, job: Job): Promise<string[]> {
  const report = job.result as ImportReport | null;
  if (job.kind !== 'import' || !report) throw new Refusal(409, 'There is no import to take back here.');
  const ids = report.added.map((a) => a.id);
  const there = (await scoped<{ id: string }>(ctx, 'source')
    .whereNull('binned')
    .whereNull('merged_into')
    .select('id')) as { id: string }[];
  const living = new Set(there.map((r) => r.id));
  return binSources(
    ctx,
    ids.filter((id) => living.has(id)),
    true,
  );
}
