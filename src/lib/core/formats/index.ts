import { bibtex } from './bibtex';
import { cslJson } from './csl-json';
import { ris } from './ris';
import type { Format, FormatName, ReadResult, WriteItem, WriteResult } from './types';

export {
  FORMAT_NAMES,
  type Format,
  type FormatName,
  type Loss,
  type ReadEntry,
  type ReadResult,
  type Skipped,
  type WriteItem,
  type WriteResult,
} from './types';
export { FILE_TIME } from './finish';

/** The formats by name. */
export const FORMATS: Record<FormatName, Format> = { bibtex, ris, 'csl-json': cslJson };

/** Reads a file's text. Never throws on bad input. */
export function readFormat(name: FormatName, text: string): ReadResult {
  return FORMATS[name].read(text);
}

/** Writes records and says what the format cannot hold. */
export function writeFormat(name: FormatName, items: WriteItem[]): WriteResult {
  return FORMATS[name].write(items);
}

/** Tells the format of a text by what it looks like, or by its file name when it could be several. */
export function sniff(text: string, fileName = ''): FormatName | undefined {
  const start = text.slice(0, 20_000).replace(/^\uFEFF/, '');
  if (/^\s*[[{]/.test(start) && !/^\s*\{\\rtf/.test(start)) return 'csl-json';
  if (/^\s*TY {1,2}- /m.test(start)) return 'ris';
  if (/^\s*@\s*[a-z]+\s*[{(]/im.test(start)) return 'bibtex';
  const extension = /\.(\w+)$/.exec(fileName)?.[1]?.toLowerCase();
  return Object.values(FORMATS).find((f) => f.extension === extension)?.name;
}
