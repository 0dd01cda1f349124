import { joinedLines, squash } from '../text';
import type { Box } from './types';

/**
 * How figures and tables are named, at the beginning of their captions, in the languages read here; what follows is their
 * number. Common practice of printing.
 */
const NAMES =
  'fig(?:ure|ura|uur|\\.)?|tab(?:le|elle|leau|el|\\.)?|plates?|pl\\.|maps?|charts?|diagrams?|illustrations?|ill\\.|photo(?:graph)?s?|schemes?|box|abb(?:ildung|\\.)?|karte|tafel|taf\\.|schaubild|carte|planche|cuadro|tabla|mapa|l[áa]mina|illustratie|afb(?:eelding|\\.)?';
const NUMBER = '(?:[A-Z]?\\d{1,4}(?:[.–-]\\d{1,3}){0,2}[a-z]?|[IVXLC]{1,7}|[A-Z])';
const HEAD = new RegExp(`^((?:${NAMES})\\s*(${NUMBER}))(?![\\p{L}\\p{N}])\\s*[.:–—|-]*\\s*`, 'iu');

/** The head of a caption, and the number in it; a number without digits is in capitals and stands apart. */
function headOf(plain: string): { whole: string; number: string } | undefined {
  const found = HEAD.exec(plain);
  if (!found) return undefined;
  const [whole, number = '', count = ''] = found;
  const told = /\d/.test(count) || (count === count.toUpperCase() && number.at(-count.length - 1) === ' ');
  return told ? { whole, number } : undefined;
}

/** A caption: the number of the figure as it is printed, and the words behind it. */
export interface Caption {
  number: string;
  caption: string;
}

/** Whether a line begins as a caption does. */
export const isCaption = (line: string): boolean => headOf(squash(line)) !== undefined;

/** The number and the words of a caption; the number is empty where it has none. */
export function readCaption(text: string): Caption {
  const plain = squash(text);
  const head = headOf(plain);
  return head
    ? { number: head.number, caption: plain.slice(head.whole.length) }
    : { number: '', caption: plain };
}

/** A line of a leaf: its text, the height of its letters, and where it stands, in points from the top left corner. */
export interface LeafLine {
  text: string;
  x: number;
  /** Of its base. */
  y: number;
  width: number;
  size: number;
}

/** How far from a box a caption begins, in heights of its letters. */
const NEAR = 6;
/** How far its lines are from each other, base to base, in heights of its letters, and how many it has at most. */
const SPACED = 1.8;
const MOST_LINES = 12;

/** Whether a line stands under or over a box, rather than beside it. */
const inColumn = (line: LeafLine, box: { x: number; width: number }): boolean =>
  line.x < box.x + box.width && line.x + line.width > box.x;

/**
 * The caption of a box on a leaf `width` by `height` points large: the nearest line under it, else over it, else in it that
 * begins as captions do, with the lines that go on from it. Nothing where there is none.
 */
export function captionNear(
  lines: readonly LeafLine[],
  box: Box,
  { width, height }: { width: number; height: number },
): Caption | undefined {
  const at = { x: box.x * width, y: box.y * height, width: box.width * width, height: box.height * height };
  const bottom = at.y + at.height;
  const heads = lines
    .map((line, i) => ({ line, i }))
    .filter(({ line }) => isCaption(line.text) && inColumn(line, at));
  const under = ({ line }: { line: LeafLine }) => line.y - line.size - bottom;
  const over = ({ line }: { line: LeafLine }) => at.y - line.y;
  const nearest = (away: (head: { line: LeafLine }) => number) =>
    heads
      .filter((head) => away(head) > -head.line.size && away(head) < NEAR * head.line.size)
      .sort((a, b) => away(a) - away(b))[0];
  const within = heads.filter(({ line }) => line.y > at.y && line.y < bottom).at(-1);
  const head = nearest(under) ?? nearest(over) ?? within;
  if (!head) return undefined;
  const words = [head.line.text];
  let last = head.line;
  for (const line of lines.slice(head.i + 1, head.i + MOST_LINES)) {
    const goesOn =
      line.y > last.y &&
      line.y - last.y <= SPACED * Math.max(last.size, line.size) &&
      Math.abs(line.size - head.line.size) < 0.15 * head.line.size &&
      inColumn(line, head.line) &&
      !isCaption(line.text) &&
      // Above a figure the caption ends where the figure begins.
      !(head.line.y < at.y && line.y > at.y + line.size);
    if (!goesOn) break;
    words.push(line.text);
    last = line;
  }
  return readCaption(joinedLines(words));
}
