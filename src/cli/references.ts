import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import {
  createPrinter,
  htmlDocument,
  latexDocument,
  listToText,
  markdownDocument,
  rtfDocument,
  styleFacts,
  styleLanguage,
  type PrintedList,
  type Printer,
} from '../lib/core/citing';
import {
  FORMAT_NAMES,
  FORMATS,
  sniff,
  writeFormat,
  READABLE_NAMES,
  type ReadableName,
  type WriteItem,
} from '../lib/core/formats';
import { itemOf, makeCitekey } from '../lib/core/source';
import { fold, squash } from '../lib/core/text';
import { readReferences } from '../lib/reading/references';
import { localeTree, styleTree } from '../lib/reading/styles';
import { textOfBytes } from '../lib/reading/text';
import { bytesOf } from './files';
import { Unusable } from './unusable';

/** What a command gives: data for standard output, words for standard error, and whether anything was skipped or lost. */
export interface Outcome {
  data: string | Uint8Array;
  words: string[];
  partial: boolean;
}

interface Read {
  items: WriteItem[];
  words: string[];
  partial: boolean;
}

function formatNamed<F extends ReadableName>(name: string, option: string, all: readonly F[]): F {
  const found = all.find((f) => f === name);
  if (found) return found;
  throw new Unusable(`${option}: “${name}” is no format. There are ${all.join(', ')}.`);
}

/** The entries of a file of references (`-` is standard input), each with a key of its own. */
export function readFile(file: string, from: string | undefined): Read {
  const text = textOfBytes(bytesOf(file));
  const format = from ? formatNamed(from, '--from', READABLE_NAMES) : sniff(text, file);
  if (!format)
    throw new Unusable(
      `${file} is in no format that is read; name it with --from. There are ${READABLE_NAMES.join(', ')}.`,
    );
  const { entries, skipped } = readReferences(format, text);
  const words = [
    ...skipped.map((s) => `${file}:${s.line}: skipped: ${s.reason}: ${squash(s.text)}`),
    ...entries.flatMap((e) => e.notes.map((n) => `${file}:${e.line}: ${n}`)),
  ];
  if (entries.length === 0)
    throw new Unusable(
      [...words, `${file} holds no references${words.length ? ' that can be read' : ''}.`].join('\n'),
    );
  const taken = new Set<string>();
  const items = entries.map(({ key, record }) => {
    const free = key && !taken.has(key) ? key : makeCitekey(record, (k) => taken.has(k));
    taken.add(free);
    return { key: free, record };
  });
  return { items, words, partial: skipped.length > 0 };
}

/** Writes what a command gives to the file of `-o`. */
export function writeOut(out: string, data: string | Uint8Array): void {
  try {
    writeFileSync(out, data);
  } catch (error) {
    throw new Unusable(`-o ${out}: ${(error as Error).message}`);
  }
}

/** `retexa convert`: from one format to another. What the target cannot hold is listed by record and field. */
export function convert(file: string, options: { from?: string; to?: string; out?: string }): Outcome {
  if (!options.to) throw new Unusable('convert needs --to FORMAT.');
  const to = formatNamed(options.to, '--to', FORMAT_NAMES);
  const read = readFile(file, options.from);
  const { text, losses } = writeFormat(to, read.items);
  const words = [...read.words, ...losses.map((l) => `${l.key}: ${l.field}: ${l.reason}`)];
  const outcome = { words, partial: read.partial || losses.length > 0 };
  if (!options.out) return { data: text, ...outcome };
  writeOut(options.out, text);
  return {
    data: '',
    ...outcome,
    words: [...words, `${read.items.length} written to ${options.out} as ${FORMATS[to].label}.`],
  };
}

interface Catalogue {
  styles: Record<string, { title: string; format: string; file: string; hasList: boolean }>;
  locales: Record<string, string>;
}

let known: Catalogue | undefined;

function catalogue(): Catalogue {
  try {
    return (known ??= JSON.parse(
      readFileSync(fileURLToPath(new URL('../catalogue.json', import.meta.url)), 'utf8'),
    ) as Catalogue);
  } catch {
    throw new Unusable('The style catalogue is not built. Run npm run build in this checkout.');
  }
}

export function styleNamed(id: string | undefined): { id: string; file: string; hasList: boolean } {
  if (!id) throw new Unusable('--style ID is needed; retexa styles lists them.');
  if (/\.csl$/i.test(id)) {
    if (!existsSync(id)) throw new Unusable(`--style ${id}: there is no such file.`);
    return { id, file: resolve(id), hasList: styleFacts(styleTree(id, resolve(id))).hasList };
  }
  const found = catalogue().styles[id];
  if (!found) throw new Unusable(`There is no style “${id}”; retexa styles ${id} may find one near it.`);
  return { id, ...found };
}

const DOCUMENTS: Record<string, (list: PrintedList, locale: string) => string> = {
  text: (list) => listToText(list, { wrap: true }),
  html: (list, locale) => htmlDocument(list, 'References', locale),
  rtf: (list) => rtfDocument(list, 'References'),
  markdown: (list) => markdownDocument(list, 'References'),
  latex: (list) => latexDocument(list, 'References'),
};

/** What prints in a style and a language: where none is named, the one the style is written for, or American English. */
export function printerFor(
  style: { id: string; file: string },
  named: string | undefined,
): { lang: string; printer: Printer; isNote: boolean } {
  const { locales } = catalogue();
  const tree = styleTree(style.id, style.file);
  const lang = named ?? styleLanguage(styleFacts(tree), (id) => Object.hasOwn(locales, id)) ?? 'en-US';
  const locale = locales[lang];
  if (!locale) throw new Unusable(`--locale: there is no language “${lang}”.`);
  return {
    lang,
    printer: createPrinter(tree, localeTree(locale), lang),
    isNote: tree.attrs.class === 'note',
  };
}

/** `retexa cite`: the reference list of a file. */
export function cite(
  file: string,
  options: { from?: string; style?: string; locale?: string; as?: string },
): Outcome {
  const style = styleNamed(options.style);
  const as = options.as ?? 'text';
  const document = DOCUMENTS[as];
  if (!document)
    throw new Unusable(`--as: “${as}” is no output. There are ${Object.keys(DOCUMENTS).join(', ')}.`);
  const { lang, printer } = printerFor(style, options.locale);
  if (!style.hasList) throw new Unusable(`The style ${style.id} has no reference list.`);
  const { items, words, partial } = readFile(file, options.from);
  const list = printer.list(items.map(({ key, record }) => itemOf(key, record)));
  const nothing = list.entries.filter((e) => e.runs.length === 0).map((e) => `${e.id}: nothing prints`);
  return {
    data: document(list, lang),
    words: [...words, ...nothing],
    partial: partial || nothing.length > 0,
  };
}

/** `retexa styles`: the catalogue, or the styles whose name has the words. */
export function styles(words: string[]): Outcome {
  const wanted = fold(words.join(' ')).split(' ').filter(Boolean);
  const lines = Object.entries(catalogue().styles)
    .filter(([id, s]) => wanted.every((w) => fold(`${id} ${s.title}`).includes(w)))
    .map(([id, s]) => `${id}\t${s.format}\t${s.title}`);
  if (lines.length === 0) throw new Unusable(`No style has “${words.join(' ')}” in its name.`);
  return { data: `${lines.join('\n')}\n`, words: [], partial: false };
}
