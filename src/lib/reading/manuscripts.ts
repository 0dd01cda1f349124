import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import type { PrintedText } from '../core/citing';
import { printMarkdown } from '../core/drafting';
import {
  inTemplate,
  isDocxPart,
  isOdtPart,
  isTemplatePart,
  printDocx,
  printOdt,
  printTex,
  UnreadableManuscript,
  type MissingKey,
  type Works,
} from '../core/manuscripts';
import { MOST_FILES } from './packed';
import { textOfBytes } from './text';

/** The largest manuscript that is read, unpacked, in bytes. */
const LARGEST = 200_000_000;

/** Kinds of manuscript, by the end of their file’s name. */
export const MANUSCRIPTS = {
  md: { label: 'Markdown', mediaType: 'text/markdown; charset=utf-8' },
  docx: { label: '.docx', mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document' },
  tex: { label: 'LaTeX', mediaType: 'application/x-tex; charset=utf-8' },
  odt: { label: '.odt', mediaType: 'application/vnd.oasis.opendocument.text' },
} as const; // prettier-ignore
export type ManuscriptKind = keyof typeof MANUSCRIPTS;

/** What kind of manuscript a file is, by its name; nothing where it is none that is printed. */
export function manuscriptKind(name: string): ManuscriptKind | undefined {
  const end = /\.([a-z]{2,8})$/i.exec(name)?.[1]?.toLowerCase();
  if (end === 'markdown' || end === 'txt') return 'md';
  return end !== undefined && end in MANUSCRIPTS ? (end as ManuscriptKind) : undefined;
}

/** A manuscript as it printed. */
export interface ManuscriptOut {
  bytes: Uint8Array;
  citations: number;
  missing: MissingKey[];
  /** What was left as it is though it cites, each with its place. */
  left: string[];
}

/**
 * Prints the citations and the list of a manuscript and leaves all else as it is. Throws `UnreadableManuscript` with words for the
 * person when the file is not what it is called.
 */
export function printManuscript(
  kind: ManuscriptKind,
  bytes: Uint8Array,
  printer: PrintedText,
  works: Works,
  options: { notes: boolean },
): ManuscriptOut {
  if (kind === 'docx' || kind === 'odt') return printPacked(kind, bytes, printer, works, options);
  if (kind === 'tex') {
    const { text, left, ...rest } = printTex(textOfBytes(bytes), printer, works, options);
    return {
      ...rest,
      bytes: strToU8(text),
      left: left.map(
        ({ command, line }) =>
          `line ${line}: ${command} stays as it is: it asks for something no style prints by itself`,
      ),
    };
  }
  const { text, citations, missing } = printMarkdown(textOfBytes(bytes), printer, works, options);
  return {
    bytes: strToU8(text),
    citations,
    missing: missing.map(({ key, line }) => ({ key, place: `line ${line}` })),
    left: [],
  };
}

const NOTHING: PrintedText = {
  set: () => ({ citations: [], list: { entries: [], hangingIndent: false, hasList: false }, changed: [] }),
};

/** The citekeys a manuscript cites or lists, each once; `*` among them where it lists all there are. */
export const manuscriptKeys = (kind: ManuscriptKind, bytes: Uint8Array): string[] => [
  ...new Set(
    printManuscript(kind, bytes, NOTHING, new Map(), { notes: false }).missing.map(({ key }) => key),
  ),
];

const PACKED = {
  docx: { isPart: isDocxPart, print: printDocx },
  odt: { isPart: isOdtPart, print: printOdt },
};

function printPacked(
  kind: keyof typeof PACKED,
  bytes: Uint8Array,
  printer: PrintedText,
  works: Works,
  options: { notes: boolean },
): ManuscriptOut {
  const { isPart, print } = PACKED[kind];
  const files = unpacked(bytes);
  const { changed, citations, missing } = print(textsIn(files, isPart), printer, works, options);
  return { bytes: repacked(files, changed), citations, missing, left: [] };
}

/** A .docx document in the styles of another; see `inTemplate`. */
export function templated(bytes: Uint8Array, template: Uint8Array): Uint8Array {
  const files = unpacked(bytes);
  const parts = textsIn(files, (name) => /\.(?:xml|rels)$/.test(name));
  return repacked(files, inTemplate(parts, textsIn(unpacked(template), isTemplatePart)));
}

/** Some of the files of a packed document as text. */
const textsIn = (files: Record<string, Uint8Array>, wanted: (name: string) => boolean) =>
  Object.fromEntries(
    Object.entries(files).flatMap(([name, file]) => (wanted(name) ? [[name, strFromU8(file)]] : [])),
  );

/** A packed document with some of its files as they are now, and new ones behind them. */
function repacked(files: Record<string, Uint8Array>, changed: Record<string, string>): Uint8Array {
  const out: Zippable = { ...files };
  for (const [name, text] of Object.entries(changed)) out[name] = strToU8(text);
  // What an OpenDocument is must be told by its first bytes: OpenDocument 1.3, part 2, 3.3.
  if (files.mimetype) out.mimetype = [files.mimetype, { level: 0 }];
  return zipSync(out);
}

/** All files of a packed document, in their order. */
function unpacked(bytes: Uint8Array): Record<string, Uint8Array> {
  let [size, seen] = [0, 0];
  try {
    return unzipSync(bytes, {
      filter: ({ originalSize }) => {
        size += originalSize;
        if (++seen > MOST_FILES || size > LARGEST) throw new RangeError('too large');
        return true;
      },
    });
  } catch (error) {
    throw new UnreadableManuscript(
      error instanceof RangeError
        ? 'The manuscript is too large to be printed here.'
        : 'The file is damaged, or not what its name says.',
    );
  }
}
