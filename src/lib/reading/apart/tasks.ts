import { readFile } from 'node:fs/promises';
import { catalogueCandidates, diagnosticOf } from '../../core/catalogues';
import type { Candidate } from '../../core/capture';
import type { Box, Shape } from '../../core/figures';
import {
  fromLeaves,
  printedLabels,
  readingHtml,
  type Leaf,
  type Recognised as Language,
} from '../../core/documents';
import type { ReadableName, ReadResult } from '../../core/formats';
import { citedKeys } from '../../core/citing';
import { parseReference, referenceListIn, splitReferences, type ReferenceList } from '../../core/leads';
import { textOf } from '../../core/passages';
import type { SourceRecord } from '../../core/source';
import { Unreadable } from '../failure';
import type { Cut } from '../cut';
import type { PageGiven, ReadPage } from '../page';
import type { PdfText } from '../pdf';
import type { ContentsEntry, LeafLink, PdfMark } from '../pdf-inside';
import type { MarkToWrite } from '../pdf-write';
import type { ReadingCopy } from '../reading-copy';
import { readReferences } from '../references';
import type { Recognised } from '../scan';
import type { ReadWritten, Written } from '../written';
import { parseXml } from '../xml';

// The readers of pages, PDFs and pictures are loaded by the process that needs them: each takes tens of megabytes.

export interface ReadPageTask extends PageGiven {
  task: 'page';
}
export interface ReadFileTask {
  task: 'file';
  format: ReadableName;
  text: string;
}
/** A citation file a page leads to: a few entries. */
export interface ReadLinkedTask extends Omit<ReadFileTask, 'task'> {
  task: 'linked';
}
/** Pasted references, to be told apart where they are one text, and read as far as they go. */
export interface LeadsTask {
  task: 'leads';
  text: string | readonly string[];
}
/** The text of a document, for the list of references at its end. */
export interface ListedTask {
  task: 'listed';
  text: string;
}
/** The list of references a document has, each read as far as it goes; no heading where there is none. */
export interface Listed {
  heading?: string;
  references: (ReferenceList['references'][number] & { record: SourceRecord })[];
}
/** A text, for the citekeys in it. */
export interface CitedTask {
  task: 'cited';
  text: string;
}
export interface ReadPdfTask {
  task: 'pdf';
  bytes: Uint8Array;
}
/** A picture to recognise, or a leaf (its index) that is a picture, of the PDF at a path. */
export type ReadScanTask = { task: 'scan'; languages?: readonly Language[] } & (
  { bytes: Uint8Array } | { path: string; leaf: number }
);
export interface SetLeavesTask {
  task: 'set';
  leaves: Leaf[];
  labels: string[] | null;
  data: { info: Record<string, string>; xmp: Record<string, string | string[]> };
}
/** A leaf (counted from 1) of the PDF at a path. */
export interface DrawTask {
  task: 'draw';
  path: string;
  leaf: number;
  width: number;
}
/** The contents, the marks, or the links of a leaf (counted from 1), of the PDF at a path. */
export type InsideTask =
  | { task: 'contents'; path: string }
  | { task: 'marks'; path: string }
  | { task: 'links'; path: string; leaf: number };
/** The PDF at a path with passages marked in it; `html` is the reading page made of it. */
export interface MarkTask {
  task: 'mark';
  path: string;
  html: string;
  marks: MarkToWrite[];
}
/**
 * A box to cut out of a leaf (counted from 1) of the PDF at a path, or of the picture there; or a picture to put together with
 * what is drawn over it.
 */
export type CutTask =
  | { task: 'cut'; path: string; leaf?: number; box: Box }
  | { task: 'drawn'; path: string; drawing: readonly Shape[] };
/** A document in running text. */
export interface WrittenTask {
  task: 'written';
  bytes: Uint8Array;
  as: Written;
}
/** A copy to be read on paper, made of a page, or of the PDF at a path. */
export interface ReadingCopyTask {
  task: 'reading copy';
  path?: string;
  copy: ReadingCopy;
}
export interface CatalogueTask {
  task: 'catalogue';
  xml: string;
}

/** A document with pages as it is kept: its reading page, its text, the printed labels, and what it says of itself. */
export interface SetLeaves {
  html: string;
  text: string;
  labels: (string | null)[];
  candidates: Candidate[];
}

/** What each task gives; `unreadable` carries words for the person. */
export type Unread = { unreadable: string };
export type Results = {
  page: ReadPage;
  file: ReadResult;
  linked: ReadResult;
  leads: { text: string; record: SourceRecord }[];
  listed: Listed;
  cited: string[];
  pdf: PdfText;
  scan: Recognised;
  set: SetLeaves;
  draw: Uint8Array;
  contents: ContentsEntry[];
  marks: PdfMark[];
  links: LeafLink[];
  mark: Uint8Array;
  cut: Cut;
  written: ReadWritten;
  'reading copy': Uint8Array;
  drawn: Cut;
  catalogue: { candidates: Candidate[]; diagnostic?: string };
};
export type ReadTask =
  | ReadPageTask
  | ReadFileTask
  | ReadLinkedTask
  | LeadsTask
  | ListedTask
  | CitedTask
  | ReadPdfTask
  | ReadScanTask
  | SetLeavesTask
  | DrawTask
  | InsideTask
  | MarkTask
  | CutTask
  | WrittenTask
  | ReadingCopyTask
  | CatalogueTask;

async function setLeaves({ leaves, labels: given, data }: SetLeavesTask): Promise<SetLeaves> {
  const { JSDOM } = await import('jsdom');
  const labels = printedLabels(leaves, given);
  const html = readingHtml(leaves, labels);
  const dom = new JSDOM(`<body>${html}</body>`);
  const { text } = textOf(dom.window.document.body);
  dom.window.close();
  return { html, text, labels: labels.map((l) => l ?? null), candidates: fromLeaves(leaves, labels, data) };
}

function readCatalogue(xml: string): Results['catalogue'] {
  const doc = parseXml(xml);
  const diagnostic = diagnosticOf(doc);
  return { candidates: catalogueCandidates(doc), ...(diagnostic ? { diagnostic } : {}) };
}

const draw = async (path: string, leaf: number, width: number) =>
  (await import('../pdf')).drawLeaf(path, leaf, width);

/** One reference, read as far as it goes. */
const read = (text: string) => ({ text, record: parseReference(text).record });

/** Carries a task out: reads a document. Nothing here touches the network or a database. */
export async function carryOut(task: ReadTask): Promise<Results[keyof Results] | Unread> {
  try {
    switch (task.task) {
      case 'page':
        return (await import('../page')).readPage(task);
      case 'file':
      case 'linked':
        return readReferences(task.format, task.text);
      case 'leads':
        return (typeof task.text === 'string' ? splitReferences(task.text) : task.text).map(read);
      case 'listed': {
        const list = referenceListIn(task.text);
        return {
          ...(list ? { heading: list.heading } : {}),
          references: (list?.references ?? []).map(({ likely, text }) => ({ ...read(text), likely })),
        };
      }
      case 'cited':
        return citedKeys(task.text);
      case 'pdf':
        return await (await import('../pdf')).readPdfText(task.bytes);
      case 'scan':
        return await (
          await import('../scan')
        ).recognise(
          'bytes' in task ? task.bytes : await draw(task.path, task.leaf + 1, 2_200),
          task.languages,
        );
      case 'set':
        return await setLeaves(task);
      case 'draw':
        return new Uint8Array(await draw(task.path, task.leaf, task.width));
      case 'contents':
        return await (await import('../pdf-inside')).readContents(task.path);
      case 'marks':
        return await (await import('../pdf-inside')).readMarks(task.path);
      case 'links':
        return await (await import('../pdf-inside')).readLinks(task.path, task.leaf);
      case 'mark':
        return await (
          await import('../pdf-write')
        ).writeMarks(await readFile(task.path), task.html, task.marks);
      case 'cut': {
        const { cutLeaf, cutPicture } = await import('../cut');
        return task.leaf === undefined
          ? await cutPicture(await readFile(task.path), task.box)
          : await cutLeaf(task.path, task.leaf, task.box);
      }
      case 'reading copy': {
        const { pageCopy, pdfCopy } = await import('../reading-copy');
        return task.path ? await pdfCopy(await readFile(task.path), task.copy) : await pageCopy(task.copy);
      }
      case 'written':
        return await (await import('../written')).readWritten(task.bytes, task.as);
      case 'drawn':
        return await (await import('../cut')).withDrawing(await readFile(task.path), task.drawing);
      case 'catalogue':
        return readCatalogue(task.xml);
    }
  } catch (error) {
    if (error instanceof Unreadable) return { unreadable: error.message };
    throw error;
  }
}
