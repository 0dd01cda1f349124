import { decodeEntities } from '../text';
import type { Locator } from './types';

/**
 * Where some words stand in a text, whatever white space is between them; UTF-16 offsets. `undefined` when they are
 * not there. For words selected on a page as it was seen, whose white space is not that of the kept text.
 */
export function findWords(text: string, words: string): { start: number; end: number } | undefined {
  const wanted = words.replace(/\s+/gu, '');
  if (wanted === '') return undefined;
  // How far to fall back where the words stop agreeing (Knuth, Morris and Pratt 1977), so that no text is read twice.
  const back = new Int32Array(wanted.length);
  for (let i = 1, n = 0; i < wanted.length; i++) {
    while (n > 0 && wanted[i] !== wanted[n]) n = back[n - 1]!;
    if (wanted[i] === wanted[n]) n++;
    back[i] = n;
  }
  const at = new Int32Array(wanted.length);
  for (let i = 0, n = 0, seen = 0; i < text.length; i++) {
    if (/\s/u.test(text[i]!)) continue;
    at[seen++ % wanted.length] = i;
    while (n > 0 && text[i] !== wanted[n]) n = back[n - 1]!;
    if (text[i] === wanted[n]) n++;
    if (n === wanted.length) return { start: at[seen % wanted.length]!, end: i + 1 };
  }
  return undefined;
}

/** Markup as it is parted: its tags, and the text before each, the last with none behind it. Each character is read once. */
function* parted(html: string): Generator<{ text: string; tag: string }> {
  let at = 0;
  for (;;) {
    const open = html.indexOf('<', at);
    const close = open === -1 ? -1 : html.indexOf('>', open);
    if (close === -1) return yield { text: html.slice(at), tag: '' };
    yield { text: html.slice(at, open), tag: html.slice(open, close + 1) };
    at = close + 1;
  }
}

const bare = (html: string): string => decodeEntities([...parted(html)].map(({ text }) => text).join(''));

const PARAGRAPH = /^<\/?p[\s>]/;
/** The text of markup by its paragraphs, what stands between them too; empty ones are left out. */
function paragraphsIn(html: string): string[] {
  const found = [''];
  for (const { text, tag } of parted(html)) {
    found[found.length - 1] += text;
    if (PARAGRAPH.test(tag)) found.push('');
  }
  return found.map(decodeEntities).filter(Boolean);
}

const BEGINS = /^<span\b[^>]*\sdata-begins="([^"]*)"/;
/** How much of the next page is looked at for words that go on over the end of one, in characters. */
const GOES_ON = 200;

/** The printed page some words begin on, in a book without leaves that says where its pages begin. */
function pageBegunIn(html: string, words: string): string | undefined {
  if (!html.includes('data-begins="')) return undefined;
  const pages: { label: string | undefined; text: string }[] = [{ label: undefined, text: '' }];
  for (const { text, tag } of parted(html)) {
    pages.at(-1)!.text += text;
    const label = BEGINS.exec(tag)?.[1];
    if (label !== undefined) pages.push({ label: decodeEntities(label), text: '' });
  }
  const texts = pages.map(({ text }) => decodeEntities(text));
  const at = texts.findIndex((text, i) => {
    const found = (text + (texts[i + 1] ?? '').slice(0, GOES_ON)).indexOf(words);
    return found !== -1 && found < text.length;
  });
  return pages[at]?.label;
}

/**
 * The locator of words in a reading page: the printed page they begin on, as its leaf or the book says, else the number of their
 * paragraph, counted from 1 as unpaginated works are cited by common practice; `null` when neither is known.
 */
export function locatorIn(html: string, exact: string): Locator | null {
  const first = exact.split('\n')[0]!.trim().slice(0, 80);
  if (!first) return null;
  if (html.includes('class="leaf"')) {
    for (const leaf of html.split('<section class="leaf"').slice(1)) {
      if (!bare(leaf.slice(leaf.indexOf('>') + 1)).includes(first)) continue;
      const label = /^[^>]*\sdata-page="([^"]+)"/.exec(leaf)?.[1];
      return label ? { label: 'page', value: bare(label) } : null;
    }
    return null;
  }
  const page = pageBegunIn(html, first);
  if (page) return { label: 'page', value: page };
  const nth = html
    .split(/<p[\s>]/)
    .slice(1)
    .findIndex((p) => bare(p).includes(first));
  return nth === -1 ? null : { label: 'paragraph', value: String(nth + 1) };
}

/** A leaf of a document with pages: its number in the file, its printed page, and where its text is (UTF-16 offsets). */
export interface LeafText {
  leaf: number;
  page: string | undefined;
  start: number;
  end: number;
}

/** Where the text of each leaf of a reading page stands in the text of the whole (see `textOf`); none of a page of the web. */
export function leavesIn(html: string): LeafText[] {
  const leaves: LeafText[] = [];
  let at = 0;
  for (const part of html.split('<section class="leaf"').slice(1)) {
    const open = part.indexOf('>');
    const text = paragraphsIn(part.slice(open + 1)).join('\n');
    const [, leaf] = /\sdata-leaf="(\d+)"/.exec(part.slice(0, open)) ?? [];
    const [, page] = /\sdata-page="([^"]+)"/.exec(part.slice(0, open)) ?? [];
    const start = at > 0 && text ? at + 1 : at;
    leaves.push({ leaf: Number(leaf), page: page && bare(page), start, end: start + text.length });
    at = start + text.length;
  }
  return leaves;
}
