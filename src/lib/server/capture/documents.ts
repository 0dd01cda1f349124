import type { Candidate } from '../../core/capture';
import { languagesInWords, type Leaf, type Recognised as Language } from '../../core/documents';
import { config } from '../config';
import { now } from '../db/ids';
import { keepFile, placeOf } from '../files/store';
import type { Fetched } from '../http/fetch-outside';
import { read } from '../workers/pools';
import type { Results } from '../../reading/apart';
import type { KeptPicture } from '../copies/pictures';
import type { Written } from '../../reading/written';
import { keepPicture } from '../copies/pictures';
import { fetchPictures, withPictures } from './pictures';
import type { Doing, NewCopy, Step } from './types';

/** Most scanned leaves of one document whose text is recognised at capture; it takes a second or two a leaf. */
const MOST_RECOGNISED = 40;

/** The row of a copy from a page fetched and read, its files in the store. */
export async function pageCopy(
  fetched: Pick<Fetched, 'bytes' | 'mediaType' | 'address'>,
  page: Results['page'],
  doing: Doing,
): Promise<NewCopy> {
  const { html, pictures } = await fetchPictures(page.html, page.pictures, doing);
  return {
    kind: 'page',
    media_type: fetched.mediaType || 'text/html',
    sha256: await keepFile(fetched.bytes),
    size: fetched.bytes.length,
    reading_sha256: await keepFile(Buffer.from(html, 'utf8')),
    title: page.title,
    address: fetched.address,
    captured: now(),
    text: page.text,
    labels: null,
    note: null,
    ...(pictures.length ? { pictures } : {}),
  };
}

/** What each kind of document in running text is as a file. */
const MEDIA_TYPES: Record<Written, string> = {
  epub: 'application/epub+zip',
  docx: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  markdown: 'text/markdown',
  text: 'text/plain',
};

/** Reads a document in running text and puts it into the store, with the pictures in it. */
export async function writtenDocument(
  bytes: Buffer,
  as: Written,
  given: { address: string; name: string },
  signal: AbortSignal,
  step: Step,
): Promise<Document> {
  step('Reading the document');
  const made = await read({ task: 'written', bytes, as }, signal);
  const pictures = new Map<number, KeptPicture>();
  for (const [n, picture] of made.pictures.entries()) {
    const kept = await keepPicture(picture, '');
    if (kept) pictures.set(n, kept);
  }
  const html = withPictures(made.html, pictures);
  const copy: NewCopy = {
    kind: 'page',
    media_type: MEDIA_TYPES[as],
    sha256: await keepFile(bytes),
    size: bytes.length,
    reading_sha256: await keepFile(Buffer.from(html, 'utf8')),
    title: made.title || given.name || given.address,
    address: given.address,
    captured: now(),
    text: made.text,
    labels: null,
    note: made.text.trim() ? null : 'There is no text in this document.',
    ...(pictures.size ? { pictures: [...pictures.values()] } : {}),
  };
  return { copy, candidates: made.candidates, text: made.text };
}

/** Puts a file into the store that is heard, or cannot be shown: it is kept as it is and can be had again. */
export async function keptDocument(
  bytes: Buffer,
  given: { address: string; name: string; sound: boolean; mediaType: string },
): Promise<Document> {
  const copy: NewCopy = {
    kind: given.sound ? 'audio' : 'page',
    media_type: given.mediaType,
    sha256: await keepFile(bytes),
    size: bytes.length,
    reading_sha256: await keepFile(Buffer.from('', 'utf8')),
    title: given.name || given.address,
    address: given.address,
    captured: now(),
    text: '',
    labels: null,
    note: given.sound ? null : 'This kind of file is not shown here. It is kept as it is and can be saved.',
  };
  return { copy, candidates: [], text: '' };
}

/** A document as it is captured: its copy, its files in the store, and what it says of itself. */
export interface Document {
  copy: NewCopy;
  candidates: Candidate[];
  text: string;
}

async function set(
  bytes: Buffer,
  given: { kind: 'pdf' | 'image'; mediaType: string; address: string; title: string; note: string | null },
  leaves: Leaf[],
  labels: string[] | null,
  data: { info: Record<string, string>; xmp: Record<string, string | string[]> },
  signal: AbortSignal,
): Promise<Document> {
  const made = await read({ task: 'set', leaves, labels, data }, signal);
  const copy: NewCopy = {
    kind: given.kind,
    media_type: given.mediaType,
    sha256: await keepFile(bytes),
    size: bytes.length,
    reading_sha256: await keepFile(Buffer.from(made.html, 'utf8')),
    title: given.title,
    address: given.address,
    captured: now(),
    text: made.text,
    labels: made.labels,
    note: given.note,
  };
  return { copy, candidates: made.candidates, text: made.text };
}

/** How scanned pages are read: in which languages, and at most how many. */
export interface Recognising {
  languages: readonly Language[];
  most: number;
}
const atCapture = (): Recognising => ({ languages: config.recognised, most: MOST_RECOGNISED });

const recognised = (surenesses: number[], left: number, { languages }: Recognising) => {
  if (surenesses.length === 0) return null;
  const mean = Math.round(surenesses.reduce((a, b) => a + b, 0) / surenesses.length);
  const first = `Text recognised from the picture in ${languagesInWords(languages)}, sure to ${mean} of 100; compare quotations with the page.`;
  return left > 0
    ? `${first} The last ${left} scanned pages were left as pictures; “Recognise the text” reads them too.`
    : first;
};

/** Reads a PDF and puts it into the store; scanned leaves are recognised, with progress. */
export async function pdfDocument(
  bytes: Buffer,
  given: { address: string; name: string },
  signal: AbortSignal,
  step: Step,
  how = atCapture(),
): Promise<Document> {
  step('Reading the PDF');
  const pdf = await read({ task: 'pdf', bytes }, signal);
  const leaves = [...pdf.leaves];
  const surenesses: number[] = [];
  const todo = pdf.scanned.slice(0, how.most);
  const path = todo.length ? placeOf(await keepFile(bytes)) : '';
  for (const [i, leaf] of todo.entries()) {
    step(`Recognising text, page ${i + 1} of ${todo.length}`, i + 1, todo.length);
    const { leaf: found, sureness } = await read(
      { task: 'scan', path, leaf, languages: how.languages },
      signal,
    );
    const scale = leaves[leaf]!.width / found.width;
    leaves[leaf] = {
      width: leaves[leaf]!.width,
      height: leaves[leaf]!.height,
      runs: found.runs.map((r) => ({
        text: r.text,
        x: r.x * scale,
        y: r.y * scale,
        width: r.width * scale,
        size: r.size * scale,
      })),
    };
    if (found.runs.length) surenesses.push(sureness);
  }
  const note = recognised(surenesses, pdf.scanned.length - todo.length, how);
  const title = given.name || given.address;
  return set(
    bytes,
    { kind: 'pdf', mediaType: 'application/pdf', address: given.address, title, note },
    leaves,
    pdf.labels,
    pdf.data,
    signal,
  );
}

/** Recognises the text in a picture of a page and puts it into the store. */
export async function pictureDocument(
  bytes: Buffer,
  given: { address: string; name: string; mediaType: string },
  signal: AbortSignal,
  step: Step,
  how = atCapture(),
): Promise<Document> {
  step('Recognising text');
  const { leaf, sureness } = await read({ task: 'scan', bytes, languages: how.languages }, signal);
  const note = leaf.runs.length ? recognised([sureness], 0, how) : 'No text was recognised in the picture.';
  return set(
    bytes,
    {
      kind: 'image',
      mediaType: given.mediaType,
      address: given.address,
      title: given.name || given.address,
      note,
    },
    [leaf],
    null,
    { info: {}, xmp: {} },
    signal,
  );
}
