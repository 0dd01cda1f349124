/** What ends work that is done apart: what it works, not what the clock says. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build } from 'vite';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { apart, EndedApart, type Apart } from './run';

/** How long a task may work here, in milliseconds. */
const MAY = 400;

let works: Apart;
beforeAll(async () => {
  const folder = mkdtempSync(join(tmpdir(), 'retexa-apart-'));
  const entry = join(folder, 'child.ts');
  writeFileSync(
    entry,
    `import { serve } from ${JSON.stringify(new URL('./serve.ts', import.meta.url).pathname)};
serve(async (task) => {
  if (task === 'spins') for (;;);
  if (task === 'waits') await new Promise((done) => setTimeout(done, ${3 * MAY}));
  if (task === 'grows') for (const all = []; ; ) all.push(Buffer.alloc(1e6, 1));
  return task;
});`,
  );
  await build({
    configFile: false,
    logLevel: 'silent',
    build: { ssr: entry, outDir: folder, rollupOptions: { output: { entryFileNames: 'child.mjs' } } },
  });
  works = apart(join(folder, 'child.mjs'), { processes: 1, megabytes: 300 });
}, 120_000);
afterAll(() => works.close());

const ended = async (task: string, ms = MAY) => {
  const error = await works.run(task, { ms }).catch((e: unknown) => e);
  return error instanceof EndedApart ? error.why : error;
};

it('ends what works for longer than it may, and goes on with the next', async () => {
  expect(await ended('spins')).toBe('late');
  expect(await works.run('next', { ms: MAY })).toBe('next');
}, 120_000);

it('does not count what a task waits for', async () => {
  expect(await works.run('waits', { ms: MAY })).toBe('waits');
}, 120_000);

it('ends what takes more memory than there is', async () => {
  expect(await ended('grows', 60_000)).toBe('memory');
}, 120_000);
