import { catalogueCandidates, diagnosticOf } from '../../core/catalogues';
import type { Candidate } from '../../core/capture';
import { fromLeaves, printedLabels, readingHtml, type Leaf } from '../../core/documents';
import type { ReadableName, ReadResult } from '../../core/formats';
import { textOf } from '../../core/passages';
import { Unreadable } from '../../reading/failure';
import { readPage, type PageGiven, type ReadPage } from '../../reading/page';
import { drawLeaf, readPdfText } from '../../reading/pdf';
import { readReferences } from '../../reading/references';
import { recognise } from '../../reading/scan';
import { parseXml } from '../../reading/xml';
import { JSDOM } from 'jsdom';

export interface ReadPageTask extends PageGiven {
  task: 'page';
}
export interface ReadFileTask {
  task: 'file';
  format: ReadableName;
  text: string;
}
export interface ReadPdfTask {
  task: 'pdf';
  bytes: Uint8Array;
}
/** A picture to recognise, or some leaves of a PDF (indexes) that are pictures. */
export interface ReadScanTask {
  task: 'scan';
  bytes: Uint8Array;
  leaf?: number;
}
export interface SetLeavesTask {
  task: 'set';
  leaves: Leaf[];
  labels: string[] | null;
  data: { info: Record<string, string>; xmp: Record<string, string | string[]> };
}
export interface DrawTask {
  task: 'draw';
  bytes: Uint8Array;
  leaf: number;
  width: number;
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

/** What a worker gives for each task; `unreadable` carries words for the person. */
export type Unread = { unreadable: string };
export type Results = {
  page: ReadPage;
  file: ReadResult;
  pdf: Awaited<ReturnType<typeof readPdfText>>;
  scan: Awaited<ReturnType<typeof recognise>>;
  set: SetLeaves;
  draw: Uint8Array;
  catalogue: { candidates: Candidate[]; diagnostic?: string };
};
export type ReadTask =
  ReadPageTask | ReadFileTask | ReadPdfTask | ReadScanTask | SetLeavesTask | DrawTask | CatalogueTask;

function setLeaves({ leaves, labels: given, data }: SetLeavesTask): SetLeaves {
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

/** The worker's one function: reads a document. Nothing here touches the network or a database. */
export default async function read(task: ReadTask): Promise<Results[keyof Results] | Unread> {
  try {
    switch (task.task) {
      case 'page':
        return readPage(task);
      case 'file':
        return readReferences(task.format, task.text);
      case 'pdf':
        return await readPdfText(task.bytes);
      case 'scan':
        return await recognise(
          task.leaf === undefined ? task.bytes : await drawLeaf(task.bytes, task.leaf + 1, 2_200),
        );
      case 'set':
        return setLeaves(task);
      case 'draw':
        return new Uint8Array(await drawLeaf(task.bytes, task.leaf, task.width));
      case 'catalogue':
        return readCatalogue(task.xml);
    }
  } catch (error) {
    if (error instanceof Unreadable) return { unreadable: error.message };
    throw error;
  }
}
