import { mkdtemp, readFile, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createHash } from 'node:crypto';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startApp, until, visit, type App, type Person } from './app';

let app: App;
let me: Person;
beforeAll(async () => {
  app = await startApp();
  me = await visit(app);
});
afterAll(async () => {
  await me.leave();
  await app.stop();
});

async function whole() {
  expect(app.rows<{ integrity_check: string }>('PRAGMA integrity_check')).toEqual([
    { integrity_check: 'ok' },
  ]);
  expect(app.rows('PRAGMA foreign_key_check')).toEqual([]);
  for (const table of ['source', 'passage'])
    expect(
      app.rows(`SELECT id FROM ${table} WHERE id NOT IN (SELECT subject_id FROM revision)`),
      table,
    ).toEqual([]);
  for (const copy of app.rows<{ sha256: string; reading_sha256: string }>(
    'SELECT sha256, reading_sha256 FROM copy',
  ))
    for (const sha of [copy.sha256, copy.reading_sha256]) {
      const path = join(app.dataFolder, 'files', sha.slice(0, 2), sha);
      expect((await stat(path)).isFile()).toBe(true);
      expect(
        createHash('sha256')
          .update(await readFile(path))
          .digest('hex'),
      ).toBe(sha);
    }
}
const job = () =>
  app.rows<{ state: string; error: string | null; kind: string }>(
    'SELECT * FROM job ORDER BY created DESC',
  )[0]!;

describe('the server is killed', () => {
  it('in the middle of a capture: nothing half-saved, it goes on with it, and twice it says so', async () => {
    await me.open('/');
    await me.capture('https://slow.example/paper');
    const asked = () => app.standIns.asked.get('slow.example') ?? 0;
    await until('the stand-in to be asked', async () => asked() > 0);
    const before = asked();
    await app.kill();
    await app.start();
    await whole();
    expect(app.rows('SELECT id FROM source')).toEqual([]);
    await until('the stand-in to be asked again', async () => asked() > before);
    await app.kill();
    await app.start();
    await whole();
    expect(app.rows('SELECT id FROM source')).toEqual([]);
    expect(job()).toMatchObject({ kind: 'capture', state: 'failed' });
    await me.open('/');
    await me.see('The server stopped in the middle of this', '.tray');
    await me.see('Try again', '.tray');
  });

  it('at many moments of a burst of captures: every source that is there is whole', async () => {
    const addresses = [
      'https://marshletters.example/articles/3-1-7',
      'https://repository.northsound.example/handle/1/4455',
      'https://smallhydro.example/9/2/33',
    ];
    for (let round = 0; round < 4; round++) {
      const answers = await Promise.all(
        addresses.map((text) =>
          fetch(`${app.url}/api/captures`, {
            method: 'POST',
            headers: { origin: app.url, 'content-type': 'application/json' },
            body: JSON.stringify({ text }),
          }),
        ),
      );
      expect(answers.every((a) => a.ok)).toBe(true);
      const hosts = ['marshletters.example', 'doi.example', 'smallhydro.example'];
      const asked = () => hosts.map((h) => app.standIns.asked.get(h) ?? 0).reduce((a, b) => a + b, 0);
      const before = asked();
      // Each round lets the burst get a little further before the power goes.
      await until(
        'the burst to get going',
        async () =>
          asked() >= before + round ||
          app.rows("SELECT id FROM job WHERE state IN ('waiting','running')").length === 0,
      );
      await app.kill();
      await app.start();
      await whole();
      await until(
        'what was left to be gone on with',
        async () => app.rows("SELECT id FROM job WHERE state IN ('waiting', 'running')").length === 0,
      );
      await whole();
      const copies = app.rows<{ n: number }>('SELECT count(*) n FROM copy')[0]!.n;
      const captured = app.rows<{ n: number }>('SELECT count(*) n FROM source')[0]!.n;
      expect(copies).toBe(captured);
    }
  });

  it('while fields are saved: what was answered is there, and what was not is there whole or not at all', async () => {
    const [{ id }] = app.rows<{ id: string }>('SELECT id FROM source ORDER BY id') as [{ id: string }];
    const now = () =>
      app.rows<{ revision: number; edition: string | null; last: number }>(
        "SELECT revision, json_extract(record, '$.edition') AS edition, (SELECT max(number) FROM revision WHERE subject_id = source.id) AS last FROM source WHERE id = ?",
        id,
      )[0]!;
    for (let round = 0; round < 3; round++) {
      let answered = 0;
      const { revision } = now();
      // One after the other, until the power goes.
      const saving = (async () => {
        for (let n = 1; ; n++) {
          const answer = await fetch(`${app.url}/api/sources/${id}`, {
            method: 'PATCH',
            headers: { origin: app.url, 'content-type': 'application/json' },
            body: JSON.stringify({ base: revision + n - 1, fields: { edition: `${round}-${n}` } }),
          }).catch(() => undefined);
          if (!answer?.ok) return;
          answered = n;
        }
      })();
      await until('some to be answered', async () => answered > 10 * (round + 1));
      await app.kill();
      await saving;
      await app.start();
      await whole();
      const { revision: kept, edition, last } = now();
      expect([answered, answered + 1]).toContain(kept - revision);
      expect(edition).toBe(`${round}-${kept - revision}`);
      expect(last).toBe(kept);
    }
  });

  it('in the middle of an import: all of it is there or none of it', async () => {
    const before = app.rows('SELECT id FROM source').length;
    const entries = Array.from(
      { length: 1_500 },
      (_, i) =>
        `@book{k${i}, title={Book ${i}}, author={Author ${i}, A.}, year={${1500 + (i % 500)}}, publisher={P}}`,
    );
    const path = join(await mkdtemp(join(tmpdir(), 'retexa-big-')), 'big.bib');
    await writeFile(path, entries.join('\n'));
    await me.open('/import');
    const input = (await me.page.$('input[type=file]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(path);
    await me.see('Adding', '.report');
    await app.kill();
    await app.start();
    // It is begun anew from the file, which was kept for that.
    await until('the import to end', async () => job().state === 'done');
    await whole();
    expect(app.rows('SELECT id FROM source').length).toBe(before + 1_500);
    expect(app.rows('SELECT DISTINCT citekey FROM source').length).toBe(before + 1_500);
    await me.open('/import');
    await me.see('1,500 sources added');
  });

  it('in the middle of merging many: all of them are one, or none', async () => {
    const path = join(await mkdtemp(join(tmpdir(), 'retexa-twice-')), 'twice.bib');
    const entries = Array.from({ length: 240 }, (_, i) => {
      const n = i >> 1;
      return `@article{twice${i}, title={On sluices, ${i % 2 ? 'once' : 'Once'} more: ${n}}, author={Osei, Kofi}, year={2001}, journal={Shore}, volume={${n + 1}}, doi={10.5555/twice.${n}}}`;
    });
    await writeFile(path, entries.join('\n'));
    await me.open('/import');
    const input = (await me.page.$('input[type=file]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(path);
    const there = () => app.rows("SELECT id FROM source WHERE title LIKE 'On sluices%'").length;
    await until('the import to end', async () => there() === 240 && job().state === 'done');
    const merged = () =>
      app.rows("SELECT id FROM source WHERE merged_into IS NOT NULL AND title LIKE 'On sluices%'").length;
    const ended: number[] = [];
    for (const frames of [1, 4, 10, 25]) {
      await me.open('/duplicates/sure');
      await me.see('120 groups', '.sub');
      await me.press('Merge 120 groups');
      for (let i = 0; i < frames; i++) await me.page.evaluate(() => new Promise(requestAnimationFrame));
      await app.kill();
      await app.start();
      await whole();
      ended.push(merged());
      expect([0, 120]).toContain(merged());
      if (merged() === 0) continue;
      await me.open('/duplicates');
      await me.press('1 merge can be undone');
      await me.press('Undo', '.merges');
      await me.see('The merge is undone');
      expect(merged()).toBe(0);
    }
    // At least one was cut off.
    expect(ended).toContain(0);
  });
});
