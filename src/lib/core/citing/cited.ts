import { withoutTrailing } from '../text';

/** Commands that cite, of LaTeX and its packages: `\cite`, `\citep*`, `\textcite`, `\autocites`, `\nocite` … */
const COMMAND = /\\[A-Za-z]{0,40}[cC]ite[A-Za-z]{0,40}\*?/g;

/** Keys in the arguments of a cite command, from where the command's name ends: `[see][12]{a,b}`, and of `\cites` several times. */
function keysAfter(text: string, from: number): string[] {
  const keys: string[] = [];
  // Bounded, so that arguments which are never closed are not looked through to the end of the text, each anew.
  const argument = /\s{0,20}(?:\[[^\]]{0,500}\]|\([^)]{0,500}\)|\{([^{}]{0,5000})\})/y;
  argument.lastIndex = from;
  for (let m = argument.exec(text); m; m = argument.exec(text))
    if (m[1] !== undefined) keys.push(...m[1].split(','));
  return keys;
}

/** Keys as Markdown with citations has them, after an `@` that does not stand in a word: `[@a, 12; @b]`, `@c`, `@{d}`. */
const MARKDOWN = /(?<![\p{L}\p{N}.])@(?:\{([^{}\s]+)\}|([\p{L}\p{N}_][\p{L}\p{N}_:.#$%&\-+?<>~/]*))/gu;

/**
 * The citekeys a text cites, in the order they first come: LaTeX commands (LaTeX2e `\cite`; natbib and biblatex
 * manuals) and pandoc's Markdown citations (its manual, "Citation syntax"). Unknown keys are for the caller to tell.
 */
export function citedKeys(text: string): string[] {
  const found: [at: number, key: string][] = [];
  for (const m of text.matchAll(COMMAND))
    for (const key of keysAfter(text, m.index + m[0].length)) found.push([m.index, key.trim()]);
  for (const m of text.matchAll(MARKDOWN))
    found.push([m.index, m[1] ?? withoutTrailing(m[2]!, ':.#$%&-+?<>~/')]);
  return [...new Set(found.sort(([a], [b]) => a - b).map(([, key]) => key))].filter((k) => k && k !== '*');
}
