import {
  asksFor,
  titleAsItStands,
  createPrinter,
  listTerms,
  type CiteItem,
  type ListTerms,
  type PrintedList,
  type PrintedReference,
  type Printer,
  type Run,
} from '../../core/citing';
import { writeFormat, type FormatName, type WriteItem, type WriteResult } from '../../core/formats';
import type { CslItem, CslType, Variable } from '../../core/source';
import { localeTree, readStyle, styleTree, type ReadStyle } from '../../reading/styles';

/** What to print, in which style and language; files are asset files of the catalogue. */
export interface PrintTask {
  style: string;
  styleFile: string;
  locale: string;
  localeFile: string;
  items: CslItem[];
  what: 'list' | 'each' | 'citation' | 'citations';
  cited?: CiteItem[];
  /** For `citations`: the works of each, printed one by itself after the other. */
  clusters?: CiteItem[][];
  named?: boolean;
}

/** What a style makes of a type: the variables it can print, and whether titles print as they stand in the record. */
export interface Asked {
  prints: Variable[];
  titleAsItStands: boolean;
}

/** What a style makes of a type. */
export interface AsksTask {
  what: 'asks';
  style: string;
  styleFile: string;
  type: CslType;
}

/** The terms of a language. */
export interface TermsTask {
  what: 'terms';
  localeFile: string;
}

/** A style a person brings, to read and to hold against the schema. */
export interface StyleTask {
  what: 'style';
  xml: string;
  localeFile: string;
}

/** Records to write in a file format. */
export interface WriteTask {
  what: 'write';
  format: FormatName;
  records: WriteItem[];
}

/** Printers lately used, newest last: making one costs a tenth of a second, keeping one a few megabytes. */
const printers = new Map<string, Printer>();
const KEPT = 8;

function printerFor({ style, styleFile, locale, localeFile }: PrintTask): Printer {
  const key = `${style} ${styleFile} ${locale}`;
  const kept = printers.get(key);
  if (kept) printers.delete(key);
  const printer = kept ?? createPrinter(styleTree(style, styleFile), localeTree(localeFile), locale);
  printers.set(key, printer);
  const oldest = printers.keys().next().value;
  if (printers.size > KEPT && oldest !== undefined) printers.delete(oldest);
  return printer;
}

type Task = PrintTask | AsksTask | TermsTask | StyleTask | WriteTask;
type Done = PrintedList | PrintedReference[] | Run[] | Run[][] | Asked | ListTerms | WriteResult;

/** The worker's one function. */
export default function print(task: Task): Done | Promise<ReadStyle> {
  if (task.what === 'style') return readStyle(task.xml, task.localeFile);
  if (task.what === 'write') return writeFormat(task.format, task.records);
  if (task.what === 'terms') return listTerms(localeTree(task.localeFile));
  if (task.what === 'asks') {
    const tree = styleTree(task.style, task.styleFile);
    return { prints: asksFor(tree, task.type), titleAsItStands: titleAsItStands(tree, task.type) };
  }
  const printer = printerFor(task);
  if (task.what === 'list') return printer.list(task.items);
  if (task.what === 'each') return printer.each(task.items);
  if (task.what === 'citations') return printer.citations(task.items, task.clusters ?? []);
  return printer.citation(task.items, task.cited ?? [], task.named);
}
