import {
  fromRecord,
  joinRegistry,
  reconcile,
  recordOf,
  sameWork,
  type Candidate,
  type LinkedFile,
} from '../../core/capture';
import { isbnKey, withoutPassword, type SourceRecord } from '../../core/source';
import { fold } from '../../core/text';
import { packedKind } from '../../reading/packed';
import { sniffBytes, soundType, type Sniffed } from '../../reading/sniff';
import { textOfBytes } from '../../reading/text';
import { now } from '../db/ids';
import type { Fetched } from '../http/fetch-outside';
import { fetchPolitely } from '../http/polite';
import { Refusal } from '../access/refusal';
import { read } from '../workers/pools';
import type { Results } from '../../reading/apart';
import type { Written } from '../../reading/written';
import {
  keptDocument,
  pageCopy,
  pdfDocument,
  pictureDocument,
  writtenDocument,
  type Document,
} from './documents';
import { fetchDocument, notAPage, readAsPage, tolerant } from './fetching';
import { askByDoi, askByIsbn, type Answer } from './registries';
import type { Doing, Gathered, GatheredOrList, NewCopy } from './types';

/** Most bytes of a citation file. */
const FILE_BYTES = 2 * 1024 * 1024;

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

/** What a registry answers to an identifier; nothing when it could not be asked, which is told in `notes`. */
async function asked(
  field: 'DOI' | 'ISBN',
  given: string,
  doing: Doing,
  notes: string[],
): Promise<{ answer: Answer | undefined } | undefined> {
  const [name, ask] =
    field === 'DOI'
      ? ['registry', askByDoi(given, doing.signal)]
      : ['book catalogue', askByIsbn(isbnKey(given) ?? given, doing.signal)];
  doing.step(`Asking the ${name}`);
  const work = ask.then((answer) => ({ answer }));
  return tolerant(work, doing, notes, `The ${name} could not be asked`);
}

/** The record in a citation file of the page, if it is of the page's work. */
async function fromLinkedFile(
  file: LinkedFile,
  page: Candidate[],
  signal: AbortSignal,
): Promise<Candidate[]> {
  const fetched = await fetchPolitely(file.href, { accept: '*/*', maxBytes: FILE_BYTES, signal });
  if (fetched.status >= 400) return [];
  const { entries } = await read(
    { task: 'linked', format: file.format, text: textOfBytes(fetched.bytes) },
    signal,
  );
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
    const said = await asked('DOI', doi, doing, notes);
    if (said) {
      const { joined: more, own } = joining(said.answer, candidates, 'DOI', doi, notes);
      joined.push(...more);
      candidates = own;
    }
  }
  const isbn = given('ISBN');
  const book = all.some((c) => c.field === 'type' && c.value === 'book');
  if (isbn && book && joined.length === 0) {
    const said = await asked('ISBN', isbn, doing, notes);
    if (said?.answer) joined.push(...joining(said.answer, candidates, 'ISBN', isbn, notes).joined);
  }
  return [...joined, ...linked, ...candidates];
}

/** The PDF a page gives, kept beside it. */
export async function pdfBeside(address: string, doing: Doing, notes: string[]): Promise<NewCopy[]> {
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
export async function fromPage(
  fetched: Pick<Fetched, 'bytes' | 'mediaType' | 'address'>,
  page: Results['page'],
  doing: Doing,
): Promise<GatheredOrList> {
  if (page.list.length) return { address: fetched.address, title: page.title, works: page.list };
  const notes: string[] = [];
  const candidates = await joinedTo(page, doing, notes);
  const copies = doing.keeping.page ? [await pageCopy(fetched, page, doing)] : [];
  if (page.pdf) copies.push(...(await pdfBeside(page.pdf, doing, notes)));
  return { record: recordOf(candidates, fetched.address, now()), copies, notes };
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
  const [field, given] = doi ? (['DOI', doi] as const) : (['ISBN', isbn] as const);
  const said = given ? await asked(field, given, doing, notes) : undefined;
  if (said) fits(said.answer, `${field} ${given}`, field);
  return address
    ? recordOf([...joined, ...own], address, now())
    : reconcile([...joined.filter((c) => c.field !== 'URL'), ...own], undefined, now());
}

/** How a document in running text is written; nothing for one that is none. Plain text off the web is a page like others. */
function writtenKind(
  { bytes, mediaType }: { bytes: Buffer; mediaType: string },
  name: string,
  kind: Sniffed,
): Written | undefined {
  if (kind === 'zip') return packedKind(bytes);
  if (kind !== 'text') return undefined;
  if (/\.(?:md|markdown|mdown|qmd|rmd)$/i.test(name) || mediaType === 'text/markdown') return 'markdown';
  return name || mediaType === 'text/plain' ? 'text' : undefined;
}

/** The document in bytes, when they are one that is no page of the web; `kept` takes what cannot be shown too. */
async function documentIn(
  fetched: { bytes: Buffer; mediaType: string },
  where: { address?: string; name: string; kept?: boolean },
  kind: Sniffed,
  { signal, step }: Doing,
): Promise<Document | undefined> {
  const { bytes } = fetched;
  const given = { address: where.address ?? '', name: where.name };
  if (kind === 'pdf') return pdfDocument(bytes, given, signal, step);
  if (kind === 'image/tiff' && !where.kept)
    throw new Refusal(415, 'Pictures in TIFF cannot be opened. Save it as PNG or JPEG and drop that.');
  if (kind.startsWith('image/') && kind !== 'image/tiff')
    return pictureDocument(bytes, { ...given, mediaType: kind }, signal, step);
  const written = writtenKind(fetched, where.name, kind);
  if (written) return writtenDocument(bytes, written, given, signal, step);
  if (kind === 'audio') return keptDocument(bytes, { ...given, sound: true, mediaType: soundType(bytes) });
  return where.kept && kind !== 'html'
    ? keptDocument(bytes, { ...given, sound: false, mediaType: 'application/octet-stream' })
    : undefined;
}

/** Captures from what was fetched or handed over, by what its bytes are; `kept` keeps what cannot be shown too. */
export async function fromBytes(
  fetched: { bytes: Buffer; mediaType: string; contentType: string; linkHeader?: string },
  where: { address?: string; name: string; kept?: boolean },
  doing: Doing,
): Promise<GatheredOrList> {
  const kind = sniffBytes(fetched.bytes);
  const document = await documentIn(fetched, where, kind, doing);
  if (document) {
    const { copy, candidates, text } = document;
    const notes = copy.note ? [copy.note] : [];
    const record = await documentRecord(candidates, text, where.address, doing, notes);
    return { record: titled(record, where.name), copies: [copy], notes };
  }
  const html = /^(?:text\/html|application\/xhtml\+xml)$/.test(fetched.mediaType);
  if (kind === 'html' || (html && kind === 'text')) {
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
    /<link[^<>]+rel=["']?canonical["']?[^<>]*href=["'](https?:[^"'<>]+)/i.exec(head)?.[1] ??
    /<meta[^<>]+property=["']og:url["'][^<>]*content=["'](https?:[^"'<>]+)/i.exec(head)?.[1];
  return found && URL.canParse(found) ? withoutPassword(found) : undefined;
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
