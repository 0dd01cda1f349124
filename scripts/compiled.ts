/** Run by the build: does what commands do most with some works, and keeps the code that was compiled for it. */
import '../src/cli/engine';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { keepCompiled, opened } from '../src/cli/compiled';
import { toCsl } from '../src/lib/core/source';
import { largeLibrary } from './large-library';

const { cite, convert } = opened(resolve('build/cli/commands.cjs')) as typeof import('../src/cli/commands');
const folder = mkdtempSync(join(tmpdir(), 'retexa-keeping-'));
try {
  const file = join(folder, 'works.json');
  writeFileSync(file, JSON.stringify([...largeLibrary(120)].map((record, i) => toCsl(`w${i}`, record))));
  for (const style of ['apa', 'chicago-note-bibliography', 'ieee', 'modern-language-association'])
    cite(file, { style });
  for (const to of ['bibtex', 'ris']) {
    const out = join(folder, to);
    convert(file, { to, out });
    convert(out, { from: to, to: 'csl-json' });
  }
  keepCompiled();
} finally {
  rmSync(folder, { recursive: true });
}
