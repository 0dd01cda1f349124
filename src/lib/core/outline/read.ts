import { squash } from '../text';
import type { ItemKind } from './items';

/** An outline that was read: its sections as it is read, with how deep each stands, and what is said under each. */
export interface ReadOutline {
  title: string | undefined;
  sections: {
    name: string;
    depth: number;
    said: { kind: Extract<ItemKind, 'sentence' | 'question'>; words: string }[];
  }[];
}

/** How long a name and a paragraph can be, in characters; what is longer is cut between words. */
const LONGEST_NAME = 200;
const LONGEST_WORDS = 5_000;
const cut = (text: string, most: number): string =>
  text.length <= most ? text : `${text.slice(0, most - 1).replace(/\s+\S*$/, '')}…`;

/** Words without the marks of Markdown around them; of a text that will be cut, no more is read than can be kept. */
const plainly = (text: string): string =>
  squash(
    text
      .slice(0, 4 * LONGEST_WORDS)
      .replace(/!?\[([^[\]]{0,2000})\]\([^)\s]{0,2000}\)/g, '$1')
      .replace(/(\*\*|__)(?=\S)([^*_]{1,2000})\1/g, '$2')
      .replace(/(?<![\p{L}\p{N}])([*_])(?=\S)([^*_]{1,2000})\1(?![\p{L}\p{N}])/gu, '$2')
      .replace(/\\([!-/:-@[-`{-~])/g, '$1'),
  ).trim();

/** Puts what is said under the section it stands in; before the first heading, under one of its own. */
function under(outline: ReadOutline, text: string): void {
  const words = cut(plainly(text), LONGEST_WORDS);
  if (!words) return;
  if (outline.sections.length === 0) outline.sections.push({ name: 'Beginning', depth: 6, said: [] });
  outline.sections.at(-1)!.said.push({ kind: words.endsWith('?') ? 'question' : 'sentence', words });
}

/** Depths without gaps: a heading stands at most one deeper than the one before it. */
function withoutGaps(outline: ReadOutline): ReadOutline {
  const levels: number[] = [];
  for (const section of outline.sections) {
    while (levels.length && levels.at(-1)! >= section.depth) levels.pop();
    levels.push(section.depth);
    section.depth = levels.length - 1;
  }
  return outline;
}

/**
 * An outline of Markdown (CommonMark 0.31, 4.2 and 4.3): headings are sections, paragraphs and list items what is said under
 * them. A first heading above all others is the title.
 */
export function readMarkdownOutline(text: string): ReadOutline {
  const outline: ReadOutline = { title: undefined, sections: [] };
  let paragraph: string[] = [];
  const end = () => {
    if (paragraph.length) under(outline, paragraph.join(' '));
    paragraph = [];
  };
  const heading = (name: string, level: number) => {
    end();
    const words = cut(plainly(name), LONGEST_NAME);
    if (words) outline.sections.push({ name: words, depth: level, said: [] });
  };
  let fence: string | undefined;
  const lines = text.replace(/^---[ \t]*\n[\s\S]*?\n(?:---|\.\.\.)[ \t]*(?:\n|$)/, '').split(/\r\n|\r|\n/);
  for (const line of lines) {
    const mark = /^ {0,3}(`{3,}|~{3,})/.exec(line)?.[1];
    if (fence !== undefined) {
      if (mark?.startsWith(fence)) fence = undefined;
      continue;
    }
    const atx = /^ {0,3}(#{1,6})[ \t]+(.*)$/.exec(line);
    const setext = /^ {0,3}(=+|-+)[ \t]*$/.exec(line);
    const item = /^\s{0,40}(?:[-*+]|\d{1,9}[.)])[ \t]+(.*)$/.exec(line);
    if (mark) {
      end();
      fence = mark;
    } else if (atx) heading(atx[2]!.replace(/[ \t]+#+[ \t]*$/, ''), atx[1]!.length);
    else if (setext && paragraph.length) {
      const name = paragraph.join(' ');
      paragraph = [];
      heading(name, setext[1]![0] === '=' ? 1 : 2);
    } else if (line.trim() === '' || setext) end();
    else if (item) {
      end();
      paragraph.push(item[1]!);
    } else paragraph.push(line.replace(/^\s*(?:>\s?)+/, '').trim());
  }
  end();
  const [first, ...others] = outline.sections;
  if (first && others.length && first.said.length === 0 && others.every((s) => s.depth > first.depth)) {
    outline.title = first.name;
    outline.sections = others;
  }
  return withoutGaps(outline);
}

/** A line of an outline in a file that nests them, with those under it. */
export interface Nested {
  text: string;
  under: Nested[];
}

/** An outline of nested lines, as OPML has it: those that hold others are sections, and so are all at the top; others are said. */
export function readNestedOutline(lines: readonly Nested[], title?: string): ReadOutline {
  const outline: ReadOutline = { title, sections: [] };
  const waiting = [...lines].reverse().map((line) => ({ line, depth: 0 }));
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { line, depth } = next;
    if (depth > 0 && line.under.length === 0) {
      under(outline, line.text);
      continue;
    }
    const name = cut(squash(line.text).trim(), LONGEST_NAME);
    outline.sections.push({ name: name || 'Without a name', depth, said: [] });
    // What is said under a section comes before the sections under it.
    const said = line.under.filter((l) => l.under.length === 0);
    const sections = line.under.filter((l) => l.under.length > 0);
    for (const one of [...said, ...sections].reverse()) waiting.push({ line: one, depth: depth + 1 });
  }
  return withoutGaps(outline);
}
