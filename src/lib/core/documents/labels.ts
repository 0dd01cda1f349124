import { linesOf } from './lines';
import type { Leaf } from './types';

const ROMAN = /^(?=[ivxlc])(?:xc|xl|l?x{0,3})(?:ix|iv|v?i{0,3})$/i;
const romanValue = (text: string) => {
  const values: Record<string, number> = { i: 1, v: 5, x: 10, l: 50, c: 100 };
  return [...text.toLowerCase()].reduce((sum, c, i, all) => {
    const [value, next] = [values[c] ?? 0, values[all[i + 1] ?? ''] ?? 0];
    return sum + (value < next ? -value : value);
  }, 0);
};
const roman = (n: number): string => {
  const parts: [number, string][] = [[90, 'xc'], [50, 'l'], [40, 'xl'], [10, 'x'], [9, 'ix'], [5, 'v'], [4, 'iv'], [1, 'i']]; // prettier-ignore
  let [left, out] = [n, n >= 100 ? 'c'.repeat(Math.floor(n / 100)) : ''];
  left %= 100;
  for (const [value, text] of parts) for (; left >= value; left -= value) out += text;
  return out;
};

/** Numbers that stand alone, or at an end of a running head, in the margins above and below the text of a leaf. */
function marginNumbers(leaf: Leaf): { arabic: number[]; roman: number[] } {
  const found = { arabic: [] as number[], roman: [] as number[] };
  for (const line of linesOf(leaf)) {
    if (line.y > leaf.height * 0.12 && line.y < leaf.height * 0.88) continue;
    const alone = line.text.replace(/^[\s–—-]+|[\s–—-]+$/g, '').replace(/^(?:page|p\.|seite|s\.)\s*/i, '');
    if (ROMAN.test(alone)) found.roman.push(romanValue(alone));
    for (const m of [/^(\d{1,4})(?=\s|$)/.exec(alone), /(?:^|\s)(\d{1,4})$/.exec(alone)])
      if (m) found.arabic.push(Number(m[1]));
  }
  return found;
}

/** Whether labels say no more than the number of the leaf in the file. */
const trivial = (labels: string[]) => labels.every((label, i) => label === String(i + 1) || label === '');

/**
 * The printed page label of each leaf, `undefined` where nothing tells it. The file's own page labels hold when they
 * say more than the numbers of the leaves; else the running numbers printed in the margins do, when at least three
 * leaves in five (and two of them) carry numbers that rise together. Source of page labels: ISO 32000, 12.4.2.
 */
export function printedLabels(leaves: Leaf[], given: string[] | null): (string | undefined)[] {
  if (given && given.length === leaves.length && !trivial(given))
    return given.map((label) => label || undefined);
  const numbers = leaves.map(marginNumbers);
  const best = (kind: 'arabic' | 'roman') => {
    const votes = new Map<number, number>();
    numbers.forEach((n, i) =>
      new Set(n[kind].map((v) => v - i)).forEach((offset) => votes.set(offset, (votes.get(offset) ?? 0) + 1)),
    );
    return [...votes].sort((a, b) => b[1] - a[1])[0];
  };
  const arabic = best('arabic');
  const labels: (string | undefined)[] = leaves.map(() => undefined);
  if (arabic && arabic[1] >= 2 && arabic[1] >= leaves.length * 0.6) {
    const [offset] = arabic;
    // Numbering begins at the first leaf that carries its number or may: pages before number one have none.
    labels.forEach((_, i) => {
      if (i + offset >= 1) labels[i] = String(i + offset);
    });
    const front = labels.findIndex((l) => l !== undefined);
    const before = best('roman');
    if (front > 0 && before && before[1] >= 2)
      for (let i = 0; i < front; i++) if (i + before[0] >= 1) labels[i] = roman(i + before[0]);
    return labels;
  }
  if (arabic && leaves.length === 1 && !given) return labels;
  return labels;
}
