import { entryRuns, runsToLatex, type CiteItem, type PrintedList, type PrintedText } from '../citing';
import { parseLocated } from '../drafting';
import { texToText } from '../formats';
import { edited, type Edit } from './edits';
import { setManuscript, type FoundInText, type MissingKey, type Works } from './setting';

/** A manuscript in LaTeX with its citations and its list as they print. */
export interface PrintedTex {
  text: string;
  missing: MissingKey[];
  citations: number;
  /** Commands that cite in a way a style does not print, each with its line; they stay. */
  left: { command: string; line: number }[];
}

/**
 * Commands that cite, by their names in small letters: biblatex 3.19, 3.9 (with those for several works), natbib 8.31, 2. `named`:
 * the author stands in the sentence; `note`: it is a footnote in every style.
 */
const COMMANDS: Record<string, { named?: true; note?: true; several?: true }> = Object.fromEntries(
  [
    ['cite', {}],
    ['parencite', {}],
    ['smartcite', {}],
    ['supercite', {}],
    ['autocite', {}],
    ['citep', {}],
    ['footcite', { note: true as const }],
    ['textcite', { named: true as const }],
    ['citet', { named: true as const }],
  ].flatMap(([name, what]) => [
    [name as string, what as object],
    ...(/^cite[pt]$/.test(name as string) ? [] : [[`${name as string}s`, { ...(what as object), several: true }]]),
  ]),
); // prettier-ignore

interface TexCitation {
  id: string;
  from: number;
  to: number;
  cites: CiteItem[];
  named: boolean;
  /** It is a footnote by itself. */
  note: boolean;
  /** The footnote it stands in. */
  footnote: string | undefined;
  /** It is all its footnote says. */
  alone: boolean;
}

interface ReadTex {
  found: FoundInText[];
  citations: TexCitation[];
  nocite: { key: string; place: string; from: number; to: number }[];
  lists: { from: number; to: number; heading: string }[];
  left: PrintedTex['left'];
  end: number;
}

/** Environments whose text is no LaTeX. */
const VERBATIM = new Set(['verbatim', 'verbatim*', 'lstlisting', 'minted', 'comment', 'filecontents', 'filecontents*']); // prettier-ignore
/** Most characters of an argument in brackets: one that is never closed is not looked for to the end of the text. */
const LONGEST = 2_000;

/** Where each brace closes. What is escaped is none. */
function bracesOf(text: string): Map<number, number> {
  const pairs = new Map<number, number>();
  const open: number[] = [];
  for (let i = 0; i < text.length; i++) {
    const c = text[i];
    if (c === '\\') i++;
    else if (c === '{') open.push(i);
    else if (c === '}') {
      const from = open.pop();
      if (from !== undefined) pairs.set(from, i);
    }
  }
  return pairs;
}

/** Where an argument that begins with a bracket closes, what stands in braces passed over; -1 when it does not. */
function closing(text: string, open: number, braces: ReadonlyMap<number, number>): number {
  if (text[open] === '{') return braces.get(open) ?? -1;
  const end = text[open] === '[' ? ']' : ')';
  const last = Math.min(text.length, open + LONGEST);
  for (let i = open + 1; i < last; i++) {
    const c = text[i];
    if (c === '\\') i++;
    else if (c === '{') i = braces.get(i) ?? last;
    else if (c === '}') return -1;
    else if (c === end) return i;
  }
  return -1;
}

/** The arguments of a command from a place on, one after the other, blanks and one end of a line between them. */
function argumentsAt(
  text: string,
  at: number,
  kinds: string,
  braces: ReadonlyMap<number, number>,
): { is: string; said: string; to: number }[] {
  const found: { is: string; said: string; to: number }[] = [];
  for (let next = at; ;) {
    let from = next;
    while (from < next + 200 && /[ \t\n%]/.test(text[from] ?? '')) {
      if (text[from] === '\n' && /^\n[ \t]*\n/.test(text.slice(from, from + 50))) return found;
      if (text[from] === '%') {
        const eol = text.indexOf('\n', from);
        if (eol === -1) return found;
        from = eol;
      }
      from++;
    }
    const is = text[from];
    if (is === undefined || !kinds.includes(is)) return found;
    const end = closing(text, from, braces);
    if (end === -1) return found;
    found.push({ is, said: text.slice(from + 1, end), to: end + 1 });
    next = end + 1;
    // A command for one work ends with its keys.
    if (is === '{' && !kinds.includes('(')) return found;
  }
}

const wordsOf = (tex: string): string => texToText(tex).trim();

/** Works of one argument of keys, what stands before the first of them and behind the last. */
function citesOf(keys: string, notes: readonly string[], withoutAuthor: boolean): CiteItem[] {
  const [before, after] = notes.length > 1 ? notes : [undefined, notes[0]];
  const ids = keys.split(',').map((key) => key.trim()).filter(Boolean);
  const prefix = before ? wordsOf(before) : '';
  const { suffix, ...place } = parseLocated(after ? wordsOf(after) : '');
  const words = suffix.trim();
  return ids.map((id, i) => ({
    id,
    ...(i === 0 && prefix ? { prefix: `${prefix} ` } : {}),
    ...(i === ids.length - 1 ? place : {}),
    ...(i === ids.length - 1 && words ? { suffix: /^[,;:.]/.test(words) ? words : place.locator ? ` ${words}` : `, ${words}` } : {}),
    ...(withoutAuthor ? { 'suppress-author': true } : {}),
  }));
} // prettier-ignore

/** The heading a list is to have: `[title=…]`, none, or what LaTeX calls references. */
const headingOf = (said: string): string =>
  /heading\s*=\s*none/.test(said)
    ? ''
    : `\\section*{${/title\s*=\s*(?:\{([^{}]{1,200})\}|([^,{}]{1,200}))/.exec(said)?.slice(1).find(Boolean) ?? 'References'}}\n`;

function readTex(text: string): ReadTex {
  const read: ReadTex = { found: [], citations: [], nocite: [], lists: [], left: [], end: text.length };
  /** Footnotes that are open, by where they close. */
  const braces = bracesOf(text);
  const taking = (at: number, kinds: string) => argumentsAt(text, at, kinds, braces);
  const footnotes: { id: string; from: number; to: number }[] = [];
  let line = 1;
  let counted = 0;
  const lineAt = (at: number) => {
    for (; counted < at; counted++) if (text[counted] === '\n') line++;
    return line;
  };
  const spots = /\\(?:[A-Za-z@]+\*?|[^])|%/g;
  for (let m = spots.exec(text); m; m = spots.exec(text)) {
    const at = m.index;
    while (footnotes.length && footnotes.at(-1)!.to <= at) footnotes.pop();
    if (m[0] === '%') {
      const eol = text.indexOf('\n', at);
      if (eol === -1) break;
      spots.lastIndex = eol;
      continue;
    }
    const star = m[0].endsWith('*');
    const command = m[0].slice(1, star ? -1 : undefined);
    const name = command.toLowerCase();
    const behind = at + m[0].length;
    if (command === 'verb' || command === 'lstinline') {
      const sign = text[behind];
      const end = sign === undefined ? -1 : text.slice(behind + 1, behind + 2_000).indexOf(sign);
      if (end !== -1) spots.lastIndex = behind + end + 2;
    } else if (command === 'begin' || command === 'end') {
      const environment = /^\{([A-Za-z*]{1,40})\}/.exec(text.slice(behind, behind + 50))?.[1] ?? '';
      if (command === 'end' && environment === 'document') {
        read.end = at;
        break;
      }
      if (command === 'end' || !VERBATIM.has(environment)) continue;
      const end = text.indexOf(`\\end{${environment}}`, behind);
      if (end === -1) break;
      spots.lastIndex = end;
    } else if (command === 'footnote' || command === 'footnotetext') {
      const args = taking(behind, '[{');
      const body = args.find(({ is }) => is === '{');
      if (!body || footnotes.length) continue;
      const id = `footnote ${at}`;
      footnotes.push({ id, from: body.to - 1 - body.said.length, to: body.to - 1 });
      read.found.push({ what: 'footnote', id });
    } else if (command === 'nocite') {
      const [keys] = taking(behind, '{');
      if (!keys) continue;
      for (const key of keys.said.split(',').map((k) => k.trim()).filter(Boolean))
        read.nocite.push({ key, place: `line ${lineAt(at)}`, from: at, to: keys.to });
    } else if (command === 'printbibliography' || command === 'bibliography') {
      const [said] = taking(behind, command === 'bibliography' ? '{' : '[');
      read.lists.push({ from: at, to: said?.to ?? behind, heading: headingOf(command === 'bibliography' ? '' : (said?.said ?? '')) });
    } else if (Object.hasOwn(COMMANDS, name)) {
      const { named, note, several } = COMMANDS[name]!;
      const args = taking(behind, several ? '([{' : '[{');
      const cites: CiteItem[] = [];
      const around = args.filter(({ is }) => is === '(').map(({ said }) => said);
      let notes: string[] = [];
      let to = behind;
      for (const arg of args) {
        if (arg.is === '[') notes.push(arg.said);
        if (arg.is !== '{') continue;
        cites.push(...citesOf(arg.said, notes, star));
        [notes, to] = [[], arg.to];
      }
      const [first, last] = [cites[0], cites.at(-1)];
      if (!first || !last) continue;
      const [pre, post] = around.length > 1 ? around : [undefined, around[0]];
      if (pre) first.prefix = `${wordsOf(pre)} ${first.prefix ?? ''}`;
      if (post) last.suffix = `${last.suffix ?? ''}, ${wordsOf(post)}`;
      const id = `cite ${at}`;
      const within = footnotes.at(-1);
      const place = `line ${lineAt(at)}`;
      const alone = within !== undefined && text.slice(within.from, at).trim() === '' && /^[\s.]*$/.test(text.slice(to, within.to));
      const own = note && !within ? `note of ${at}` : undefined;
      if (own) read.found.push({ what: 'footnote', id: own });
      read.found.push({ what: 'cite', id, cites, named: named ?? false, footnote: within?.id ?? own, place });
      read.citations.push({ id, from: at, to, cites, named: named ?? false, note: own !== undefined, footnote: within?.id, alone });
      spots.lastIndex = to;
    } else if (/cite[a-z]*$/.test(name) && !/^(?:set|new|renew|declare|provide|at)/.test(name) && taking(behind, '[{').length)
      read.left.push({ command: m[0], line: lineAt(at) });
  }
  return read;
} // prettier-ignore

const BLANK = /(?:[ \t]|~|(?<!\n[ \t]*)\n(?!\s*\n))+$/;

/**
 * Prints the citations of a manuscript in LaTeX and its list, where `\printbibliography` or `\bibliography` stands, else at the end.
 * `notes`: the style cites in notes, and each citation becomes a footnote. All else stays letter by letter.
 */
export function printTex(
  given: string,
  printer: PrintedText,
  works: Works,
  { notes }: { notes: boolean },
): PrintedTex {
  const windows = /\r\n/.test(given) && !/(?<!\r)\n/.test(given);
  const text = windows ? given.replace(/\r\n/g, '\n') : given;
  const read = readTex(text);
  const { printed, list, missing } = setManuscript(read.found, works, printer, {
    notes,
    nocite: read.nocite,
  });
  const edits: Edit[] = [];
  let citations = 0;
  const blankBefore = (at: number) => BLANK.exec(text.slice(Math.max(0, at - 40), at))?.[0] ?? '';
  for (const one of read.citations) {
    const as = printed.get(one.id);
    if (!as) continue;
    citations++;
    const author = runsToLatex(as.author ?? []);
    const words = runsToLatex(as.runs);
    const { from, to, footnote, alone, named } = one;
    if (one.note || (notes && footnote === undefined)) {
      // The sign of a note stands behind the mark that follows, without a blank before it.
      const mark = author ? '' : (/^[.,;:!?]/.exec(text.slice(to, to + 1))?.[0] ?? '');
      const blank = author ? '' : blankBefore(from);
      edits.push({
        from: from - blank.length,
        to: to + mark.length,
        by: `${author}${mark}\\footnote{${noted(words)}}`,
      });
      continue;
    }
    if (notes) {
      const bare = words.replace(/\.$/, '');
      edits.push({ from, to, by: alone || named ? bare : `(${bare})` });
      continue;
    }
    const by = [author, words].filter(Boolean).join(' ');
    const atWord = by === '' || (!author && as.runs.every((run) => run.raised));
    const blank = atWord ? blankBefore(from) : '';
    edits.push({ from: from - blank.length, to, by });
  }
  // A command may name many keys.
  for (const [from, to] of new Map(read.nocite.map((one) => [one.from, one.to])))
    edits.push({ from, to, by: '' });
  const [first, ...others] = read.lists;
  if (first) edits.push({ from: first.from, to: first.to, by: listOf(list, first.heading) });
  else if (list.entries.length)
    edits.push({ from: read.end, to: read.end, by: `${listOf(list, headingOf(''))}\n\n` });
  for (const { from, to } of others) edits.push({ from, to, by: '' });
  const out = edited(text, edits);
  return {
    text: windows ? out.replace(/\n/g, '\r\n') : out,
    missing,
    citations,
    left: read.left,
  };
}

/** What a note says ends with a mark. */
const noted = (words: string) => (/[.?!][)”’]?$/.test(words) ? words : `${words}.`);

function listOf({ entries, hangingIndent }: PrintedList, heading: string): string {
  if (entries.length === 0) return '';
  const indent = hangingIndent
    ? '\\setlength{\\parindent}{-2em}\\setlength{\\leftskip}{2em}'
    : '\\setlength{\\parindent}{0pt}';
  const lines = entries.map((entry) => runsToLatex(entryRuns(entry)));
  return `${heading}{${indent}\n\n${lines.join('\n\n')}\\par}`;
}
