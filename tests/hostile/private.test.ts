/**
 * What another keeps private, and what is another library's, is in no answer: asked of every route by sound requests that
 * name it, and by requests changed at random.
 */
import { join } from 'node:path';
import type { Knex } from 'knex';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../src/lib/core/source';
import { transaction, type Context } from '../../src/lib/server/access/context';
import { addChoice, vote } from '../../src/lib/server/choosing';
import { insertCopy } from '../../src/lib/server/copies/repository';
import { openDatabase } from '../../src/lib/server/db/open';
import { keepLeads } from '../../src/lib/server/leads';
import { keepNote } from '../../src/lib/server/notes';
import { insertJob } from '../../src/lib/server/jobs/repository';
import { insertPassage } from '../../src/lib/server/passages/repository';
import { insertPreset } from '../../src/lib/server/presets/repository';
import { fileSources, insertProject } from '../../src/lib/server/projects/repository';
import { sectionNamed } from '../../src/lib/server/projects/sections';
import { insertSource } from '../../src/lib/server/sources/repository';
import { openDraft, saveDraft } from '../../src/lib/server/drafts';
import { filled, PRESET, send, UNKNOWN } from './library';
import { mutated, numbers } from './mutate';
import { SOUND, type Ids } from './routes';
import { startServer, type Asked } from './server';

const SEED = Number(process.env.SEED ?? 20_261_126);
const HOW_MANY = Number(process.env.REQUESTS ?? 2_000);

let app: Asked;
let db: Knex;
let mine: Ids;
let theirs: Ids;
/** A passage in the library that its other member keeps private. */
let privateId: string;
const FOREIGN = 'zzforeign';
const PRIVATE = 'zzprivate';
const OTHER_LIBRARY = '019bd000-0000-7000-8000-0000000000e0';

const said = (words: string) => ({
  kind: 'quotation' as const,
  selectors: null,
  exact: `${words} tide`,
  locator: null,
  gist: `${words} gist`,
  ownWords: `${words} in words of one’s own`,
  tint: 'claim' as const,
  anchor: 'found' as const,
  binned: null,
});
const copyOf = (sourceId: string, words: string) => ({
  source_id: sourceId,
  kind: 'page' as const,
  media_type: 'text/html',
  sha256: 'e'.repeat(64),
  size: 1,
  reading_sha256: 'f'.repeat(64),
  title: `${words} page`,
  address: `https://a.example/${words}`,
  captured: '2026-01-01T00:00:00.000Z',
  text: `${words} tide`,
  labels: null,
  note: null,
});

beforeAll(async () => {
  app = await startServer();
  mine = await filled(app);
  db = await openDatabase(join(app.dataFolder, 'retexa.sqlite'));
  const member = (await db('membership').first()) as { library_id: string };
  const at = '2026-01-01T00:00:00.000Z';
  // Whoever asks is the library's first member until people are told apart.
  const other = 'ffffffff-0000-7000-8000-0000000000e1';
  await db('person').insert({ id: other, name: 'Another', created: at });
  await db('library').insert({ id: OTHER_LIBRARY, name: `${FOREIGN} library`, owner_id: other, created: at });
  for (const library_id of [member.library_id, OTHER_LIBRARY])
    await db('membership').insert({ library_id, person_id: other, role: 'editor' });
  const colleague: Context = { db, libraryId: member.library_id, personId: other, role: 'editor' };
  const stranger: Context = { db, libraryId: OTHER_LIBRARY, personId: other, role: 'owner' };
  privateId = (
    await transaction(colleague, (inner) =>
      insertPassage(inner, {
        ...said(PRIVATE),
        sourceId: mine.source,
        copyId: mine.copy,
        visibility: 'private',
      }),
    )
  ).id;
  theirs = await transaction(stranger, async (ctx) => {
    const title = `Sluices of the ${FOREIGN} tide`;
    const record = sourceRecord.parse({ type: 'book', title, retexa: { tags: [`${FOREIGN} tag`] } });
    const source = await insertSource(ctx, record, { why: 'test' });
    const twin = await insertSource(ctx, record, { why: 'test' });
    const copy = await insertCopy(ctx, copyOf(source.id, FOREIGN));
    const passage = await insertPassage(ctx, {
      ...said(FOREIGN),
      sourceId: source.id,
      copyId: copy.id,
      visibility: 'library',
    });
    const project = await insertProject(ctx, { name: `${FOREIGN} project`, style: 'apa', locale: 'en-US' });
    await fileSources(ctx, project.id, [source.id]);
    const section = await sectionNamed(ctx, project.id, `${FOREIGN} section`);
    const note = await keepNote(ctx, { body: `${FOREIGN} tide`, projectId: null, sourceId: source.id });
    const [lead] = await keepLeads(ctx, {
      text: `${FOREIGN} tide. (2001). Sluices.`,
      projectId: null,
      metIn: source.id,
    });
    const draft = await openDraft(ctx, project.id);
    await saveDraft(ctx, draft.id, {
      since: 0,
      page: 'theirs',
      gone: [],
      puts: [
        {
          id: 'theirs',
          base: null,
          content: { type: 'paragraph', content: [{ type: 'text', text: `${FOREIGN} tide` }] },
        },
      ],
      order: ['theirs'],
    });
    const choice = await addChoice(ctx, {
      name: `${FOREIGN} choice`,
      way: 'opinion',
      voters: [other],
      reasons: [`${FOREIGN} reason`],
      ids: [source.id],
    });
    await vote(ctx, choice.id, { id: source.id, says: 'keep', reason: `${FOREIGN} verdict` });
    const job = await insertJob(ctx, 'capture', { text: `${FOREIGN} tide` });
    return {
      source: source.id,
      other: twin.id,
      copy: copy.id,
      passage: passage.id,
      note: note.id,
      lead: lead!.id,
      project: project.id,
      draft: draft.id,
      section: section.id,
      preset: await insertPreset(ctx, { ...PRESET, name: `${FOREIGN} preset` }),
      job: job.id,
      merge: UNKNOWN,
      choice: choice.id,
      person: other,
    };
  });
});
afterAll(async () => {
  await db.destroy();
  await app.stop();
});

/** Every row of the other library. */
async function theirRows(): Promise<string> {
  const tables = (await db('sqlite_master').where({ type: 'table' }).select('name')) as { name: string }[];
  const rows: Record<string, unknown> = {};
  for (const { name } of tables) {
    const columns = await db(name).columnInfo();
    if ('library_id' in columns) rows[name] = await db(name).where({ library_id: OTHER_LIBRARY });
  }
  return JSON.stringify(rows);
}

/** What answers tell that they must not, with the request that was answered so. */
const told: string[] = [];
async function ask(request: Parameters<typeof send>[1]) {
  const response = await send(app, request);
  const text = `${JSON.stringify([...response.headers])}${await response.text()}`;
  // What a request says of itself may be said back.
  const given = `${request.path}${typeof request.body === 'string' ? request.body : ''}`;
  for (const word of [FOREIGN, PRIVATE])
    if (text.includes(word) && !given.includes(word))
      told.push(
        `${request.method} ${request.path.slice(0, 160)}: ${text.slice(text.indexOf(word) - 60).slice(0, 120)}`,
      );
  return response;
}
const plainly = (sound: ReturnType<(typeof SOUND)[string]>[number]) => ({
  ...mutated(sound, () => 0.99, []),
  method: sound.method,
  path: sound.path,
});

describe('what is not one’s own', () => {
  it('is in no answer, whatever names it, and is not changed', async () => {
    const before = await theirRows();
    for (const [route, sound] of Object.entries(SOUND)) {
      for (const given of sound({ ...theirs, passage: privateId })) {
        const response = await ask(plainly(given));
        expect({ route, ok: response.status < 500 || response.status === 502 }).toMatchObject({ ok: true });
      }
      for (const given of sound({ ...mine, passage: privateId })) await ask(plainly(given));
      for (const given of sound(theirs)) await ask(plainly(given));
    }
    for (const words of [FOREIGN, PRIVATE, 'tide'])
      for (const path of [
        `/search?q=${words}`,
        `/passages?q=${words}`,
        `/sources?q=${words}`,
        `/notes?q=${words}`,
      ])
        await ask({ method: 'GET', path, what: 'asked for' });
    expect(told).toEqual([]);
    expect(await theirRows()).toBe(before);
    expect(await db('passage').where({ id: privateId }).first('revision', 'binned')).toEqual({
      revision: 1,
      binned: null,
    });
  });

  it(`is in no answer to requests changed at random (seed ${SEED})`, { timeout: 600_000 }, async () => {
    const next = numbers(SEED);
    const before = await theirRows();
    const others = [...Object.values(theirs), privateId];
    const all = Object.values(SOUND).flatMap((sound) => sound(mine));
    for (let i = 0; i < HOW_MANY; i++)
      await ask(mutated(all[Math.floor(next() * all.length)]!, next, others));
    expect(told).toEqual([]);
    expect(await theirRows()).toBe(before);
  });
});
