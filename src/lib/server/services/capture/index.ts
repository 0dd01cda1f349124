import { fromCslJson, reconcile, recordOf, type Candidate } from '../../core/capture';
import { compare, keysOf } from '../../core/duplicates';
import { FORMATS, sniff } from '../../core/formats';
import {
  emptyRecord,
  findDoi,
  recognise,
  shortLabel,
  type SourceRecord,
  type CslType,
} from '../../core/source';
import { config } from '../config';
import { transaction, type Context } from '../context';
import { now } from '../db/ids';
import { tell } from '../events';
import { keepFile } from '../files/store';
import { fetchOutside, type Fetched } from '../http/fetch-outside';
import { log } from '../log';
import { Refusal } from '../refusal';
import { insertCopy, type Copy } from '../repositories/copies';
import { getJob, insertJob, updateJob, type Job } from '../repositories/jobs';
import { fileSources, findProject } from '../repositories/projects';
import { insertSource, living, openSource, type Source, type SourceRow } from '../repositories/sources';
import { readPage } from '../workers/pools';
import type { ReadPage } from '../workers/reading.worker';

/** What was put into the capture field, and the project it goes to. */
export interface CaptureInput {
  text: string;
  projectId?: string;
}

/** What came of a capture. `doubles` are sources it looks the same as. */
export interface CaptureResult {
  sourceId: string;
  label: string;
  copyId?: string;
  doubles: { id: string; label: string; reason: string }[];
  note?: string;
}

const PAGE_BYTES = 12 * 1024 * 1024;
const RECORD_BYTES = 2 * 1024 * 1024;
const HTML = /^(?:text\/html|application\/xhtml\+xml)$/;

/** Looks like HTML whatever the header says: the WHATWG MIME sniffing signatures that matter here. */
const looksLikeHtml = (bytes: Buffer) =>
  /^\s*(?:<!doctype html|<html|<head|<!--)/i.test(bytes.subarray(0, 512).toString('latin1'));

const KINDS: [RegExp, string][] = [
  [/^image\//, 'a picture'],
  [/^application\/pdf/, 'a PDF'],
  [/^(?:video|audio)\//, 'a recording'],
  [/zip|compressed|octet-stream/, 'a file to download'],
  [/json|xml|csv/, 'a data file'],
];

/** Why a fetched document is not a page that can be read, or nothing. */
function notAPage(fetched: Fetched): Refusal | undefined {
  const host = new URL(fetched.address).host;
  if (fetched.status === 404 || fetched.status === 410)
    return new Refusal(
      404,
      `${host} has no page at this address (it answered ${fetched.status}). Check the address, or start by hand with it filled in.`,
    );
  if (fetched.status === 401 || fetched.status === 403)
    return new Refusal(
      403,
      `${host} shows this page only to people who are signed in (it answered ${fetched.status}). Start by hand with the address filled in.`,
    );
  if (fetched.status >= 400)
    return new Refusal(
      502,
      `${host} answered with an error (${fetched.status}). Try again later, or start by hand with the address filled in.`,
    );
  const { mediaType, bytes } = fetched;
  const binary = bytes.subarray(0, 512).includes(0);
  if (!binary && (HTML.test(mediaType) || looksLikeHtml(bytes))) return undefined;
  const kind = KINDS.find(([pattern]) => pattern.test(mediaType))?.[1] ?? 'something else than a page';
  return new Refusal(
    415,
    `The address leads to ${kind}, not to a page Retexa can read. Capture the page that describes it, or start by hand with the address filled in.`,
  );
}

async function fetchPage(address: string, signal: AbortSignal): Promise<Fetched> {
  const fetched = await fetchOutside(address, {
    accept: 'text/html,application/xhtml+xml;q=0.9,*/*;q=0.1',
    maxBytes: PAGE_BYTES,
    signal,
  });
  const refusal = notAPage(fetched);
  if (refusal) throw refusal;
  return fetched;
}

/**
 * Asks the DOI registry for its record by content negotiation. `undefined` when it does not know the DOI; throws a
 * Refusal when it cannot be asked.
 */
async function askRegistry(
  doi: string,
  signal: AbortSignal,
): Promise<{ candidates: Candidate[]; address: string } | undefined> {
  const address = `${config.doiRegistry}/${encodeURIComponent(doi).replace(/%2F/g, '/')}`;
  const fetched = await fetchOutside(address, {
    accept: 'application/vnd.citationstyles.csl+json',
    maxBytes: RECORD_BYTES,
    signal,
  });
  if (fetched.status === 404) return undefined;
  if (fetched.status >= 400)
    throw new Refusal(502, `The DOI registry answered with an error (${fetched.status}). Try again later.`);
  try {
    return {
      candidates: fromCslJson(
        JSON.parse(fetched.bytes.toString('utf8')) as Record<string, unknown>,
        'registry',
      ),
      address,
    };
  } catch {
    throw new Refusal(
      502,
      'The DOI registry’s answer could not be read. Try again later, or start by hand with the DOI filled in.',
    );
  }
}

/** Living sources that the record looks the same as, by the keys they share. */
export async function doublesOf(
  ctx: Context,
  record: SourceRecord,
  except?: string,
): Promise<CaptureResult['doubles']> {
  const keys = keysOf(record);
  const value = (prefix: string) => keys.find((k) => k.startsWith(prefix))?.slice(prefix.length);
  const rows = (await living(ctx, {}).where((any) => {
    void any.where('title_key', value('title ') ?? '\u0000');
    const doi = value('doi ');
    const address = value('address ');
    if (doi) void any.orWhere('doi', doi);
    if (address) void any.orWhere('address_key', address);
  })) as SourceRow[];
  return rows
    .map(openSource)
    .filter((s) => s.id !== except)
    .map((s) => ({ source: s, judgement: compare(record, s.record) }))
    .filter(({ judgement }) => judgement.verdict !== 'different')
    .map(({ source, judgement }) => ({
      id: source.id,
      label: shortLabel(source.record),
      reason: judgement.reasons[0] ?? 'alike',
    }));
}

interface Gathered {
  record: SourceRecord;
  page?: { fetched: Fetched; read: ReadPage };
  note?: string;
}

async function fromAddress(
  address: string,
  signal: AbortSignal,
  step: (words: string) => void,
): Promise<Gathered> {
  step('Fetching the page');
  const fetched = await fetchPage(address, signal);
  step('Reading the page');
  const read = await readPage({
    bytes: fetched.bytes,
    contentType: fetched.contentType,
    address: fetched.address,
  });
  const doi = read.candidates.find((c) => c.field === 'DOI')?.value as string | undefined;
  let note: string | undefined;
  let registry: Candidate[] = [];
  if (doi) {
    step('Asking the registry');
    try {
      const answer = await askRegistry(doi, signal);
      if (answer) registry = answer.candidates;
      else note = `The registry does not know the DOI ${doi} that the page gives.`;
    } catch (error) {
      if (!(error instanceof Refusal) || signal.aborted) throw error;
      note = `The registry could not be asked: ${error.message}`;
    }
  }
  return {
    record: recordOf([...registry, ...read.candidates], fetched.address, now()),
    page: { fetched, read },
    ...(note ? { note } : {}),
  };
}

async function fromDoi(doi: string, signal: AbortSignal, step: (words: string) => void): Promise<Gathered> {
  step('Asking the registry');
  const answer = await askRegistry(doi, signal);
  if (!answer)
    throw new Refusal(
      404,
      `The registry does not know the DOI ${doi}. Check it against the document, or start by hand with it filled in.`,
    );
  step('Fetching the page');
  try {
    const fetched = await fetchPage(answer.address, signal);
    const read = await readPage({
      bytes: fetched.bytes,
      contentType: fetched.contentType,
      address: fetched.address,
    });
    const own = read.candidates.find((c) => c.field === 'DOI')?.value as string | undefined;
    const same = own !== undefined && findDoi(own)?.toLowerCase() === doi.toLowerCase();
    const record = recordOf([...answer.candidates, ...(same ? read.candidates : [])], fetched.address, now());
    return { record: { ...record, DOI: record.DOI ?? doi }, page: { fetched, read } };
  } catch (error) {
    if (!(error instanceof Refusal) || signal.aborted) throw error;
    const said = answer.candidates.filter((c) => c.field !== 'URL');
    const record = reconcile(said, answer.address, now());
    return {
      record: { ...record, DOI: record.DOI ?? doi },
      note: `No copy of the page was kept: ${error.message}`,
    };
  }
}

/** The row of a copy from a page fetched and read, its files already in the store. */
async function keepPage(fetched: Fetched, read: ReadPage): Promise<Omit<Copy, 'id' | 'source_id'>> {
  return {
    kind: 'page',
    media_type: fetched.mediaType || 'text/html',
    sha256: await keepFile(fetched.bytes),
    size: fetched.bytes.length,
    reading_sha256: await keepFile(Buffer.from(read.html, 'utf8')),
    title: read.title,
    address: fetched.address,
    captured: now(),
    text: read.text,
  };
}

/** Fetches a page again, for a copy that is to be renewed. */
export async function fetchCopy(address: string): Promise<Omit<Copy, 'id' | 'source_id'>> {
  const fetched = await fetchPage(address, AbortSignal.timeout(60_000));
  const read = await readPage({
    bytes: fetched.bytes,
    contentType: fetched.contentType,
    address: fetched.address,
  });
  return keepPage(fetched, read);
}

async function keep(ctx: Context, gathered: Gathered, projectId: string | undefined): Promise<CaptureResult> {
  const { record, page, note } = gathered;
  const copy = page && (await keepPage(page.fetched, page.read));
  const doubles = await doublesOf(ctx, record);
  const [source, kept] = await transaction(ctx, async (inner) => {
    const added = await insertSource(inner, record, { why: 'captured' });
    const keptCopy = copy && (await insertCopy(inner, { ...copy, source_id: added.id }));
    if (projectId && (await findProject(inner, projectId))) await fileSources(inner, projectId, [added.id]);
    return [added, keptCopy] as const;
  });
  return {
    sourceId: source.id,
    label: shortLabel(record),
    doubles,
    ...(kept ? { copyId: kept.id } : {}),
    ...(note ? { note } : {}),
  };
}

const running = new Map<string, AbortController>();

/** Carries out a capture job and notes what came of it. Never throws. */
async function run(ctx: Context, job: Job): Promise<void> {
  const { text, projectId } = job.input as CaptureInput;
  const abort = new AbortController();
  running.set(job.id, abort);
  const step = (words: string) =>
    tell(ctx.libraryId, { kind: 'job', job: { id: job.id, kind: 'capture', state: 'running', step: words } });
  try {
    await updateJob(ctx, job.id, { state: 'running', error: null });
    const given = recognise(text);
    const gathered =
      given.kind === 'doi'
        ? await fromDoi(given.doi, abort.signal, step)
        : given.kind === 'address'
          ? await fromAddress(given.address, abort.signal, step)
          : undefined;
    if (!gathered)
      throw new Refusal(422, 'Neither an address nor a DOI. Start by hand with it as the title.');
    step('Keeping it');
    const result = await keep(ctx, gathered, projectId);
    await updateJob(ctx, job.id, { state: 'done', result });
  } catch (error) {
    if (!(error instanceof Refusal)) log.error({ job: job.id, err: error }, 'capture failed');
    const message =
      error instanceof Refusal
        ? error.message
        : 'Something went wrong inside Retexa while reading this. Nothing was saved; try again, or start by hand.';
    await updateJob(ctx, job.id, { state: 'failed', error: { message, details: [] } }).catch((e: unknown) =>
      log.error({ err: e }, 'job not noted'),
    );
  } finally {
    running.delete(job.id);
    tell(ctx.libraryId, { kind: 'changed' });
  }
}

/** Captures wait here so that at most a few run at once. */
const queue: (() => Promise<void>)[] = [];
let active = 0;
const AT_ONCE = 3;

function pump(): void {
  while (active < AT_ONCE && queue.length > 0) {
    active++;
    void queue.shift()!().finally(() => {
      active--;
      pump();
    });
  }
}

/**
 * Begins a capture and gives its job at once; the work goes on behind. Refuses text that is neither an address, a DOI
 * nor an ISBN, naming what it could be instead.
 */
export async function capture(ctx: Context, input: CaptureInput): Promise<Job> {
  const given = recognise(input.text);
  if (given.kind === 'isbn' || given.kind === 'text') {
    const format = sniff(input.text);
    throw new Refusal(
      422,
      given.kind === 'isbn'
        ? `This is the ISBN ${given.isbn}. Start the book by hand with it filled in.`
        : format && input.text.length > 20
          ? `This looks like ${FORMATS[format].label}. Import it as references.`
          : 'This is neither an address nor a DOI. Start by hand with it as the title.',
    );
  }
  const job = await insertJob(ctx, 'capture', input);
  queue.push(() => run(ctx, job));
  tell(ctx.libraryId, { kind: 'changed' });
  pump();
  return job;
}

/** Tries a failed capture again. */
export async function retryCapture(ctx: Context, id: string): Promise<void> {
  const job = await getJob(ctx, id);
  if (job.kind !== 'capture' || job.state !== 'failed')
    throw new Refusal(409, 'Only a capture that failed can be tried again.');
  await updateJob(ctx, id, { state: 'waiting', error: null });
  queue.push(() => run(ctx, job));
  tell(ctx.libraryId, { kind: 'changed' });
  pump();
}

/** Stops a capture that is running. */
export function cancelCapture(id: string): void {
  running.get(id)?.abort();
}

/** Starts a source by hand, with what is already known filled in. It waits in Intake until it is checked. */
export async function startByHand(
  ctx: Context,
  given: { type: CslType; title?: string; URL?: string; DOI?: string; ISBN?: string },
  projectId?: string,
): Promise<Source> {
  const { type, ...fields } = given;
  const record: SourceRecord = { ...emptyRecord(type), ...fields };
  for (const [field, value] of Object.entries(fields))
    record.retexa.origins[field] = [{ kind: 'person', value, at: now() }];
  const source = await transaction(ctx, async (inner) => {
    const added = await insertSource(inner, record, { why: 'started by hand' });
    if (projectId && (await findProject(inner, projectId))) await fileSources(inner, projectId, [added.id]);
    return added;
  });
  tell(ctx.libraryId, { kind: 'changed' });
  return source;
}
