import { biblatex, bibtex, looksLikeBiblatex } from './bibtex';
import { readCoins } from './coins';
import { cslJson } from './csl-json';
import { readMedline } from './medline';
import { ris } from './ris';
import type {
  Format,
  FormatName,
  ReadableName,
  ReadResult,
  TextFormatName,
  WriteItem,
  WriteResult,
} from './types';
import { unsaid } from './unsaid';

export {
  FORMAT_NAMES,
  READABLE_NAMES,
  type Format,
  type FormatName,
  type Loss,
  type ReadableName,
  type ReadEntry,
  type ReadResult,
  type Skipped,
  type TextFormatName,
  type WriteItem,
  type WriteResult,
} from './types';
export { asFromFile, FILE_TIME } from './finish';
export { texToText } from './bibtex/tex';

/** The formats that are read and written, by name. */
export const FORMATS: Record<FormatName, Format> = { bibtex, biblatex, ris, 'csl-json': cslJson };

/** What each format that can be read is called, and its usual extension. */
export const READABLE: Record<ReadableName, { label: string; extension: string }> = {
  ...FORMATS,
  medline: { label: 'MEDLINE', extension: 'nbib' },
  mods: { label: 'MODS', extension: 'xml' },
  marcxml: { label: 'MARCXML', extension: 'xml' },
  coins: { label: 'COinS', extension: 'txt' },
};

/** Reads a file's text. Never throws on bad input. MODS and MARCXML are read through `catalogues`, by whoever has an XML parser. */
export function readFormat(name: TextFormatName, text: string): ReadResult {
  if (name === 'medline') return readMedline(text);
  if (name === 'coins') return readCoins(text);
  return FORMATS[name].read(text);
}

/** Writes records and says what the format cannot hold: what its table says, and whatever reading it back shows besides. */
export function writeFormat(name: FormatName, items: WriteItem[]): WriteResult {
  const { text, losses } = FORMATS[name].write(items);
  // CSL-JSON holds a record as it is.
  if (name === 'csl-json') return { text, losses };
  return { text, losses: [...losses, ...unsaid(FORMATS[name], text, items, losses)] };
}

/** Tells the format of a text by what it looks like, or by its file name when it could be several. */
export function sniff(text: string, fileName = ''): ReadableName | undefined {
  const start = text.slice(0, 20_000).replace(/^\uFEFF/, '');
  if (/^\s*[[{]/.test(start) && !/^\s*\{\\rtf/.test(start)) return 'csl-json';
  if (/^[ \t]*TY {1,2}- /m.test(start)) return 'ris';
  if (/^PMID ?- ?\d/m.test(start)) return 'medline';
  if (/^[ \t]*@[ \t]*[a-z]+\s{0,20}[{(]/im.test(start))
    return looksLikeBiblatex(text) ? 'biblatex' : 'bibtex';
  if (/<(?:\w+:)?mods[\s>]/.test(start)) return 'mods';
  if (/<(?:\w+:)?(?:leader|datafield)[\s>]/.test(start)) return 'marcxml';
  if (/ctx_ver=Z39\.88-2004/.test(start)) return 'coins';
  const extension = /\.(\w+)$/.exec(fileName)?.[1]?.toLowerCase();
  const [named] =
    Object.entries(READABLE).find(([, f]) => f.extension === extension && !/^(?:xml|txt)$/.test(extension)) ??
    [];
  return named as ReadableName | undefined;
}
