import { entryRuns, runsToMarkdown, type PrintedText, type Run, type TextCitation } from '../citing';
import type { CslItem } from '../source';
import { begun } from './cites';
import { citationsOfMarkdown, type FoundCitation, type Manuscript } from './markdown';

/** A manuscript with its citations and its list as they print. */
export interface PrintedManuscript {
  text: string;
  /** Citekeys that name no work, each with the line it stands in, from 1. Citations of them stay as they were written. */
  missing: { key: string; line: number }[];
  /** How many citations were printed. */
  citations: number;
}

/** Where a citation is read: within a footnote, that is where the footnote is referred to. */
const placeOf = ({ from, inNote }: FoundCitation, notes: Map<string, number>): number =>
  inNote === undefined ? from : (notes.get(inNote) ?? from);

/** The number of the note each place stands in: footnotes that are there and those citations become, counted together. */
function noteNumbers(
  { citations, notes }: Manuscript,
  cited: ReadonlySet<FoundCitation>,
): Map<number, number> {
  const places = new Set<number>();
  const first = new Set<string>();
  for (const { at, name } of notes)
    if (!first.has(name)) {
      first.add(name);
      places.add(at);
    }
  for (const citation of citations)
    if (citation.inNote === undefined && cited.has(citation)) places.add(citation.from);
  return new Map([...places].sort((a, b) => a - b).map((at, i) => [at, i + 1]));
}

/** Where what stands before a place ends, without blanks and the end of a line, within its paragraph. */
function withoutBlank(text: string, from: number): number {
  let at = from;
  while (at > 0 && (text[at - 1] === ' ' || text[at - 1] === '\u00a0')) at--;
  if (text[at - 1] === '\n' && at > 1 && text[at - 2] !== '\n') at--;
  return at;
}

/** Runs in Markdown; all of them raised as pandoc has it: Pandoc User’s Guide, "Superscripts and subscripts". */
function inMarkdown(runs: Run[]): string {
  if (runs.length === 0 || !runs.every((run) => run.raised)) return runsToMarkdown(runs);
  const level = runs.map(({ raised: _raised, ...run }) => run);
  return `^${runsToMarkdown(level).replace(/ /g, '\\ ')}^`;
}

/**
 * A manuscript in pandoc’s Markdown with its citations as a style prints them where they stand in the whole text, and the list
 * of exactly what it cites: in its block `refs`, or at the end. `notes`: the style cites in notes, and each citation becomes a
 * footnote. All else stays letter by letter.
 */
export function printMarkdown(
  given: string,
  printer: PrintedText,
  works: ReadonlyMap<string, CslItem>,
  { notes }: { notes: boolean },
): PrintedManuscript {
  // Lines that end as on Windows end so again.
  const windows = /\r\n/.test(given) && !/(?<!\r)\n/.test(given);
  const text = windows ? given.replace(/\r\n/g, '\n') : given;
  const manuscript = citationsOfMarkdown(text);
  const missing: PrintedManuscript['missing'] = [];
  const cited = new Set<FoundCitation>();
  let line = 1;
  let counted = 0;
  for (const citation of manuscript.citations) {
    for (; counted < citation.from; counted++) if (text[counted] === '\n') line++;
    const unknown = citation.cites.filter(({ id }) => !works.has(id));
    if (unknown.length === 0) cited.add(citation);
    for (const { id } of unknown) missing.push({ key: id, line });
  }
  // All there are is wanting where there are none.
  for (const key of manuscript.nocite)
    if (key === '*' ? works.size === 0 : !works.has(key)) missing.push({ key, line: 1 });
  const firstMet = new Map<string, number>();
  for (const { at, name } of manuscript.notes) if (!firstMet.has(name)) firstMet.set(name, at);
  const numbers = notes ? noteNumbers(manuscript, cited) : new Map<number, number>();
  const idOf = ({ from }: FoundCitation) => String(from);
  const inOrder = [...cited].sort((a, b) => placeOf(a, firstMet) - placeOf(b, firstMet) || a.from - b.from);
  const clusters = inOrder.map((citation): TextCitation => ({
    id: idOf(citation),
    // A note begins with a capital.
    cites: notes && !citation.named && citation.inNote === undefined ? begun(citation.cites) : citation.cites,
    // Within a note a work is cited whole.
    named: citation.named && !(notes && citation.inNote !== undefined),
    note: numbers.get(placeOf(citation, firstMet)) ?? 0,
  }));
  const listed = new Set(clusters.flatMap((c) => c.cites.map(({ id }) => id)));
  for (const key of manuscript.nocite)
    for (const id of key === '*' ? works.keys() : [key]) if (works.has(id)) listed.add(id);
  const { citations, list } = printer.set(
    [...listed].map((id) => works.get(id)!),
    clusters,
  );
  const printed = new Map(citations.map((c) => [c.id, c]));

  const taken = new Set(manuscript.notes.map(({ name }) => name));
  const footnotes: string[] = [];
  /** A name for a footnote that none has yet. */
  const noteOf = (words: string): string => {
    let n = footnotes.length + 1;
    while (taken.has(`cite-${n}`)) n++;
    taken.add(`cite-${n}`);
    footnotes.push(`[^cite-${n}]: ${words}`);
    return `[^cite-${n}]`;
  };
  const edits: { from: number; to: number; by: string }[] = [];
  for (const citation of manuscript.citations) {
    const as = cited.has(citation) ? printed.get(idOf(citation)) : undefined;
    if (!as) continue;
    const author = as.author ? runsToMarkdown(as.author) : '';
    const words = inMarkdown(as.runs);
    let { from, to } = citation;
    if (notes && citation.inNote !== undefined) {
      const alone =
        /(?:^|\n)\[\^[^\]\n]{1,200}\]:[ \t]*$/.test(text.slice(Math.max(0, from - 300), from)) &&
        /^\s*(?:\n|$)/.test(text.slice(to, to + 300));
      const bare = words.replace(/\.$/, '');
      edits.push({ from, to, by: alone ? words : citation.named ? bare : `(${bare})` });
      continue;
    }
    if (!notes) {
      const by = [author, words].filter(Boolean).join(' ');
      // Raised numbers stand at the word, and of nothing no blank is left.
      const raised = !author && as.runs.every((run) => run.raised);
      if (by === '' || raised) from = withoutBlank(text, from);
      edits.push({ from, to, by });
      continue;
    }
    // The sign of a note stands behind the mark that follows, without a blank before it.
    const mark = author ? '' : (/^[.,;:!?]/.exec(text.slice(to, to + 1))?.[0] ?? '');
    to += mark.length;
    if (!author) from = withoutBlank(text, from);
    edits.push({ from, to, by: `${author}${mark}${noteOf(words)}` });
  }
  const references = list.entries
    .map((entry) =>
      runsToMarkdown(entryRuns(entry))
        // Hyphens in a row would be read as a dash, a number with a point as one of a list.
        .replace(/^---(?=[\s.,])/, '\\-\\-\\-')
        .replace(/^(\d{1,9})([.)])(?=\s)/, '$1\\$2'),
    )
    .join('\n\n');
  if (manuscript.list && references) edits.push({ ...manuscript.list, by: `\n${references}\n\n` });
  let out = '';
  let at = 0;
  for (const { from, to, by } of edits.sort((a, b) => a.from - b.from)) {
    out += text.slice(at, Math.max(at, from)) + by;
    at = to;
  }
  out += text.slice(at);
  const behind = [manuscript.list ? '' : references, ...footnotes].filter(Boolean);
  if (behind.length) out = `${out.trimEnd()}\n\n${behind.join('\n\n')}\n`;
  return { text: windows ? out.replace(/\n/g, '\r\n') : out, missing, citations: cited.size };
}
