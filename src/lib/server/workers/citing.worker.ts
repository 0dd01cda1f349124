import {
  asksFor,
  titleAsItStands,
  createPrinter,
  listTerms,
  printTraced,
  type CiteItem,
  type ListTerms,
  type PrintedCitation,
  type PrintedList,
  type PrintedReference,
  type Printer,
  type Run,
  type TextCitation,
  type ToldList,
  type TracedPrint,
} from '../../core/citing';
import { UnreadableManuscript } from '../../core/manuscripts';
import { writeFormat, type FormatName, type WriteItem, type WriteResult } from '../../core/formats';
import type { CslItem, CslType, Variable } from '../../core/source';
import {
  manuscriptKeys,
  printManuscript,
  templated,
  type ManuscriptKind,
  type ManuscriptOut,
} from '../../reading/manuscripts';
import { localeTree, readStyle, styleLines, styleTree, type ReadStyle } from '../../reading/styles';

/** What to print, in which style and language; files are asset files of the catalogue. */
export interface PrintTask {
  style: string;
  styleFile: string;
  locale: string;
  localeFile: string;
  items: CslItem[];
  what: 'list' | 'each' | 'citation' | 'citations' | 'text' | 'traced' | 'told';
  /** For `list` and `told`: which list it is. Printed again, it keeps what was printed of records that did not change. */
  list?: string;
  cited?: CiteItem[];
  /** For `citations`: the works of each, printed one by itself after the other. */
  clusters?: CiteItem[][];
  /** For `text`: the citations of a text in order. */
  text?: TextCitation[];
  named?: boolean;
}

/** The citations of a text as they stand in it, and its list. */
export interface TextPrinted {
  citations: PrintedCitation[];
  list: PrintedList;
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

/** A manuscript: which citekeys it cites, or the manuscript as it prints with the works it cites. */
export interface KeysTask {
  what: 'keys';
  kind: ManuscriptKind;
  bytes: Uint8Array;
}
export interface ManuscriptTask extends Omit<PrintTask, 'what' | 'items'> {
  what: 'manuscript';
  kind: ManuscriptKind;
  bytes: Uint8Array;
  /** Works by their citekeys. */
  works: [key: string, work: CslItem][];
  notes: boolean;
}

/** A .docx document to be set in the styles of another. */
export interface TemplateTask {
  what: 'template';
  bytes: Uint8Array;
  template: Uint8Array;
}

/** Given for a manuscript that cannot be read: words for the person. */
export interface UnreadableFile {
  unreadable: string;
}

/** Printers lately used, newest last, with how many records each keeps what it printed of. */
const printers = new Map<string, { printer: Printer; records: number }>();
const KEPT = 8;
/** How many records printers keep what they printed of, ten kilobytes each, all together. */
const RECORDS_KEPT = 12_000;

function printerFor({
  style,
  styleFile,
  locale,
  localeFile,
  list,
  items,
}: Pick<PrintTask, 'style' | 'styleFile' | 'locale' | 'localeFile' | 'list'> & {
  items?: CslItem[];
}): Printer {
  const key = `${style} ${styleFile} ${locale} ${list ?? ''}`;
  const kept = printers.get(key);
  const printer = kept?.printer ?? createPrinter(styleTree(style, styleFile), localeTree(localeFile), locale);
  printers.delete(key);
  const records = list === undefined ? 0 : items!.length;
  if (records <= RECORDS_KEPT) printers.set(key, { printer, records });
  let all = [...printers.values()].reduce((n, one) => n + one.records, 0);
  for (const [old, { records: less }] of printers) {
    if (old === key || (printers.size <= KEPT && all <= RECORDS_KEPT)) break;
    printers.delete(old);
    all -= less;
  }
  return printer;
}

type Task =
  TemplateTask | KeysTask | ManuscriptTask | PrintTask | AsksTask | TermsTask | StyleTask | WriteTask;
type Done =
  | UnreadableFile
  | Uint8Array
  | ManuscriptOut
  | string[]
  | TextPrinted
  | TracedPrint
  | ToldList
  | PrintedList
  | PrintedReference[]
  | Run[]
  | Run[][]
  | Asked
  | ListTerms
  | WriteResult;

/** What is wrong with a manuscript that cannot be read: of an error only its words cross from one thread to another. */
function readable<T>(work: () => T): T | UnreadableFile {
  try {
    return work();
  } catch (error) {
    if (error instanceof UnreadableManuscript) return { unreadable: error.message };
    throw error;
  }
}

/** The worker's one function. */
export default function print(task: Task): Done | Promise<ReadStyle> {
  if (task.what === 'style') return readStyle(task.xml, task.localeFile);
  if (task.what === 'write') return writeFormat(task.format, task.records);
  if (task.what === 'terms') return listTerms(localeTree(task.localeFile));
  if (task.what === 'asks') {
    const tree = styleTree(task.style, task.styleFile);
    return { prints: asksFor(tree, task.type), titleAsItStands: titleAsItStands(tree, task.type) };
  }
  if (task.what === 'template') return readable(() => templated(task.bytes, task.template));
  if (task.what === 'keys') return readable(() => manuscriptKeys(task.kind, task.bytes));
  if (task.what === 'traced') {
    const { style, styleFile, localeFile, locale, items } = task;
    return printTraced(
      styleTree(style, styleFile),
      localeTree(localeFile),
      locale,
      items,
      styleLines(styleFile),
    );
  }
  const printer = printerFor(task);
  if (task.what === 'manuscript')
    return readable(() =>
      printManuscript(task.kind, task.bytes, printer.text(), new Map(task.works), { notes: task.notes }),
    );
  if (task.what === 'list') return printer.list(task.items);
  if (task.what === 'told') return printer.told(task.items);
  if (task.what === 'each') return printer.each(task.items);
  if (task.what === 'citations') return printer.citations(task.items, task.clusters ?? []);
  if (task.what === 'text') {
    const { citations, list } = printer.text().set(task.items, task.text ?? []);
    return { citations, list };
  }
  return printer.citation(task.items, task.cited ?? [], task.named);
}
