/** Run by the build: does what commands do most with some works, and keeps the code that was compiled for it. */
import './engine';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { toCsl } from '../lib/core/source';
import { largeLibrary } from '../../scripts/large-library';
import { keepCompiled, opened } from './compiled';

const { cite, convert } = opened(
  fileURLToPath(new URL('./commands.cjs', import.meta.url)),
) as typeof import('./commands');
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
