import { UnreadableManuscript } from '../lib/core/manuscripts';
import { itemOf } from '../lib/core/source';
import { manuscriptKind, printManuscript as printed } from '../lib/reading/manuscripts';
import { bytesOf } from './files';
import { printerFor, readFile, styleNamed, writeOut, type Outcome } from './references';
import { Unusable } from './unusable';

/**
 * `retexa print`: a manuscript with its citations and its list printed in a style; all else in it stays. Citekeys that name
 * no work of the library are listed with their places, and their citations stay as they were written.
 */
export function printManuscript(
  file: string,
  options: { library?: string; from?: string; style?: string; locale?: string; out?: string },
): Outcome {
  if (!options.library)
    throw new Unusable('print needs --library FILE, the references the manuscript cites.');
  const kind = file === '-' ? 'md' : manuscriptKind(file);
  if (!kind) throw new Unusable(`${file}: print reads manuscripts as .md, .docx, .odt and .tex.`);
  const style = styleNamed(options.style);
  const { printer, isNote } = printerFor(style, options.locale);
  const { items, words, partial } = readFile(options.library, options.from);
  const works = new Map(items.map(({ key, record }) => [key, itemOf(key, record)]));
  const { bytes, missing, citations, left } = reading(file, () =>
    printed(kind, bytesOf(file), printer.text(), works, { notes: isNote }),
  );
  const unknown = missing.map(({ key, place }) => {
    const line = /^line (\d+)$/.exec(place)?.[1];
    return `${file}:${line ?? ` ${place}`}: @${key} is not in ${options.library!}`;
  });
  const stays = left.map((said) => `${file}: ${said}.`);
  const outcome = { words: [...words, ...unknown, ...stays], partial: partial || unknown.length > 0 };
  if (!options.out) return { data: bytes, ...outcome };
  writeOut(options.out, bytes);
  const count = citations.toLocaleString('en');
  return {
    data: '',
    ...outcome,
    words: [...outcome.words, `${count} citations are printed in ${options.out}.`],
  };
}

function reading<T>(file: string, work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof UnreadableManuscript) throw new Unusable(`${file}: ${error.message}`);
    throw error;
  }
}
