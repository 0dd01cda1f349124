/** Each table is written by one room, so that what holds of its rows is held in one place. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { openTestLibrary } from '../test-library';

const SERVER = new URL('..', import.meta.url).pathname;

/** The tables of each room. */
const OWNED: Record<string, readonly string[]> = {
  access: ['library', 'membership', 'person', 'sent_once'],
  accounts: ['account', 'attempt', 'passkey', 'session', 'token', 'way_back'],
  audit: ['audit'],
  capture: ['shared'],
  choosing: ['candidate', 'choice', 'choice_voter', 'vote'],
  copies: ['copy', 'copy_picture', 'reading_place'],
  crossing: ['crossing'],
  drafts: ['draft', 'draft_part', 'draft_picture', 'draft_use', 'draft_version'],
  duplicates: [
    ...[
      'apart',
      'likeness',
      'likeness_group',
      'likeness_member',
      'lookup',
      'lookup_key',
      'merge',
      'relation',
    ],
    ...['spelling', 'spelling_apart', 'spelling_group', 'spelling_source', 'spelling_stale'],
  ],
  files: ['leaving_file'],
  history: ['revision'],
  jobs: ['hold', 'import_step', 'job'],
  leads: ['lead'],
  libraries: ['invitation'],
  lists: ['favourite_style', 'own_style', 'printed'],
  notes: ['note', 'note_named'],
  passages: ['passage', 'passage_link', 'passage_tag'],
  people: ['person_orcid'],
  presets: ['preset'],
  projects: ['filing', 'placement', 'project', 'section'],
  proof: ['finding', 'proof_aside'],
  queries: ['saved_query'],
  reading: ['reading'],
  replies: ['reply', 'reply_for', 'settled'],
  search: ['search', 'search_subject', 'search_word'],
  shares: ['share_link'],
  sources: ['alias', 'facet', 'source', 'source_tag', 'tally', 'trait', 'trait_of'],
  tags: ['tag_look'],
  tasks: ['task'],
};
/** What goes through all tables: it brings rows in or takes them away, by what is said of tables elsewhere. */
const MOVES_ALL = ['backup/brought.ts', 'bin/index.ts', 'libraries/closing.ts', 'sources/hanging.ts'];

const OF = new Map(Object.entries(OWNED).flatMap(([room, tables]) => tables.map((table) => [table, room])));

/** Calls of a query builder that follow one another. */
const CHAIN = String.raw`(?:\s*\.\w+\((?:[^()]|\((?:[^()]|\((?:[^()]|\([^()]*\))*\))*\))*\))*`;
const BEGINS = new RegExp(
  String.raw`(?:(?:scoped|visible)(?:<[^()]*>)?\(\w+, '(\w+)'\)|\b(?:db|trx)\('(\w+)'\))(${CHAIN})`,
  'g',
);
const WRITES = /\.(?:insert|update|delete|del|increment|decrement)\(/;
const WORDS = /\b(?:INSERT(?: OR \w+)? INTO|UPDATE|DELETE FROM) "?([a-z_]+)"?/g;

/** Tables that a file writes. */
function written(text: string): string[] {
  const built = [...text.matchAll(BEGINS)].flatMap(([, scoped, bare, chain]) =>
    WRITES.test(chain!) ? [(scoped ?? bare)!] : [],
  );
  return [...built, ...[...text.matchAll(WORDS)].map(([, table]) => table!)];
}

const files = readdirSync(SERVER, { recursive: true, encoding: 'utf8' }).filter(
  (path) => path.endsWith('.ts') && !path.includes('.test.') && !path.startsWith('db/'),
);

it('is told what is written, however it is said', () => {
  expect(written(`await scoped<Row>(ctx, 'note').where({ id }).update({ a: f(g(1)) });`)).toEqual(['note']);
  expect(written(`await trx('a_b')\n  .insert(rows)\n  .onConflict('id').ignore()`)).toEqual(['a_b']);
  expect(written(`db.raw('INSERT OR IGNORE INTO c SELECT 1')`)).toEqual(['c']);
  expect(written(`await ctx.db('note').where({ id }).first()`)).toEqual([]);
});

it('each table has one room, and only it writes there', async () => {
  const { db } = await openTestLibrary();
  const there = (await db('sqlite_master').where({ type: 'table' }).pluck('name')) as string[];
  const ours = there.filter(
    (name) => !/^sqlite_|^knex_|^search_(?:data|idx|content|docsize|config)$/.test(name),
  );
  await db.destroy();
  expect([...OF.keys()].sort()).toEqual(ours.sort());
  const strays: string[] = [];
  let seen = 0;
  for (const path of files) {
    const room = path.split('/')[0]!;
    for (const table of written(readFileSync(join(SERVER, path), 'utf8'))) {
      if (!OF.has(table)) continue;
      seen++;
      if (OF.get(table) !== room && !MOVES_ALL.includes(path)) strays.push(`${path} writes ${table}`);
    }
  }
  expect(strays).toEqual([]);
  // That nothing is astray says something only where most of what is written is seen.
  expect(seen).toBeGreaterThan(100);
});

it('what a room does asks its repositories, and builds no query itself', () => {
  const builds = files.filter(
    (path) =>
      path.endsWith('index.ts') &&
      !MOVES_ALL.includes(path) &&
      [...readFileSync(join(SERVER, path), 'utf8').matchAll(BEGINS)].length > 0,
  );
  expect(builds).toEqual([]);
});
