import {
  fromRecord,
  joinRegistry,
  reconcile,
  recordOf,
  sameWork,
  type Candidate,
  type LinkedFile,
  type ListedWork,
} from '../../../core/capture';
import { readFormat } from '../../../core/formats';
import { findIsbn, isbnKey, recognise, type SourceRecord } from '../../../core/source';
import { fold } from '../../../core/text';
import { sniffBytes } from '../../../reading/sniff';
import { config } from '../../config';
import { now } from '../../db/ids';
import { readKept } from '../../files/store';
import type { Fetched } from '../../http/fetch-outside';
import { fetchPolitely } from '../../http/polite';
import { Refusal } from '../../refusal';
import { read } from '../../workers/pools';
import type { Results } from '../../workers/reading.worker';
import { textOfBytes } from '../../../reading/text';
import { pageCopy, pdfDocument, pictureDocument } from './documents';
import { askByDoi, askByIsbn, askByPmid, searchWorks, type Answer } from './registries';
import type { CaptureInput, Gathered, NewCopy, Step } from './types';

/** Most bytes of anything fetched or handed over. */
export const MOST_BYTES = 50 * 1024 * 1024;
const PAGE_BYTES = 12 * 1024 * 1024;
const FILE_BYTES = 2 * 1024 * 1024;

/** What is kept beside the record. */
export interface Keeping {
  page: boolean;
  pdf: boolean;
}

/** How a capture is carried out: until when, and whom to tell. */
export interface Doing {
  signal: AbortSignal;
  step: Step;
  keeping: Keeping;
}

export type GatheredOrList = Gathered | { address: string; title: string; works: ListedWork[] };

const KINDS: [RegExp, string][] = [
  [/^image\/svg/, 'a drawing'],
  [/^(?:video|audio)\//, 'a recording'],
  [/zip|compressed|octet-stream/, 'a file to download'],
  [/json|xml|csv/, 'a data file'],
];

/** Why an answer with an error is no page, in words for the person. */
function refusalOf({ status, address }: Fetched): Refusal | undefined {
  const { host } = new URL(address);
  if (status === 404 || status === 410)
    return new Refusal(
      404,
      `${host} has no page at this address (it answered ${status}). Check the address, or start by hand with it filled in.`,
    );
  if (status === 401 || status === 403)
    return new Refusal(
      403,
      `${host} shows this page only to people who are signed in (it answered ${status}). Open it in your browser and hand it over with the bookmarklet, or start by hand with the address filled in.`,
    );
  if (status === 429 || status === 503)
    return new Refusal(503, `${host} is busy (it answered ${status}). Try again in a few minutes.`);
  if (status >= 400)
    return new Refusal(
      502,
      `${host} answered with an error (${status}). Try again later, or start by hand with the address filled in.`,
    );
  return undefined;
}

async function fetchDocument(address: string, signal: AbortSignal): Promise<Fetched> {
  const fetched = await fetchPolitely(address, {
    accept: 'text/html,application/xhtml+xml,application/pdf;q=0.9,image/*;q=0.5,*/*;q=0.1',
    maxBytes: (mediaType) => (/html/.test(mediaType) ? PAGE_BYTES : MOST_BYTES),
    signal,
  });
  const refusal = refusalOf(fetched);
  if (refusal) throw refusal;
  return fetched;
}

const notAPage = (mediaType: string) => {
  const kind = KINDS.find(([pattern]) => pattern.test(mediaType))?.[1] ?? 'something else than a page';
  return new Refusal(
    415,
    `The address leads to ${kind}, not to a page Retexa can read. Capture the page that describes it, or start by hand with the address filled in.`,
  );
};

/** A registry's answer that is of the page's work; what it does not fit is told in `notes`. */
function joining(
  answer: Answer | undefined,
  page: Candidate[],
  field: 'DOI' | 'ISBN',
  given: string,
  notes: string[],
): { joined: Candidate[]; own: Candidate[] } {
  if (!answer) {
    notes.push(`The registry does not know the ${field} ${given} that the page gives.`);
    return { joined: [], own: page };
  }
  const { joined, own, otherTitle } = joinRegistry(page, answer.candidates, field);
  if (otherTitle !== undefined)
    notes.push(
      `The ${field} ${given} on the page belongs to another work, “${otherTitle}”, and was left out.`,
    );
  return { joined, own };
}

async function tolerant<T>(
  work: Promise<T>,
  doing: Doing,
  notes: string[],
  what: string,
): Promise<T | undefined> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof Refusal) || doing.signal.aborted) throw error;
    notes.push(`${what}: ${error.message}`);
    return undefined;
  }
}

/** The record in a citation file of the page, if it is of the page's work. */
async function fromLinkedFile(
  file: LinkedFile,
  page: Candidate[],
  signal: AbortSignal,
): Promise<Candidate[]> {
  const fetched = await fetchPolitely(file.href, { accept: '*/*', maxBytes: FILE_BYTES, signal });
  if (fetched.status >= 400) return [];
  const { entries } = readFormat(file.format, textOfBytes(fetched.bytes));
  const own = entries
    .map((e) => fromRecord(e.record, 'linked', file.href))
    .find((c) => sameWork(page, c) && c.some((x) => x.field === 'title'));
  return own && entries.length <= 3 ? own : [];
}

/** Everything that joins a page: its citation files and the registries of the identifiers it gives. */
async function joinedTo(page: Results['page'], doing: Doing, notes: string[]): Promise<Candidate[]> {
  let candidates = [...page.candidates];
  const linked: Candidate[] = [];
  for (const file of page.files.slice(0, 2)) {
    doing.step('Reading its citation file');
    linked.push(
      ...((await tolerant(fromLinkedFile(file, page.candidates, doing.signal), doing, [], 'file')) ?? []),
    );
    if (linked.length) break;
  }
  const all = [...linked, ...candidates];
  const given = (field: string) => all.find((c) => c.field === field)?.value as string | undefined;
  const doi = given('DOI');
  const joined: Candidate[] = [];
  if (doi) {
    doing.step('Asking the registry');
    const answer = await tolerant(
      askByDoi(doi, doing.signal).then((a) => ({ a })),
      doing,
      notes,
      'The registry could not be asked',
    );
    if (answer) {
      const { joined: more, own } = joining(answer.a, candidates, 'DOI', doi, notes);
      joined.push(...more);
      candidates = own;
    }
  }
  const isbn = given('ISBN');
  const book = all.some((c) => c.field === 'type' && c.value === 'book');
  if (isbn && book && joined.length === 0) {
    doing.step('Asking the book catalogue');
    const answer = await tolerant(
      askByIsbn(isbnKey(isbn) ?? isbn, doing.signal).then((a) => ({ a })),
      doing,
      notes,
      'The book catalogue could not be asked',
    );
    if (answer?.a) joined.push(...joining(answer.a, candidates, 'ISBN', isbn, notes).joined);
  }
  return [...joined, ...linked, ...candidates];
}

async function pdfBeside(address: string, doing: Doing, notes: string[]): Promise<NewCopy[]> {
  if (!doing.keeping.pdf) return [];
  doing.step('Fetching the PDF');
  const work = (async () => {
    const fetched = await fetchDocument(address, doing.signal);
    if (sniffBytes(fetched.bytes) !== 'pdf') throw new Refusal(415, 'what is there is not a PDF.');
    const { copy } = await pdfDocument(
      fetched.bytes,
      { address: fetched.address, name: '' },
      doing.signal,
      doing.step,
    );
    return copy;
  })();
  const copy = await tolerant(work, doing, notes, 'The PDF was not kept');
  return copy ? [copy] : [];
}

/** What a page read gives: its own work, or the works it lists. */
async function fromPage(
  fetched: Pick<Fetched, 'bytes' | 'mediaType' | 'address'>,
  page: Results['page'],
  doing: Doing,
): Promise<GatheredOrList> {
  if (page.list.length) return { address: fetched.address, title: page.title, works: page.list };
  const notes: string[] = [];
  const candidates = await joinedTo(page, doing, notes);
  const copies = doing.keeping.page ? [await pageCopy(fetched, page)] : [];
  if (page.pdf) copies.push(...(await pdfBeside(page.pdf, doing, notes)));
  return { record: recordOf(candidates, fetched.address, now()), copies, notes };
}

async function readAsPage(
  fetched: Pick<Fetched, 'bytes' | 'contentType' | 'address'> & { linkHeader?: string },
  doing: Doing,
) {
  if (fetched.bytes.length > PAGE_BYTES)
    throw new Refusal(
      413,
      'The page is larger than 12 MB. Capture a smaller page of the same work, or start by hand with the address filled in.',
    );
  doing.step('Reading the page');
  return read(
    {
      task: 'page',
      bytes: fetched.bytes,
      contentType: fetched.contentType,
      address: fetched.address,
      linkHeader: fetched.linkHeader ?? '',
    },
    doing.signal,
  );
}

/** The record of a document with pages: what it says of itself, and its DOI's registry record. */
async function documentRecord(
  candidates: Candidate[],
  text: string,
  address: string | undefined,
  doing: Doing,
  notes: string[],
): Promise<SourceRecord> {
  const doi = candidates.find((c) => c.field === 'DOI')?.value as string | undefined;
  const isbn = candidates.find((c) => c.field === 'ISBN')?.value as string | undefined;
  const joined: Candidate[] = [];
  let own = candidates;
  const fits = (answer: Answer | undefined, what: string, field: string) => {
    // The title in a PDF's own data is often none; what the registry calls the work must at least stand in its text.
    const title = answer?.candidates.find((c) => c.field === 'title')?.value;
    const printed =
      title !== undefined && fold(text.slice(0, 20_000)).includes(fold(String(title)).slice(0, 60));
    if (answer && (printed || sameWork(candidates, answer.candidates))) joined.push(...answer.candidates);
    else {
      if (answer) own = own.filter((c) => c.field !== field);
      notes.push(
        answer
          ? `The ${what} printed in the document belongs to another work, “${String(title)}”, and was left out.`
          : `The registry does not know the ${what} of the document.`,
      );
    }
  };
  if (doi) {
    doing.step('Asking the registry');
    const answer = await tolerant(
      askByDoi(doi, doing.signal).then((a) => ({ a })),
      doing,
      notes,
      'The registry could not be asked',
    );
    if (answer) fits(answer.a, `DOI ${doi}`, 'DOI');
  } else if (isbn) {
    doing.step('Asking the book catalogue');
    const answer = await tolerant(
      askByIsbn(isbnKey(isbn) ?? isbn, doing.signal).then((a) => ({ a })),
      doing,
      notes,
      'The book catalogue could not be asked',
    );
    if (answer) fits(answer.a, `ISBN ${isbn}`, 'ISBN');
  }
  return address
    ? recordOf([...joined, ...own], address, now())
    : reconcile([...joined.filter((c) => c.field !== 'URL'), ...own], undefined, now());
}

async function fromBytes(
  fetched: { bytes: Buffer; mediaType: string; contentType: string; linkHeader?: string },
  where: { address?: string; name: string },
  doing: Doing,
): Promise<GatheredOrList> {
  const kind = sniffBytes(fetched.bytes);
  const address = where.address ?? '';
  const notes: string[] = [];
  if (kind === 'pdf') {
    const { copy, candidates, text } = await pdfDocument(
      fetched.bytes,
      { address, name: where.name },
      doing.signal,
      doing.step,
    );
    if (copy.note) notes.push(copy.note);
    const record = await documentRecord(candidates, text, where.address, doing, notes);
    return { record: titled(record, where.name), copies: [copy], notes };
  }
  if (kind.startsWith('image/')) {
    if (kind === 'image/tiff')
      throw new Refusal(415, 'Pictures in TIFF cannot be opened. Save it as PNG or JPEG and drop that.');
    const { copy, candidates, text } = await pictureDocument(
      fetched.bytes,
      { address, name: where.name, mediaType: kind },
      doing.signal,
      doing.step,
    );
    if (copy.note) notes.push(copy.note);
    const record = await documentRecord(candidates, text, where.address, doing, notes);
    return { record: titled(record, where.name), copies: [copy], notes };
  }
  const html =
    /^(?:text\/html|application\/xhtml\+xml)$/.test(fetched.mediaType) &&
    kind !== 'zip' &&
    kind !== 'binary' &&
    kind !== 'audio';
  if (kind === 'html' || html) {
    const own = where.address ?? savedFrom(fetched.bytes);
    const page = await readAsPage({ ...fetched, address: own ?? NOWHERE }, doing);
    const gathered = await fromPage({ ...fetched, address: own ?? NOWHERE }, page, doing);
    if (own || !('record' in gathered)) return gathered;
    return withoutAddress(gathered, where.name);
  }
  throw notAPage(fetched.mediaType);
}

/** A record with a title: where the document gives none, its file's name, said to be that. */
function titled(record: SourceRecord, name: string): SourceRecord {
  const title = name
    .replace(/\.\w{2,5}$/, '')
    .replace(/[_-]+/g, ' ')
    .trim();
  if (record.title || !title) return record;
  const seen = {
    kind: 'document' as const,
    value: title,
    at: now(),
    why: 'the name of the file; no title was found in it',
  };
  return {
    ...record,
    title,
    retexa: { ...record.retexa, origins: { ...record.retexa.origins, title: [seen] } },
  };
}

/** Base for addresses of a saved page whose own address is not known; never kept. */
const NOWHERE = 'https://address-not-known.invalid/';

/** The address a browser notes in a page it saves, else the one the page calls its own. */
function savedFrom(bytes: Buffer): string | undefined {
  const head = bytes.subarray(0, 200_000).toString('utf8');
  const found =
    /saved from url=\(\d+\)(https?:\/\/[^\s>]+)/i.exec(head)?.[1] ??
    /<link[^>]+rel=["']?canonical["']?[^>]*href=["'](https?:[^"']+)/i.exec(head)?.[1] ??
    /<meta[^>]+property=["']og:url["'][^>]*content=["'](https?:[^"']+)/i.exec(head)?.[1];
  return found && URL.canParse(found) ? found : undefined;
}

function withoutAddress(gathered: Gathered, name: string): Gathered {
  const { URL: address, accessed: _day, ...rest } = gathered.record;
  const nowhere = (value: unknown) => typeof value === 'string' && value.startsWith(NOWHERE);
  const origins = Object.fromEntries(
    Object.entries(rest.retexa.origins)
      .filter(([field]) => field !== 'accessed')
      .map(([field, seen]) => [
        field,
        seen.filter((s) => !nowhere(s.value)).map(({ address: _at, ...s }) => s),
      ]),
  );
  const record = {
    ...rest,
    retexa: { ...rest.retexa, origins },
    ...(address && !nowhere(address) ? { URL: address } : {}),
  } as SourceRecord;
  return {
    ...gathered,
    record: titled(record, name),
    copies: gathered.copies.map((c) => ({ ...c, address: '' })),
  };
}

/** Captures from an address, whatever is there. */
export async function fromAddress(address: string, doing: Doing): Promise<GatheredOrList> {
  doing.step('Fetching the page');
  const fetched = await fetchDocument(address, doing.signal);
  const name = decodeURIComponentSafely(new URL(fetched.address).pathname.split('/').pop() ?? '');
  return fromBytes(fetched, { address: fetched.address, name }, doing);
}

const decodeURIComponentSafely = (text: string) => {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
};

/** A registry's record, with the page it leads to when that can be read and is of the same work. */
async function fromRegistry(answer: Answer, landing: string | undefined, doing: Doing): Promise<Gathered> {
  const notes: string[] = [];
  const alone = (): Gathered => ({
    record: reconcile(
      answer.candidates.filter((c) => c.field !== 'URL'),
      answer.address,
      now(),
    ),
    copies: [],
    notes,
  });
  if (!landing || !doing.keeping.page) return alone();
  doing.step('Fetching the page');
  const work = (async () => {
    const fetched = await fetchDocument(landing, doing.signal);
    const kind = sniffBytes(fetched.bytes);
    if (kind === 'pdf') {
      const { copy } = await pdfDocument(
        fetched.bytes,
        { address: fetched.address, name: '' },
        doing.signal,
        doing.step,
      );
      return { record: recordOf(answer.candidates, fetched.address, now()), copies: [copy], notes };
    }
    if (kind !== 'html' && !/html/.test(fetched.mediaType)) throw notAPage(fetched.mediaType);
    const page = await readAsPage(fetched, doing);
    const same = page.list.length === 0 && sameWork(page.candidates, answer.candidates);
    const copies = [await pageCopy(fetched, page)];
    if (same && page.pdf) copies.push(...(await pdfBeside(page.pdf, doing, notes)));
    return {
      record: recordOf([...answer.candidates, ...(same ? page.candidates : [])], fetched.address, now()),
      copies,
      notes,
    };
  })();
  return (await tolerant(work, doing, notes, 'No copy of the page was kept')) ?? alone();
}

const unknown = (what: string) =>
  new Refusal(
    404,
    `The registry does not know the ${what}. Check it against the document, or start by hand with it filled in.`,
  );

async function fromDoi(doi: string, doing: Doing): Promise<Gathered> {
  doing.step('Asking the registry');
  const answer = await askByDoi(doi, doing.signal);
  if (!answer) throw unknown(`DOI ${doi}`);
  const { record, ...rest } = await fromRegistry(answer, answer.address, doing);
  return { ...rest, record: { ...record, DOI: record.DOI ?? doi } };
}

async function fromIsbn(isbn: string, doing: Doing): Promise<Gathered> {
  doing.step('Asking the book catalogue');
  const answer = await askByIsbn(isbnKey(isbn) ?? isbn, doing.signal);
  if (!answer)
    throw new Refusal(
      404,
      `The book catalogue has no book with the ISBN ${isbn}. Check it against the book, or start by hand with it filled in.`,
    );
  const { record, ...rest } = await fromRegistry(answer, undefined, doing);
  return { ...rest, record: { ...record, ISBN: findIsbn(record.ISBN ?? '') ?? isbn } };
}

async function fromPmid(pmid: string, doing: Doing): Promise<Gathered> {
  doing.step('Asking the registry');
  const answer = await askByPmid(pmid, doing.signal);
  if (!answer) throw unknown(`PubMed id ${pmid}`);
  const doi = answer.candidates.find((c) => c.field === 'DOI')?.value as string | undefined;
  const { record, ...rest } = await fromRegistry(answer, doi && `${config.doiRegistry}/${doi}`, doing);
  return { ...rest, record: { ...record, PMID: pmid } };
}

async function fromIssn(issn: string, details: string, doing: Doing): Promise<GatheredOrList> {
  if (!details)
    throw new Refusal(
      422,
      `${issn} is the ISSN of a whole periodical. Write volume and page, or words of the title, behind it to find one article.`,
    );
  doing.step('Asking the registry');
  const found = await searchWorks(details, issn, doing.signal);
  if (found.length === 0) throw unknown(`article “${details}” of the periodical ${issn}`);
  const [only] = found;
  if (found.length === 1 && only?.DOI) return fromDoi(only.DOI, doing);
  return {
    address: '',
    title: `ISSN ${issn}, ${details}`,
    works: found.map((record) => ({ record, ...(record.DOI ? { doi: record.DOI } : {}) })),
  };
}

/** Everything that can be found out about what was given. Throws a Refusal with the reason and the next step. */
export async function gather(input: CaptureInput, doing: Doing): Promise<GatheredOrList> {
  if (input.page) {
    const bytes = await readKept(input.page.sha256);
    const fetched = {
      bytes,
      mediaType: 'text/html',
      contentType: 'text/html; charset=utf-8',
      address: input.page.address,
    };
    return fromPage(fetched, await readAsPage(fetched, doing), doing);
  }
  if (input.file) {
    const bytes = await readKept(input.file.sha256);
    return fromBytes({ bytes, mediaType: '', contentType: '' }, { name: input.file.name }, doing);
  }
  const given = recognise(input.text);
  switch (given.kind) {
    case 'doi':
      return fromDoi(given.doi, doing);
    case 'arxiv':
      return fromDoi(given.doi, doing);
    case 'isbn':
      return fromIsbn(given.isbn, doing);
    case 'pmid':
      return fromPmid(given.pmid, doing);
    case 'handle':
      return fromAddress(`${config.handleResolver}/${given.handle}`, doing);
    case 'issn':
      return fromIssn(given.issn, given.details, doing);
    case 'address':
      return fromAddress(given.address, doing);
    default:
      throw new Refusal(422, 'This is no address and no identifier. Start by hand with it as the title.');
  }
}

/** One work of a list: from its registry, else from its page, else as the list names it. */
export async function gatherListed(work: ListedWork, listAddress: string, doing: Doing): Promise<Gathered> {
  const fallback = async (reason: unknown): Promise<Gathered> => {
    if (!(reason instanceof Refusal) || doing.signal.aborted) throw reason;
    const record = work.address
      ? recordOf(fromRecord(work.record, 'html', 'the list'), work.address, now())
      : reconcile(fromRecord(work.record, 'html', 'the list'), listAddress || undefined, now());
    return { record, copies: [], notes: [`Only what the list says was kept: ${reason.message}`] };
  };
  try {
    const listed = fromRecord(work.record, 'html', 'the list');
    if (work.doi) {
      const answer = await askByDoi(work.doi, doing.signal);
      if (answer && sameWork(listed, answer.candidates)) return fromRegistry(answer, answer.address, doing);
    }
    if (work.address) {
      const got = await fromAddress(work.address, doing);
      if ('record' in got) return got;
    }
    throw new Refusal(404, 'its own page lists works too or was not found.');
  } catch (error) {
    return fallback(error);
  }
}

/** Fetches a page again, for a copy that is to be renewed. */
export async function fetchCopy(address: string): Promise<NewCopy> {
  if (!address)
    throw new Refusal(409, 'This copy was handed over as a file; there is no page to look at again.');
  const signal = AbortSignal.timeout(60_000);
  const fetched = await fetchDocument(address, signal);
  const doing: Doing = { signal, step: () => undefined, keeping: { page: true, pdf: true } };
  if (sniffBytes(fetched.bytes) === 'pdf')
    return (await pdfDocument(fetched.bytes, { address: fetched.address, name: '' }, signal, doing.step))
      .copy;
  return pageCopy(fetched, await readAsPage(fetched, doing));
}
