import type { CiteItem } from '../citing';
import { withoutTrailing } from '../text';
import { parseLocated } from './locators';

/** A citation of a manuscript: where it stands, in UTF-16 units, and what it cites. */
export interface FoundCitation {
  from: number;
  to: number;
  /** Its works; `id` is the citekey. */
  cites: CiteItem[];
  /** The first work’s author is part of the sentence. */
  named: boolean;
  /** The name of the footnote it stands in, if it stands in one. */
  inNote?: string;
}

/** What a manuscript in Markdown has that a printer of citations must know. */
export interface Manuscript {
  citations: FoundCitation[];
  /** Names of footnotes, where each is referred to, in order. */
  notes: { at: number; name: string }[];
  /** Citekeys to be listed without being cited; `*` is all there are. */
  nocite: string[];
  /** Where the list goes: the inside of the block with the id `refs`, if there is one. */
  list?: { from: number; to: number };
}

const KEY = /(?:\{([^{}\s]{1,500})\}|([\p{L}\p{N}_][\p{L}\p{N}_:.#$%&\-+?<>~/]{0,500}))/uy;
const keyAt = (text: string, at: number): { key: string; length: number } | undefined => {
  KEY.lastIndex = at;
  const m = KEY.exec(text);
  if (!m) return undefined;
  if (m[1] !== undefined) return { key: m[1], length: m[0].length };
  // A mark at the end of a key belongs to the sentence; a letter or figure has to stand behind each mark within it.
  const key = withoutTrailing(
    m[2]!.replace(/([:.#$%&\-+?<>~/])[:.#$%&\-+?<>~/].*$/su, '$1'),
    ':.#$%&-+?<>~/',
  );
  return { key, length: key.length };
};

/** Stretches that hold no citations: front matter, code, comments, addresses. In order, from and to. */
function* silent(text: string): Generator<[number, number]> {
  const front = /^---[ \t]*\n[\s\S]*?\n(?:---|\.\.\.)[ \t]*(?:\n|$)/.exec(text);
  const begin = front ? front[0].length : 0;
  if (front) yield [0, begin];
  const fence = /^ {0,3}(`{3,}|~{3,})/;
  let at = begin;
  let open: { mark: string; from: number } | undefined;
  let blank = true;
  // What is set in under a footnote belongs to it, and is no code.
  let inNote = false;
  let unclosed = false;
  const comments = (from: number): number => {
    const end = unclosed ? -1 : text.indexOf('-->', from);
    unclosed ||= end === -1;
    return end;
  };
  while (at < text.length) {
    const end = text.indexOf('\n', at);
    const next = end === -1 ? text.length : end + 1;
    const line = text.slice(at, next);
    const mark = fence.exec(line)?.[1];
    if (/^\S/.test(line)) inNote = /^\[\^[^\]\s]{1,200}\]:/.test(line);
    if (open) {
      if (mark && mark[0] === open.mark[0] && mark.length >= open.mark.length && line.trim() === mark) {
        yield [open.from, next];
        open = undefined;
      }
    } else if (mark) open = { mark, from: at };
    else if (!inNote && blank && /^(?: {4}|\t)/.test(line) && line.trim()) yield [at, next];
    else yield* silentIn(text, at, next, comments);
    blank = line.trim() === '' || (blank && /^(?: {4}|\t)/.test(line));
    at = next;
  }
  if (open) yield [open.from, text.length];
}

/** Within a line: code between as many backticks, comments, addresses in angle brackets and behind the words of a link. */
function* silentIn(
  text: string,
  from: number,
  to: number,
  comments: (from: number) => number,
): Generator<[number, number]> {
  // On the line alone: looked for in the text, what is not on it would be looked for to its end, line after line.
  const line = text.slice(from, to);
  const parts = /(`+)|<!--|<(?=[^\s<>]{1,2000}>)|\]\((?=[^\s()]{0,2000}\))/g;
  for (let m = parts.exec(line); m; m = parts.exec(line)) {
    const begin = m.index + m[0].length;
    let end = -1;
    if (m[1]) {
      const closing = new RegExp(`(?<!\`)\`{${m[1].length}}(?!\`)`, 'g');
      closing.lastIndex = begin;
      const closed = closing.exec(line);
      end = closed ? closed.index + m[1].length : -1;
    } else if (m[0] === '<!--') {
      // A comment may end on another line.
      const closed = comments(from + begin);
      end = closed === -1 ? -1 : closed + 3 - from;
    } else {
      const closed = line.indexOf(m[0] === '<' ? '>' : ')', begin);
      end = closed === -1 ? -1 : closed + 1;
    }
    if (end === -1) continue;
    yield [from + m.index, from + end];
    parts.lastIndex = end;
  }
}

/** Markup of Markdown in words before and after, as the processor takes it. */
const marked = (text: string): string =>
  text
    .replace(/\*\*([^*]{1,500})\*\*/g, '<b>$1</b>')
    .replace(/\*([^*]{1,500})\*/g, '<i>$1</i>')
    .replace(/(?<![\p{L}\p{N}])_([^_]{1,500})_(?![\p{L}\p{N}])/gu, '<i>$1</i>')
    .replace(/\\([!-/:-@[-`{-~])/g, '$1');

/** One work of a citation in brackets. */
function citeIn(part: string): CiteItem | undefined {
  const m = /(?<![\p{L}\p{N}\\])(-?)@/u.exec(part);
  if (!m) return undefined;
  const found = keyAt(part, m.index + m[0].length);
  if (!found) return undefined;
  const { suffix, ...place } = parseLocated(part.slice(m.index + m[0].length + found.length));
  const before = marked(part.slice(0, m.index).trim());
  return {
    id: found.key,
    ...place,
    ...(before ? { prefix: before } : {}),
    ...(suffix.trim() ? { suffix: marked(suffix.trimEnd()) } : {}),
    ...(m[1] ? { 'suppress-author': true } : {}),
  };
}

/** Where each bracket closes that does so in its paragraph. */
function bracketsOf(text: string): Map<number, number> {
  const pairs = new Map<number, number>();
  let open: number[] = [];
  for (let i = 0; i < text.length; i++) {
    const c = text[i];
    if (c === '\\') i++;
    else if (c === '[') open.push(i);
    else if (c === ']') {
      const from = open.pop();
      if (from !== undefined) pairs.set(from, i);
    } else if (c === '\n' && text[i + 1] === '\n') open = [];
  }
  return pairs;
}

/** The parts between semicolons that stand in no braces or brackets. */
function partsOf(text: string): string[] {
  const parts: string[] = [];
  let depth = 0;
  let from = 0;
  for (let i = 0; i < text.length; i++) {
    const c = text[i]!;
    if (c === '\\') i++;
    else if ('{['.includes(c)) depth++;
    else if ('}]'.includes(c)) depth--;
    else if (c === ';' && depth <= 0) {
      parts.push(text.slice(from, i));
      from = i + 1;
    }
  }
  return [...parts, text.slice(from)];
}

/**
 * The citations of a manuscript in pandoc’s Markdown (Pandoc User’s Guide, "Citation syntax"), in order: `[see @a, pp. 3-5;
 * @b]`, `-@a` without its author, `@a [p. 3]` with the author in the sentence. `plain`: the text is a paragraph without any markup
 * but that of citations.
 */
export function citationsOfMarkdown(text: string, { plain = false } = {}): Manuscript {
  const citations: FoundCitation[] = [];
  const notes: { at: number; name: string }[] = [];
  const skipped = plain ? [] : [...silent(text)];
  const brackets = bracketsOf(text);
  const spots = /\\[\s\S]|\[\^([^\]\s]{1,200})\](:?)|\[|(?<![\p{L}\p{N}])(-?)@(?=[\p{L}\p{N}_{])/gu;
  let skip = 0;
  /** Footnotes are told from where they begin at the start of a line, to the next line that is neither blank nor set in. */
  let inNote: string | undefined;
  let noteEnds = 0;
  for (let m = spots.exec(text); m; m = spots.exec(text)) {
    const at = m.index;
    while (skip < skipped.length && skipped[skip]![1] <= at) skip++;
    const hidden = skipped[skip];
    if (hidden && hidden[0] <= at) {
      spots.lastIndex = hidden[1];
      continue;
    }
    if (m[0].startsWith('\\')) continue;
    if (inNote && at >= noteEnds) inNote = undefined;
    if (m[1] !== undefined && !plain) {
      if (m[2] && (at === 0 || text[at - 1] === '\n')) {
        inNote = m[1];
        noteEnds = noteEnd(text, at);
      } else notes.push({ at, name: m[1] });
      continue;
    }
    const note = inNote === undefined ? {} : { inNote };
    if (m[0] === '[') {
      const end = brackets.get(at);
      if (end === undefined || text[end + 1] === '(') continue;
      const parts = partsOf(text.slice(at + 1, end)).map(citeIn);
      if (parts.some((part) => part === undefined)) continue;
      citations.push({ from: at, to: end + 1, cites: parts as CiteItem[], named: false, ...note });
      spots.lastIndex = end + 1;
    } else if (m[0].endsWith('@')) {
      const found = keyAt(text, at + m[0].length);
      if (!found?.key) continue;
      let to = at + m[0].length + found.length;
      const cites: CiteItem[] = [{ id: found.key }];
      const behind = /^(?:\{[^{}\n]{0,500}\})? ?(?=\[)/.exec(text.slice(to, to + 520))?.[0];
      const end = behind === undefined ? undefined : brackets.get(to + behind.length);
      if (m[3]) cites[0]!['suppress-author'] = true;
      else if (end !== undefined && text[end + 1] !== '(' && text[to + behind!.length + 1] !== '^') {
        // What stands in brackets behind it says where in the work, and may name others.
        const [own = '', ...others] = partsOf(text.slice(to + behind!.length + 1, end));
        const more = others.map(citeIn);
        const first = /(?<![\p{L}\p{N}\\])-?@/u.test(own) ? undefined : parseLocated(own);
        if (first && more.every((part) => part !== undefined)) {
          const { suffix, ...place } = first;
          Object.assign(cites[0]!, place, suffix.trim() ? { suffix: marked(suffix.trimEnd()) } : {});
          cites.push(...(more as CiteItem[]));
          to = end + 1;
        }
      }
      citations.push({ from: at, to, cites, named: !m[3], ...note });
      spots.lastIndex = to;
    }
  }
  if (plain) return { citations, notes, nocite: [] };
  const list = /^:{3,}[ \t]*(?:\{[^}\n]*#refs\b[^}\n]*\}|refs)[ \t:]*\n([\s\S]*?)^:{3,}[ \t]*$/m.exec(text);
  return {
    citations,
    notes,
    nocite: nociteOf(text),
    ...(list
      ? {
          list: {
            from: list.index + list[0].indexOf('\n') + 1,
            to: list.index + list[0].lastIndexOf('\n') + 1,
          },
        }
      : {}),
  };
}

function noteEnd(text: string, from: number): number {
  let at = text.indexOf('\n', from);
  while (at !== -1) {
    const line = /^[^\n]*/.exec(text.slice(at + 1, at + 2_000))![0];
    const setIn = /^(?: {4}|\t)/.test(line);
    const before = text[at - 1] === '\n';
    if (line !== '' && !setIn && before) return at + 1;
    if (/^\[\^[^\]]+\]:/.test(line)) return at + 1;
    at = text.indexOf('\n', at + 1);
  }
  return text.length;
}

/** What front matter asks to list without citing it. Pandoc User’s Guide, "Including uncited items in the bibliography". */
function nociteOf(text: string): string[] {
  const front = /^---[ \t]*\n([\s\S]*?)\n(?:---|\.\.\.)[ \t]*(?:\n|$)/.exec(text)?.[1];
  const said = front && /^nocite:(.*(?:\n[ \t]+.*)*)/m.exec(front)?.[1];
  if (!said) return [];
  return [...said.matchAll(/@(\*|\{[^{}\s]+\}|[\p{L}\p{N}_][\p{L}\p{N}_:.#$%&\-+?<>~/]*)/gu)].map((m) =>
    m[1] === '*' ? '*' : withoutTrailing(m[1]!.replace(/^\{|\}$/g, ''), ':.#$%&-+?<>~/'),
  );
}
