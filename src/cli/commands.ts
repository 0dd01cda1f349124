import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { cite, convert, styles, type Outcome } from './references';
import { Unusable } from './unusable';

const USAGE = `retexa read FILE [--address URL]
  Reads a saved page, a PDF or a picture of a page, with no network. Writes one JSON object: source (CSL-JSON), origins
  and alternatives by field, and list when the page is a list of works.
retexa convert IN [--from FORMAT] --to bibtex|biblatex|ris|csl-json [-o OUT]
retexa cite IN --style ID [--locale L] [--as text|html|rtf|markdown|latex] [--from FORMAT]
retexa print MANUSCRIPT --library IN --style ID [--locale L] [--from FORMAT] [-o OUT]
  The manuscript (.md, .docx, .odt, .tex), its citations ([@key, p. 3], @key [p. 3], -@key; in .tex its commands) and its
  list printed in the style, all else as it is.
retexa styles [WORDS]
retexa check IN --style ID [--from FORMAT]
retexa duplicates IN [--from FORMAT] [--sure]
  Groups of entries that are one work, as JSON: ids, verdict (sure or decide), score, reasons. --sure: only the sure ones.
retexa anchor TEXT --passages FILE
  Where passages stand in a text or a page (.html). FILE: a JSON array of selectors, each with id, exact and, if known,
  prefix, suffix, start, end (code points). JSON out: id, state (found, moved, changed, lost), start, end, exact.
  FORMAT of --from may also be medline, mods, marcxml, coins. ID is an id of the catalogue or the path of a .csl file.
  IN may be - for standard input. Exit: 0 done, 1 done but some entries were skipped or lossy, 2 could not.
`;

const OPTIONS = {
  read: ['address'],
  convert: ['from', 'to', 'out'],
  cite: ['from', 'style', 'locale', 'as'],
  print: ['library', 'from', 'style', 'locale', 'out'],
  styles: [],
  check: ['from', 'style'],
  duplicates: ['from', 'sure'],
  anchor: ['passages'],
} as const;
type Command = keyof typeof OPTIONS;

/** What stands behind the options, as far as they were given. */
type Given = Partial<Record<Exclude<(typeof OPTIONS)[Command][number], 'sure'>, string>> & { sure?: boolean };

function given(command: Command, args: string[]): { words: string[]; options: Given } {
  const options = Object.fromEntries(
    OPTIONS[command].map((name) => [
      name,
      name === 'sure'
        ? { type: 'boolean' as const }
        : { type: 'string' as const, ...(name === 'out' ? { short: 'o' } : {}) },
    ]),
  );
  try {
    const { positionals, values } = parseArgs({ args, allowPositionals: true, options });
    return { words: positionals, options: values as Given };
  } catch (error) {
    throw new Unusable(`${(error as Error).message}\n${USAGE}`);
  }
}

async function run(command: Command, args: string[]): Promise<Outcome> {
  const { words, options } = given(command, args);
  if (command === 'styles') return styles(words);
  const [file, ...more] = words;
  if (!file || more.length) throw new Unusable(`${command} takes one file.\n${USAGE}`);
  if (command === 'convert') return convert(file, options);
  if (command === 'cite') return cite(file, options);
  if (command === 'print') return (await import('./manuscript')).printManuscript(file, options);
  // What judges takes longer to load than to cite a work.
  if (command === 'check') return (await import('./judging')).check(file, options);
  if (command === 'duplicates') return (await import('./judging')).duplicates(file, options);
  // Their readers take two seconds to load, which the other commands do without.
  const entry = fileURLToPath(new URL('../workers/reading.js', import.meta.url));
  const answer =
    command === 'anchor'
      ? await (await import('./anchor')).anchorPassages(file, options.passages, entry)
      : await (await import('./read')).read(file, options.address, entry);
  return { data: `${JSON.stringify(answer, null, 2)}\n`, words: [], partial: false };
}

async function answer([command, ...args]: string[]): Promise<number> {
  if (command === undefined || command === '--help' || command === 'help') {
    process.stderr.write(USAGE);
    return command === undefined ? 2 : 0;
  }
  if (!(command in OPTIONS)) throw new Unusable(`There is no command “${command}”.\n${USAGE}`);
  const { data, words, partial } = await run(command as Command, args);
  process.stdout.write(data);
  for (const line of words) process.stderr.write(`${line}\n`);
  return partial ? 1 : 0;
}

/** Runs a command with its arguments, and gives what the process is to exit with. */
export async function main(args: string[]): Promise<number> {
  try {
    return await answer(args);
  } catch (error) {
    process.stderr.write(
      error instanceof Unusable ? `${error.message}\n` : `retexa failed: ${String(error)}\n`,
    );
    return 2;
  }
}

export { cite, convert };
