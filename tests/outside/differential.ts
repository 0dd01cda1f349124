/** Our processor held against citeproc-js, entry by entry, as text and in formatting. */
import { readFileSync } from 'node:fs';
import { dialectOf, type Cite } from '../../src/lib/core/csl';
import { locale, style } from './catalogue';
import { theirs } from './citeproc';
import { ours } from './ours';
import { citations, works } from './works';

const catalogue = JSON.parse(readFileSync('build/catalogue.json', 'utf8')) as {
  styles: Record<string, { locale?: string }>;
};

/** Every independent style of the catalogue, in order. */
export const allStyles = (): string[] => Object.keys(catalogue.styles).sort();

const WORKS = works();
const CLUSTERS: Cite[][] = citations(WORKS);

export interface Compared {
  total: number;
  same: number;
  differences: { key: string; theirs: string; ours: string }[];
}

/** A style in its own language or another, over all works; nothing when the other processor leaves entries out. */
export function compare(id: string, lang = catalogue.styles[id]?.locale ?? 'en-US'): Compared | undefined {
  const full = dialectOf(lang);
  const [tree, words] = [style(id), locale(full)];
  const other = theirs(tree, words, full, WORKS, CLUSTERS);
  if (!other) return undefined;
  const own = ours(tree, words, full, WORKS, CLUSTERS);
  const differences = [...other].flatMap(([key, text]) =>
    own.get(key) === text ? [] : [{ key, theirs: text, ours: own.get(key) ?? '' }],
  );
  return { total: other.size, same: other.size - differences.length, differences };
}
