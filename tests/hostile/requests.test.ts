/** Ten thousand requests made from sound ones by changing something: each is answered in words, none by an error inside. */
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { filled, PRESET, send, UNKNOWN } from './library';
import { mutated, numbers } from './mutate';
import { routesThereAre, SOUND, type Ids } from './routes';
import { startServer, type Asked } from './server';

const SEED = Number(process.env.SEED ?? 20_261_126);
const HOW_MANY = Number(process.env.REQUESTS ?? 4_000);
const AT_ONCE = 8;

let app: Asked;
let ids: Ids;
/** Ids of another library's rows, which do not exist for this one. */
const FOREIGN = {
  library: '019bd000-0000-7000-8000-0000000000f0',
  project: '019bd000-0000-7000-8000-0000000000f1',
  section: '019bd000-0000-7000-8000-0000000000f2',
  preset: '019bd000-0000-7000-8000-0000000000f3',
};

beforeAll(async () => {
  app = await startServer();
  ids = await filled(app);
  const db = new Database(join(app.dataFolder, 'retexa.sqlite'));
  const person = (db.prepare('SELECT id FROM person').get() as { id: string }).id;
  db.prepare('INSERT INTO library (id, name, owner_id, created) VALUES (?, ?, ?, ?)').run(
    FOREIGN.library,
    'Another',
    person,
    'x',
  );
  db.prepare(
    'INSERT INTO project (id, library_id, owner_id, name, style, locale, created) VALUES (?, ?, ?, ?, ?, ?, ?)',
  ).run(FOREIGN.project, FOREIGN.library, person, 'Theirs', 'apa', 'en-US', 'x');
  db.prepare(
    'INSERT INTO section (id, library_id, owner_id, project_id, name, position, created) VALUES (?, ?, ?, ?, ?, 1, ?)',
  ).run(FOREIGN.section, FOREIGN.library, person, FOREIGN.project, 'Theirs', 'x');
  db.close();
});
afterAll(() => app.stop());

describe('requests', () => {
  it('are known of every route there is', () => {
    expect(routesThereAre().sort()).toEqual(Object.keys(SOUND).sort());
  });

  it('that are sound are understood', async () => {
    for (const [route, sound] of Object.entries(SOUND))
      for (const given of sound(ids)) {
        const plain = mutated(given, () => 0.99, []);
        const { status } = await send(app, { ...plain, method: given.method, path: given.path });
        // Some name what is not there, or was changed meanwhile; none is misunderstood.
        expect({ route, status, ok: status < 500 || status === 502 }).toMatchObject({ ok: true });
      }
  });

  it(`that are changed at random are answered in words (seed ${SEED})`, { timeout: 900_000 }, async () => {
    const next = numbers(SEED);
    const others = [UNKNOWN, FOREIGN.project, FOREIGN.section, ids.source, ids.note, ids.copy];
    const all = Object.values(SOUND).flatMap((sound) => sound(ids));
    const failed: string[] = [];
    const statuses = new Map<number, number>();
    let left = HOW_MANY;
    await Promise.all(
      Array.from({ length: AT_ONCE }, async () => {
        while (left-- > 0) {
          const request = mutated(all[Math.floor(next() * all.length)]!, next, others);
          const response = await send(app, request);
          const text = await response.text();
          statuses.set(response.status, (statuses.get(response.status) ?? 0) + 1);
          if (response.status === 500)
            failed.push(
              `${request.method} ${request.path.slice(0, 120)} (${request.what}): ${text.slice(0, 200)}`,
            );
        }
      }),
    );
    console.log(
      `answered: ${[...statuses]
        .sort(([a], [b]) => a - b)
        .map(([s, n]) => `${s} × ${n}`)
        .join(', ')}`,
    );
    expect([...new Set(failed)]).toEqual([]);
    expect((await app.ask('GET', '/')).status).toBe(200);
  });

  it('that name rows of another library, or none, are refused and leave nothing behind', async () => {
    const refused = async (path: string, body: unknown, method = 'POST') => {
      const response = await app.json(method, path, body);
      expect({ path, status: response.status }).toEqual({ path, status: 404 });
      expect(((await response.json()) as { message: string }).message).toMatch(/not in the library/);
    };
    for (const project of [FOREIGN.project, UNKNOWN]) {
      await refused('/api/notes', { body: 'x', projectId: project, sourceId: null });
      await refused('/api/leads', { text: 'Pell (2001). Weirs.', projectId: project, metIn: null });
      await refused(`/api/projects/${project}`, { name: 'Mine now' }, 'PATCH');
      await refused('/api/presets', { ...PRESET, projectId: project });
    }
    await refused('/api/presets', { ...PRESET, sectionId: FOREIGN.section });
    await refused(`/api/leads/${ids.lead}`, { act: 'tick', sourceId: UNKNOWN });
    await refused(`/api/leads/${ids.lead}`, { act: 'met-in', sourceId: UNKNOWN });
    for (const table of ['note', 'lead', 'preset'])
      expect(
        app.rows(`SELECT id FROM ${table} WHERE project_id IN (?, ?)`, FOREIGN.project, UNKNOWN),
      ).toEqual([]);
    expect(app.rows('SELECT name FROM project WHERE id = ?', FOREIGN.project)).toEqual([{ name: 'Theirs' }]);
  });
});
