import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Context } from './context';
import { getJob, insertJob, updateJob } from './repositories/jobs';
import { inBrief, recentImports } from './services/import-reports';
import { openTestLibrary } from './test-library';

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
  await updateJob(ctx, id, { state: 'done', result });
  return getJob(ctx, id);
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
    expect(inBrief(await imported(report)).result).toEqual({
      kind: 'done',
      added: 3_250,
      merged: 2,
      skipped: 1,
    });
    const question = { kind: 'asks', total: 9, skipped: [], here: entries(3) };
    expect(inBrief(await imported(question)).result).toEqual({ kind: 'asks', total: 9, here: 3 });
  });
  it('is nothing yet while it runs, and a question is shown whole', async () => {
    await insertJob(ctx, 'import', { fileName: 'b.bib', format: 'bibtex', toIntake: false });
    const question = { kind: 'asks', total: 9, skipped: [], here: entries(3) };
    await imported(question);
    const shown = await recentImports(ctx);
    expect(shown.map((job) => job.result)).toEqual(expect.arrayContaining([null, question]));
  });
});
