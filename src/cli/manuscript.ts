import { styleFacts } from '../lib/core/citing';
import { printMarkdown } from '../lib/core/drafting';
import { toCsl } from '../lib/core/source';
import { styleTree } from '../lib/reading/styles';
import { textOfBytes } from '../lib/reading/text';
import { bytesOf } from './files';
import { printerFor, readFile, styleNamed, writeOut, type Outcome } from './references';
import { Unusable } from './unusable';

/**
 * `retexa print`: a manuscript with its citations and its list printed in a style; all else in it stays. Citekeys that name
 * no work of the library are listed with their lines, and their citations stay as they were written.
 */
export function printManuscript(
  file: string,
  options: { library?: string; from?: string; style?: string; locale?: string; out?: string },
): Outcome {
  if (!options.library)
    throw new Unusable('print needs --library FILE, the references the manuscript cites.');
  if (!/\.(?:md|markdown|txt)$/i.test(file) && file !== '-')
    throw new Unusable(`${file}: print reads manuscripts in Markdown (.md).`);
  const style = styleNamed(options.style);
  // As the style says, where nobody says otherwise.
  const { printer, isNote } = printerFor(
    style,
    options.locale ?? styleFacts(styleTree(style.id, style.file)).locale,
  );
  const { items, words, partial } = readFile(options.library, options.from);
  const works = new Map(items.map(({ key, record }) => [key, toCsl(key, record)]));
  const text = textOfBytes(bytesOf(file));
  const printed = printMarkdown(text, printer.text(), works, { notes: isNote });
  const unknown = printed.missing.map(
    ({ key, line }) => `${file}:${line}: @${key} is not in ${options.library!}`,
  );
  const outcome = { words: [...words, ...unknown], partial: partial || unknown.length > 0 };
  if (!options.out) return { data: printed.text, ...outcome };
  writeOut(options.out, printed.text);
  const count = printed.citations.toLocaleString('en');
  return {
    data: '',
    ...outcome,
    words: [...outcome.words, `${count} citations are printed in ${options.out}.`],
  };
}
