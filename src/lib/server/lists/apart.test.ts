/** Lists that are gathered in a thread of their own, beside a database file that is written meanwhile. */
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Knex } from 'knex';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { defaultContext, transaction, type Context } from '../access/context';
import { config } from '../config';
import { openDatabase } from '../db/open';
import { keepPassage } from '../passages';
import { editSource, getSource } from '../sources';
import { insertSource } from '../sources/repository';
import { closePools } from '../workers/pools';
import { exportFile, listOfView, referenceList, savedList, toldOfView, type ToldApart } from './index';

let db: Knex;
let ctx: Context;
beforeEach(async () => {
  process.env.RETEXA_DATA = mkdtempSync(join(tmpdir(), 'retexa-unit-'));
  db = await openDatabase(config.databaseFile);
  ctx = await defaultContext(db);
});
afterEach(async () => {
  await closePools();
  await db.destroy();
});

const add = (title: string, family: string) =>
  transaction(ctx, async (inner) => {
    const record = sourceRecord.parse({
      type: 'book',
      title,
      author: [{ family, given: 'Ada' }],
      issued: { 'date-parts': [[2001]] },
    });
    return (await insertSource(inner, record, { why: 'test' })).id;
  });
const library = { kind: 'library' } as const;
const apa = { style: 'apa', locale: 'en-US' };
const opened = (bytes: Uint8Array) => JSON.parse(new TextDecoder().decode(bytes)) as never;
const asJson = (value: unknown) => JSON.parse(JSON.stringify(value)) as unknown;

it('are what they would be here, and what they are after a change', async () => {
  await add('Sluices', 'Pell');
  const id = await add('Marshes', 'Aldous');
  const view = async () => opened(await listOfView(ctx, 'view', library, apa)) as { plain: string };
  expect(await view()).toEqual(asJson(await referenceList(ctx, library, apa)));
  expect((await view()).plain.trim()).toBe('Aldous, A. (2001). Marshes.\n\nPell, A. (2001). Sluices.');
  await editSource(ctx, id, 1, { fields: { title: 'Marshes and tides' } });
  expect((await view()).plain).toContain('Aldous, A. (2001). Marshes and tides.');
  expect((await getSource(ctx, id)).revision).toBe(2);
});

it('tell what tells their works apart', async () => {
  const [first, second] = [await add('Marshes', 'Pell'), await add('Sluices of <i>Zostera</i>', 'Pell')];
  await add('Dykes', 'Ng');
  const { tells, groups } = opened(await toldOfView(ctx, library, apa)) as ToldApart;
  expect(tells).toBe(true);
  expect(groups).toEqual([
    [
      { id: first, title: 'Marshes', alone: '(Pell, 2001)', now: '(Pell, 2001a)', given: [], branch: false, letter: 'a', still: 0 },
      { id: second, title: 'Sluices of Zostera', alone: '(Pell, 2001)', now: '(Pell, 2001b)', given: [], branch: false, letter: 'b', still: 0 },
    ],
  ]); // prettier-ignore
  const numbered = opened(await toldOfView(ctx, library, { style: 'ieee', locale: 'en-US' })) as ToldApart;
  expect(numbered).toEqual({ tells: false, later: false, groups: [] });
});

it('are saved as files, and tell no one what another keeps private', async () => {
  const sourceId = await add('Sluices', 'Pell');
  const mark = (gist: string, visibility: 'library' | 'private') =>
    keepPassage(ctx, {
      kind: 'response', tint: 'claim', gist, ownWords: '', locator: null, visibility, copyId: null, sourceId, exact: '', selectors: null, tags: [],
    }); // prettier-ignore
  await mark('for all', 'library');
  await mark('for me', 'private');
  const setting = { annotate: ['gist' as const] };
  const saved = opened(await savedList(ctx, library, apa, 'text', setting)) as { body: string };
  expect(saved).toEqual(asJson(await exportFile(ctx, library, apa, 'text', setting)));
  expect(saved.body).toContain('for all');
  expect(saved.body).not.toContain('for me');
});

it('say in words why there is none', async () => {
  await add('Sluices', 'Pell');
  const note = { style: 'bluebook-law-review', locale: 'en-US' };
  await expect(savedList(ctx, library, note, 'text')).rejects.toMatchObject({
    status: 422,
    message: expect.stringContaining('has no reference list') as string,
  });
  const section = { kind: 'section', sectionId: 'nowhere' } as const;
  const here = await referenceList(ctx, section, apa).catch((error: unknown) => error);
  const there = await listOfView(ctx, 'view', section, apa).then(opened, (error: unknown) => error);
  expect(asJson(there)).toEqual(asJson(here));
});

it('that are wanted in another style are given up', async () => {
  for (let i = 0; i < 40; i++) await add(`Sluices ${i}`, 'Pell');
  const first = listOfView(ctx, 'view', library, apa).then(opened, (error: unknown) => error);
  const second = listOfView(ctx, 'view', library, { ...apa, style: 'ieee' });
  expect(await first).toMatchObject({ status: 499 });
  expect((opened(await second) as { entries: unknown[] }).entries).toHaveLength(40);
});
