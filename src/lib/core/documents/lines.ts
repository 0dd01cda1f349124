import { squash } from '../text';
import type { Leaf, Run } from './types';

/** A line of text. `size` is the size most of its characters have. */
export interface Line {
  text: string;
  x: number;
  y: number;
  width: number;
  size: number;
}

/** Whether a run is raised or lowered small print within a line, as footnote marks are. */
const isMark = (run: Run, size: number) => run.size < size * 0.8 && run.text.trim().length <= 6;

function lineFrom(runs: Run[]): Line | undefined {
  const weight = new Map<number, number>();
  for (const r of runs) weight.set(r.size, (weight.get(r.size) ?? 0) + r.text.trim().length);
  const size = [...weight].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
  let text = '';
  let end = runs[0]!.x;
  for (const run of runs) {
    if (text && run.x - end > size * 0.18 && !/\s$/.test(text) && !/^\s/.test(run.text)) text += ' ';
    text += run.text;
    end = Math.max(end, run.x + run.width);
  }
  const clean = squash(text);
  if (!clean) return undefined;
  const x = Math.min(...runs.map((r) => r.x));
  const base = runs.find((r) => r.size === size) ?? runs[0]!;
  return { text: clean, x, y: base.y, width: end - x, size };
}

/**
 * The lines of a leaf in the order the file gives them, which is reading order in nearly all documents. Runs on one
 * base line that follow each other without a wide gap are one line; columns stay apart. `marks` says whether raised
 * small print (footnote and affiliation marks) is kept.
 */
export function linesOf(leaf: Leaf, marks = true): Line[] {
  const lines: Line[] = [];
  let current: Run[] = [];
  const flush = () => {
    const line = current.length ? lineFrom(current) : undefined;
    if (line) lines.push(line);
    current = [];
  };
  for (const run of leaf.runs) {
    if (run.text === '') continue;
    const last = current[current.length - 1];
    if (last) {
      const size = Math.max(last.size, run.size);
      const level = Math.abs(run.y - last.y) < size * 0.55;
      const gap = run.x - (last.x + last.width);
      if (!level || gap > size * 2.2 || gap < -size * 1.5) flush();
      else if (!marks && isMark(run, last.size)) {
        // Its room stays taken, so that no space comes to stand where the mark was.
        current[current.length - 1] = { ...last, width: run.x + run.width - last.x };
        continue;
      }
    }
    current.push(run);
  }
  flush();
  return lines;
}

/** Lines that belong together. `heading` is set larger than the text around it. */
export interface Paragraph {
  lines: Line[];
  heading: boolean;
}

/** The size most of a document's text is set in. */
export function bodySize(leaves: Leaf[]): number {
  const weight = new Map<number, number>();
  for (const leaf of leaves.slice(0, 40))
    for (const run of leaf.runs) {
      const size = Math.round(run.size * 2) / 2;
      weight.set(size, (weight.get(size) ?? 0) + run.text.length);
    }
  return [...weight].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 10;
}

/** Lines grouped into paragraphs: a new one at a wider gap, another size, an indent, or after a short last line. */
export function paragraphsOf(lines: Line[], body: number): Paragraph[] {
  const paragraphs: Paragraph[] = [];
  let widest = 0;
  for (const line of lines) {
    const open = paragraphs[paragraphs.length - 1];
    const last = open?.lines[open.lines.length - 1];
    const gap = last ? line.y - last.y : 0;
    const heading = line.size > body * 1.12;
    const begins =
      !open ||
      !last ||
      Math.abs(line.size - last.size) > body * 0.12 ||
      gap < -body * 0.5 ||
      gap > Math.max(line.size, last.size) * 1.75 ||
      (!heading &&
        (line.x - last.x > body * 0.7 || last.width < widest * 0.72) &&
        open.lines.length > 0 &&
        gap > body * 0.5 &&
        line.x >= last.x - 1);
    if (begins) {
      paragraphs.push({ lines: [line], heading });
      widest = line.width;
    } else {
      open.lines.push(line);
      widest = Math.max(widest, line.width);
    }
  }
  return paragraphs;
}

/** The text of a paragraph as one string. `words` are the document's words, to tell a divided word from a compound. */
export function joined(lines: Line[], words: Set<string>): { text: string; parts: string[] } {
  const parts = lines.map((line, i) => {
    const next = lines[i + 1];
    if (!next) return line.text;
    const m = /(\p{L}+)[-‐\u00ad]$/u.exec(line.text);
    const after = /^(\p{Ll}[\p{L}]*)/u.exec(next.text);
    if (!m || !after) return `${line.text} `;
    const compound = `${m[1]!}-${after[1]!}`.toLowerCase();
    return words.has(compound) ? line.text : line.text.slice(0, -1);
  });
  return { text: parts.join(''), parts };
}

/** Words with a hyphen that stand whole within a line somewhere in the document, in lower case. */
export function compoundsOf(leaves: Leaf[]): Set<string> {
  const words = new Set<string>();
  for (const leaf of leaves.slice(0, 400))
    for (const line of linesOf(leaf))
      for (const m of line.text.matchAll(/\p{L}+-\p{Ll}+/gu)) words.add(m[0].toLowerCase());
  return words;
}
