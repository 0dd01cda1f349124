import { READABLE, sniff } from '../../core/formats';
import { looksLikeReference, splitReferences } from '../../core/leads';
import {
  derive,
  emptyRecord,
  recognise,
  recogniseLines,
  shortLabel,
  tidiedRecord,
  withoutPassword,
  type CslType,
  type SourceRecord,
} from '../../core/source';
import { packedKind } from '../../reading/packed';
import { sniffBytes } from '../../reading/sniff';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { now } from '../db/ids';
import { megabytes, MOST_BYTES } from '../limits';
import { keepFile } from '../files/store';
import { Refusal } from '../access/refusal';
import { held, letGo } from '../jobs/holds';
import { getJob, updateJob, type Job } from '../jobs/repository';
import { answerJob, beginJob } from '../jobs/runner';
import { fileSources, findProject } from '../projects/repository';
import { getSource, insertSource, sourcesWithAnyKey, type Source } from '../sources/repository';
import { CHANGE, doublesOf, keepAsCopy, keepNew, takeAway, tickLead } from './keep';
import './work';
import type { CaptureInput, CaptureResult, Double, Held, Into } from './types';

export { alike, doublesOf } from './keep';
export { fetchCopy } from './gather';
export { findShared, keepShared } from './shared';
export type { CaptureInput, CaptureResult, Choice, Double, Into } from './types';

export { into } from './into';
export * from './requests';

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
  for (const text of lines)
    jobs.push(await beginJob(ctx, 'capture', { ...input, text: withoutPassword(text) }));
  return jobs;
}

/** Captures a document handed over as a file: as a source of its own, or as a copy of one there is. */
export async function captureFile(
  ctx: Context,
  bytes: Uint8Array,
  name: string,
  given: Into & Pick<CaptureInput, 'toSource'>,
): Promise<Job> {
  if (bytes.byteLength === 0) throw new Refusal(422, `${name} is empty.`);
  if (bytes.byteLength > MOST_BYTES)
    throw new Refusal(
      413,
      `${name} is larger than ${megabytes(MOST_BYTES)}. Save a smaller version and drop that.`,
    );
  const kind = sniffBytes(bytes);
  const packed = kind === 'zip' && packedKind(bytes) === undefined;
  // Beside a source anything is kept, since it is the person who says what it is.
  if (packed && !given.toSource)
    throw new Refusal(415, `${name} is a packed file. Unpack it and drop what is in it.`);
  if (kind === 'binary' && !given.toSource)
    throw new Refusal(
      415,
      `${name} is no document Retexa reads. It reads PDF, EPUB, .docx, Markdown and text, saved pages, pictures of pages, sound, BibTeX, RIS and CSL-JSON. Anything else can be attached to its source.`,
    );
  const sha256 = await keepFile(Buffer.from(bytes));
  return beginJob(ctx, 'capture', { ...given, text: name, file: { sha256, name } });
}

/** Takes a document as a copy of a source there is. */
export async function attachFile(ctx: Context, id: string, bytes: Uint8Array, name: string): Promise<Job> {
  await getSource(ctx, id);
  return captureFile(ctx, bytes, name, { toSource: id });
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
  return beginJob(ctx, 'capture', {
    ...given,
    text: page.title || withoutPassword(page.address),
    page: { sha256, address: withoutPassword(page.address) },
    ...(page.selection ? { selection: page.selection } : {}),
  });
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

/** Captures the works chosen from a list, one job with progress. */
export async function answerList(ctx: Context, id: string, picks: number[]): Promise<void> {
  const { content } = await waitingFor(ctx, id, 'list');
  const { works } = content as Extract<Held, { kind: 'list' }>;
  const chosen = [...new Set(picks)].filter((i) => i < works.length).sort((x, y) => x - y);
  if (chosen.length === 0)
    throw new Refusal(422, 'Nothing is ticked. Tick the works to keep, or put the list away.');
  await answerJob(ctx, id, chosen);
}

/** What a source is started with by hand. */
type ByHand = { type: CslType; record?: SourceRecord } & Partial<
  Record<'title' | 'URL' | 'DOI' | 'ISBN' | 'PMID', string>
>;

function recordByHand({ type, record: known, ...fields }: ByHand): SourceRecord {
  const record: SourceRecord = { ...(known ?? emptyRecord(type)), type, ...fields };
  const origins = { ...record.retexa.origins };
  for (const [field, value] of Object.entries(fields))
    origins[field] = [{ kind: 'person', value, at: now() }];
  return { ...record, retexa: { ...record.retexa, origins } };
}

/** A title that more sources have is that of pieces of a periodical, and says nothing. */
const FEW = 5;

/**
 * Sources there are that look like the one that would be started by hand. A title is all that is known of most: too little
 * for judging, so that those few that have it are named too.
 */
export async function doublesByHand(ctx: Context, given: ByHand): Promise<Double[]> {
  const { record } = tidiedRecord(recordByHand(given));
  const judged = await doublesOf(ctx, record);
  const { titleKey } = derive(record);
  if (judged.length > 0 || !titleKey) return judged;
  const titled = await sourcesWithAnyKey(ctx, [{ title_key: titleKey }]);
  return titled.length > FEW
    ? []
    : titled.map(({ id, record: there }) => ({
        id,
        label: shortLabel(there),
        reason: 'the same title',
        sure: false,
      }));
}

/** Starts a source by hand, with what is already known filled in. It waits in Intake until it is checked. */
export async function startByHand(ctx: Context, given: ByHand, where: Into = {}): Promise<Source> {
  const record = recordByHand(given);
  return change(ctx, CHANGE, async (inner) => {
    const tags = where.tags ?? [];
    const added = await insertSource(
      inner,
      { ...record, retexa: { ...record.retexa, tags } },
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
