import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Context } from '../access/context';
import { migrationSource } from '../db/migrations';
import { getJob, insertJob, openJobs, updateJob } from '../jobs/repository';
import { closePools } from '../workers/pools';
import { importFile } from './index';
import { inBrief, recentImports } from './reports';
import type { ImportResult } from './index';
import { openBefore, openTestLibrary } from '../test-library';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
});
afterEach(() => db.destroy());

const entries = (n: number, notes: string[] = []) =>
  Array.from({ length: n }, (_, i) => ({ id: `s${i}`, label: `Pell ${i}`, line: i + 1, notes }));
async function imported(result: unknown) {
  const { id } = await insertJob(ctx, 'import', { fileName: 'a.bib', format: 'bibtex', toIntake: false });
  await updateJob(ctx, id, { state: 'done', result, brief: inBrief(result as ImportResult) });
}
const report = {
  kind: 'done',
  fileName: 'a.bib',
  format: 'bibtex',
  added: [...entries(3_000), ...entries(250, ['month “nov2” is not known'])],
  merged: entries(2),
  skipped: entries(1).map(({ line }) => ({ line, reason: 'never closed', text: '@book{' })),
  leftOut: 4,
  doubles: [],
};

describe('what is shown of an import', () => {
  it('is counts and the first lines of each kind, however long the file', async () => {
    await imported(report);
    const [shown] = await recentImports(ctx);
    expect(shown!.result).toMatchObject({
      added: 3_250,
      merged: 2,
      leftOut: 4,
      skipped: { total: 1, items: [{ line: 1 }] },
      doubles: { total: 0, items: [] },
      noted: { total: 250 },
    });
    expect((shown!.result as { noted: { items: unknown[] } }).noted.items).toHaveLength(200);
  });
  it('is said beside every page in numbers', async () => {
    const question = { kind: 'asks', total: 9, skipped: [], here: entries(3) };
    await imported(report);
    await imported(question);
    expect((await openJobs(ctx)).map((job) => job.result)).toEqual(
      expect.arrayContaining([
        { kind: 'done', added: 3_250, merged: 2, skipped: 1 },
        { kind: 'asks', total: 9, here: 3 },
      ]),
    );
  });
  it('is nothing yet while it runs, and a question is shown whole', async () => {
    await insertJob(ctx, 'import', { fileName: 'b.bib', format: 'bibtex', toIntake: false });
    const question = { kind: 'asks', total: 9, skipped: [], here: entries(3) };
    await imported(question);
    const shown = await recentImports(ctx);
    expect(shown.map((job) => job.result)).toEqual(expect.arrayContaining([null, question]));
  });
  it('is said of imports that were made before results were kept in brief', async () => {
    const old = await openBefore('0007-jobs-in-brief');
    const row = { library_id: 'l', person_id: 'p', state: 'done', input: '{}', created: 'x', updated: 'x' };
    const question = { kind: 'asks', total: 9, skipped: [], here: entries(3) };
    await old('job').insert([
      { ...row, id: 'a', kind: 'import', result: JSON.stringify(report) },
      { ...row, id: 'b', kind: 'import', result: JSON.stringify(question) },
      { ...row, id: 'c', kind: 'import', result: null },
      { ...row, id: 'd', kind: 'import', result: 'null' },
      { ...row, id: 'e', kind: 'capture', result: '{"kind":"kept"}' },
    ]);
    await old.migrate.latest({ migrationSource });
    const rows = (await old('job').orderBy('id').select('brief')) as { brief: string | null }[];
    expect(rows.map((r) => r.brief && (JSON.parse(r.brief) as unknown))).toEqual([
      inBrief(report as unknown as ImportResult),
      inBrief(question as unknown as ImportResult),
      null,
      null,
      null,
    ]);
    await old.destroy();
  });
});

describe('an import', () => {
  it('keeps its file until it has ended well, and lets it go then', async () => {
    const bytes = new TextEncoder().encode('@book{pell2001, author={Pell, A.}, title={Sluices}, year=2001}');
    const { id } = await importFile(ctx, bytes, { fileName: 'a.bib', toIntake: false });
    expect((await getJob(ctx, id)).input).toMatchObject({ sha256: expect.any(String) as string });
    for (;;) {
      const { state, error } = await getJob(ctx, id);
      expect(error).toBeNull();
      if (state === 'done') break;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    expect((await getJob(ctx, id)).input).toEqual({ fileName: 'a.bib', format: 'bibtex', toIntake: false });
    expect(await db('leaving_file').select('sha256')).toHaveLength(1);
    await closePools();
  });
});
