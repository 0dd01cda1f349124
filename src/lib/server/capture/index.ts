import { change } from '../access/change';
import { z } from 'zod';
import type { ListedWork } from '../../core/capture';
import { READABLE, sniff } from '../../core/formats';
import { looksLikeReference, splitReferences } from '../../core/leads';
import {
  addressKey,
  dateText,
  derive,
  doiKey,
  emptyRecord,
  nameText,
  recognise,
  recogniseLines,
  shortLabel,
  withoutPassword,
  type CslType,
  type SourceRecord,
} from '../../core/source';
import { sniffBytes } from '../../reading/sniff';
import { type Context } from '../access/context';
import { now } from '../db/ids';
import { tell, tellJob } from '../access/events';
import { megabytes, MOST_BYTES } from '../limits';
import { keepFile } from '../files/store';
import { log } from '../log';
import { Refusal } from '../access/refusal';
import { held, hold, letGo } from '../jobs/holds';
import { getJob, insertJob, updateJob, type Job } from '../jobs/repository';
import { fileSources, findProject } from '../projects/repository';
import { insertSource, living, type Source, type SourceRow } from '../sources/repository';
import { stop, stopWords, underWay } from '../jobs/running';
import { gather, gatherListed } from './gather';
import { doublesOf, keepAsCopy, keepNew, presetOf, takeAway, tickLead } from './keep';
import type { CaptureInput, CaptureResult, Choice, Doing, Gathered, Held, Into } from './types';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources', 'jobs'] } as const;

export { alike, doublesOf } from './keep';
export { fetchCopy } from './gather';
export { findShared, keepShared } from './shared';
export type { CaptureInput, CaptureResult, Choice, Into } from './types';

/** What goes with a capture, as a request says it. */
export const into = z.object({
  projectId: z.string().max(60).optional(),
  sectionId: z.string().max(60).optional(),
  tags: z.array(z.string().trim().min(1).max(120)).max(50).optional(),
  note: z.string().max(20_000).optional(),
  presetId: z.string().max(60).optional(),
  leadId: z.string().max(60).optional(),
});

/**
 * The source in the library that a listed work is: the same DOI or address, else the same title with nothing against
 * it. A list says little of its works, so a year or an author it leaves out speaks neither for nor against.
 */
async function listedHere(ctx: Context, { record, address, doi }: ListedWork): Promise<string | undefined> {
  const d = derive(record);
  const page = addressKey(address);
  const rows = (await living(ctx, {}).where((any) => {
    void any.where('title_key', d.titleKey);
    if (doi) void any.orWhere('doi', doiKey(doi) ?? '');
    if (page) void any.orWhere('address_key', page);
  })) as SourceRow[];
  const fits = (row: SourceRow) =>
    (doi && row.doi === doiKey(doi)) ||
    (page && row.address_key === page) ||
    ((d.year === null || row.year === d.year) && (d.creatorKey === '' || row.creator_key === d.creatorKey));
  return rows.find(fits)?.id;
}

/** The works of a list as they are shown to choose from, those in the library marked. */
async function choicesOf(ctx: Context, works: Extract<Held, { kind: 'list' }>['works']): Promise<Choice[]> {
  const choices: Choice[] = [];
  for (const work of works) {
    const { record } = work;
    const here = await listedHere(ctx, work);
    choices.push({
      title: record.title ?? '',
      who: (record.author ?? record.editor ?? []).map(nameText).slice(0, 4).join('; '),
      year: dateText(record.issued),
      type: record.type,
      ...(here ? { here } : {}),
    });
  }
  return choices;
}

/** Carries a job out in the words of `work`, and notes what came of it. Never throws. */
const carryOut = (
  ctx: Context,
  job: Job,
  work: (doing: Doing, input: CaptureInput) => Promise<CaptureResult>,
): Promise<void> =>
  underWay(job.id, async (signal) => {
    const input = job.input as CaptureInput;
    const step = (words: string, done?: number, total?: number) =>
      tellJob(ctx.libraryId, {
        id: job.id,
        kind: 'capture',
        state: 'running',
        step: words,
        ...(total ? { done, total } : {}),
      });
    try {
      await updateJob(ctx, job.id, { state: 'running', error: null });
      const preset = await presetOf(ctx, input);
      const keeping = { page: preset?.keepPage ?? true, pdf: preset?.keepPdf ?? true };
      const result = await work({ signal, step, keeping }, input);
      await updateJob(ctx, job.id, { state: 'done', result });
    } catch (error) {
      if (!(error instanceof Refusal) && !signal.aborted)
        log.error({ job: job.id, err: error }, 'capture failed');
      const message = signal.aborted
        ? stopWords(signal, 'The capture was cancelled.')
        : error instanceof Refusal
          ? error.message
          : 'Something went wrong inside Retexa while reading this. Nothing was saved; try again, or start by hand.';
      await updateJob(ctx, job.id, { state: 'failed', error: { message, details: [] } }).catch((e: unknown) =>
        log.error({ err: e }, 'job not noted'),
      );
    } finally {
      tell(ctx.libraryId, 'sources', 'jobs');
    }
  });

async function keepOrAsk(
  ctx: Context,
  jobId: string,
  gathered: Gathered,
  input: CaptureInput,
): Promise<CaptureResult> {
  const doubles = await doublesOf(ctx, gathered.record);
  const sure = doubles.filter((d) => d.sure);
  if (sure.length) {
    await hold(ctx, jobId, { kind: 'one', gathered } satisfies Held);
    return {
      kind: 'here',
      label: shortLabel(gathered.record),
      doubles: sure.map(({ id, label, reason }) => ({ id, label, reason })),
      hasCopy: gathered.copies.length > 0,
      notes: gathered.notes,
    };
  }
  return {
    kind: 'kept',
    doubles: doubles.map(({ id, label, reason }) => ({ id, label, reason })),
    ...(await keepNew(ctx, gathered, input)),
  };
}

const run = (ctx: Context, job: Job) =>
  carryOut(ctx, job, async (doing, input) => {
    const gathered = await gather(input, doing);
    doing.step('Keeping it');
    if ('record' in gathered) return keepOrAsk(ctx, job.id, gathered, input);
    const { works, address, title } = gathered;
    await hold(ctx, job.id, { kind: 'list', address, works } satisfies Held);
    return { kind: 'list', title: title || address, works: await choicesOf(ctx, works) };
  });

/** Captures wait here so that at most a few run at once. */
const queue: (() => Promise<void>)[] = [];
let active = 0;
/** A few more than are read at the same time, since those of one host wait for each other. */
const AT_ONCE = 6;

function pump(): void {
  while (active < AT_ONCE && queue.length > 0) {
    active++;
    void queue.shift()!().finally(() => {
      active--;
      pump();
    });
  }
}

function enqueue(ctx: Context, work: () => Promise<void>): void {
  queue.push(work);
  pump();
}

async function begin(ctx: Context, input: CaptureInput): Promise<Job> {
  const job = await insertJob(ctx, 'capture', input);
  enqueue(ctx, () => run(ctx, job));
  return job;
}

/** Refuses a text that is no address and no identifier, with what it is instead. */
const isNot = (message: string, code: 'is-references' | 'is-reference' | 'is-text') =>
  new Refusal(422, message, [], code);

/**
 * Begins the capture of what was typed or pasted and gives its jobs at once; the work goes on behind. Several
 * identifiers or addresses, one a line, are a job each. Refuses any other text, saying what it could be.
 */
export async function capture(ctx: Context, input: CaptureInput): Promise<Job[]> {
  const many = recogniseLines(input.text);
  const lines = many
    ? input.text
        .split(/\r?\n/)
        .map((l) => l.trim())
        .filter(Boolean)
    : [input.text];
  if (lines.length > 200)
    throw new Refusal(413, `These are ${lines.length} lines; at most 200 are captured at once.`);
  if (!many && recognise(input.text).kind === 'text') {
    const format = sniff(input.text);
    if (format && input.text.length > 20)
      throw isNot(`This looks like ${READABLE[format].label}. Import it as references.`, 'is-references');
    const references = splitReferences(input.text);
    if (references.length > 1 && references.filter(looksLikeReference).length >= references.length / 2)
      throw isNot(
        `These look like ${references.length} references. Keep them as leads to look up one by one.`,
        'is-reference',
      );
    if (looksLikeReference(input.text))
      throw isNot(
        'This looks like a reference. Keep it as a lead to look up later, or start by hand.',
        'is-reference',
      );
    throw isNot(
      'This is no address and no identifier. Keep it as a thought, or start by hand with it as the title.',
      'is-text',
    );
  }
  const jobs: Job[] = [];
  for (const text of lines) jobs.push(await begin(ctx, { ...input, text: withoutPassword(text) }));
  return jobs;
}

/** What a file handed over is, for sending it the right way. */
export async function captureFile(ctx: Context, bytes: Uint8Array, name: string, given: Into): Promise<Job> {
  if (bytes.byteLength === 0) throw new Refusal(422, `${name} is empty.`);
  if (bytes.byteLength > MOST_BYTES)
    throw new Refusal(
      413,
      `${name} is larger than ${megabytes(MOST_BYTES)}. Save a smaller version and drop that.`,
    );
  const kind = sniffBytes(bytes);
  if (kind === 'zip') throw new Refusal(415, `${name} is a packed file. Unpack it and drop what is in it.`);
  if (kind === 'binary' || kind === 'audio' || kind === 'text')
    throw new Refusal(
      415,
      `${name} is no document Retexa reads. It reads PDF, saved pages, pictures of pages, BibTeX, RIS and CSL-JSON.`,
    );
  const sha256 = await keepFile(Buffer.from(bytes));
  return begin(ctx, { ...given, text: name, file: { sha256, name } });
}

/** Captures a page handed over as the person sees it, with what is selected on it. */
export async function captureHandedPage(
  ctx: Context,
  page: { html: string; address: string; title: string; selection?: string },
  given: Into,
): Promise<Job> {
  const bytes = Buffer.from(page.html, 'utf8');
  if (bytes.length > MOST_BYTES / 4)
    throw new Refusal(413, 'The page is larger than 12 MB. Select a part of it, or capture its address.');
  const sha256 = await keepFile(bytes);
  return begin(ctx, {
    ...given,
    text: page.title || withoutPassword(page.address),
    page: { sha256, address: withoutPassword(page.address) },
    ...(page.selection ? { selection: page.selection } : {}),
  });
}

/** Tries a failed capture again. */
export async function retryCapture(ctx: Context, id: string): Promise<void> {
  const job = await getJob(ctx, id);
  if (job.kind !== 'capture' || job.state !== 'failed')
    throw new Refusal(409, 'Only a capture that failed can be tried again.');
  await updateJob(ctx, id, { state: 'waiting', error: null });
  enqueue(ctx, () => run(ctx, job));
}

/** Stops a capture that is running. */
export function cancelCapture(id: string): void {
  stop(id);
}

async function waitingFor(
  ctx: Context,
  id: string,
  kind: Held['kind'],
): Promise<{ job: Job; content: Held }> {
  const job = await getJob(ctx, id);
  const content = await held<Held>(ctx, id);
  if (job.state !== 'done' || content?.kind !== kind)
    throw new Refusal(409, 'This capture waits for no answer any more.');
  return { job, content };
}

/** Answers "already here": adds the page to the source there is as another copy, or keeps both. */
export async function answerHere(
  ctx: Context,
  id: string,
  answer: { sourceId: string } | 'both',
): Promise<void> {
  const { job, content } = await waitingFor(ctx, id, 'one');
  const { gathered } = content as Extract<Held, { kind: 'one' }>;
  const input = job.input as CaptureInput;
  const { doubles } = job.result as Extract<CaptureResult, { kind: 'here' }>;
  await change(ctx, CHANGE, async (inner) => {
    if (!(await letGo(inner, id))) throw new Refusal(409, 'This capture waits for no answer any more.');
    const kept =
      answer === 'both'
        ? await keepNew(inner, gathered, input)
        : await keepAsCopy(inner, gathered, input, answer.sourceId);
    const result: CaptureResult =
      answer === 'both' ? { kind: 'kept', doubles, ...kept } : { kind: 'kept', doubles: [], ...kept };
    await updateJob(inner, id, { state: 'done', result });
  });
}

/** Takes back that a capture was added to a source that was there: what it added goes, the source stays. */
export async function undoAddition(ctx: Context, id: string): Promise<void> {
  const job = await getJob(ctx, id);
  const result = isCapture(job) ? job.result : null;
  if (result?.kind !== 'kept' || !result.added)
    throw new Refusal(409, 'There is nothing here that can be taken back.');
  const { sourceId, added } = result;
  await change(ctx, CHANGE, async (inner) => {
    await takeAway(inner, sourceId, added);
    await updateJob(inner, id, { state: 'dismissed' });
  });
}

/** Captures the works chosen from a list, one job with progress; a work that cannot be read is kept as listed, and said. */
export async function answerList(ctx: Context, id: string, picks: number[]): Promise<void> {
  const { job, content } = await waitingFor(ctx, id, 'list');
  const { works, address } = content as Extract<Held, { kind: 'list' }>;
  const chosen = [...new Set(picks)]
    .sort((a, b) => a - b)
    .map((i) => works[i])
    .filter((w) => w !== undefined);
  if (chosen.length === 0)
    throw new Refusal(422, 'Nothing is ticked. Tick the works to keep, or put the list away.');
  await updateJob(ctx, id, { state: 'waiting' });
  enqueue(ctx, () =>
    carryOut(ctx, job, async (doing, input) => {
      const result: Extract<CaptureResult, { kind: 'several' }> = {
        kind: 'several',
        kept: [],
        failed: [],
        here: 0,
      };
      for (const [i, work] of chosen.entries()) {
        if (doing.signal.aborted) {
          const left = chosen.length - i;
          result.failed.push({ title: `${left} more`, reason: 'stopped before they were read.' });
          break;
        }
        const count = (words: string) =>
          doing.step(`${i + 1} of ${chosen.length}: ${words}`, i, chosen.length);
        count('fetching');
        const title = work.record.title ?? '';
        try {
          const gathered = await gatherListed(work, address, { ...doing, step: count });
          const { note: _note, ...into } = input;
          const kept = await keepNew(ctx, gathered, into as CaptureInput);
          result.kept.push({ sourceId: kept.sourceId, label: kept.label });
          for (const reason of gathered.notes) result.failed.push({ title, reason });
        } catch (error) {
          if (doing.signal.aborted) continue;
          if (!(error instanceof Refusal)) log.error({ job: id, err: error }, 'a listed work failed');
          result.failed.push({
            title,
            reason: error instanceof Refusal ? error.message : 'It could not be read.',
          });
        }
        tell(ctx.libraryId, 'sources', 'jobs');
      }
      await letGo(ctx, id);
      return result;
    }),
  );
}

/** Starts a source by hand, with what is already known filled in. It waits in Intake until it is checked. */
export async function startByHand(
  ctx: Context,
  given: { type: CslType; record?: SourceRecord } & Partial<
    Record<'title' | 'URL' | 'DOI' | 'ISBN' | 'PMID', string>
  >,
  where: Into = {},
): Promise<Source> {
  const { type, record: known, ...fields } = given;
  const record: SourceRecord = { ...(known ?? emptyRecord(type)), type, ...fields };
  const origins = { ...record.retexa.origins };
  for (const [field, value] of Object.entries(fields))
    origins[field] = [{ kind: 'person', value, at: now() }];
  return change(ctx, CHANGE, async (inner) => {
    const tags = where.tags ?? [];
    const added = await insertSource(
      inner,
      { ...record, retexa: { ...record.retexa, tags, origins } },
      { why: 'started by hand' },
    );
    if (where.projectId && (await findProject(inner, where.projectId)))
      await fileSources(inner, where.projectId, [added.id]);
    if (where.leadId) await tickLead(inner, where.leadId, added.id);
    return added;
  });
}

/** Whether a job is a capture. */
export const isCapture = (job: Job): job is Job<CaptureInput, CaptureResult> => job.kind === 'capture';
