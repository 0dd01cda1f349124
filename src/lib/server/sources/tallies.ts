import type { Knex } from 'knex';
import { scoped, type Context } from '../access/context';
import { counted } from '../db/counted';

/** What is counted of a library, or of a project in it. */
export type Counted =
  'sources' | 'intake' | 'findings' | 'passages' | 'duplicates' | 'leads' | 'notes' | 'bin';

/** The counts as they are kept, for the person who asks: what is private to others is not in them. */
export async function talliesOf(ctx: Context, projectId = ''): Promise<Record<Counted, number>> {
  const counts: Record<Counted, number> = {
    sources: 0,
    intake: 0,
    findings: 0,
    passages: 0,
    duplicates: 0,
    leads: 0,
    notes: 0,
    bin: 0,
  };
  const names = Object.keys(counts);
  const rows = (await mine(ctx, projectId).whereIn('what', names).select('what', 'n')) as {
    what: Counted;
    n: number;
  }[];
  for (const { what, n } of rows) counts[what] += n;
  // The bin is the library's, whatever project is chosen.
  if (projectId) {
    const [row] = (await mine(ctx, '').where({ what: 'bin' }).sum({ n: 'n' })) as [{ n: number | null }];
    counts.bin = row.n ?? 0;
  }
  for (const [what, n] of await shownToMe(ctx, projectId)) counts[what] += n;
  return counts;
}

/** How much others keep for some, who asks among them: few at a time, so that they are counted as they are asked for. */
async function shownToMe(ctx: Context, projectId: string): Promise<[Counted, number][]> {
  const shown = (table: 'passage' | 'note') =>
    scoped(ctx, table)
      .whereNotNull(`${table}.shown_to`)
      .whereRaw(`instr(${table}.shown_to, ?) > 0`, [ctx.personId])
      .where(`${table}.visibility`, 'private')
      .whereNot(`${table}.owner_id`, ctx.personId);
  const living = shown('passage')
    .whereNull('passage.binned')
    .join('source', 'source.id', 'passage.source_id')
    .whereNull('source.binned')
    .whereNull('source.merged_into');
  const notes = shown('note').whereNull('binned');
  if (projectId) {
    void living.whereIn(
      'passage.source_id',
      ctx.db('filing').where({ project_id: projectId }).select('source_id'),
    );
    void notes.where({ project_id: projectId });
  }
  const binned = async (table: 'passage' | 'note') => counted(shown(table).whereNotNull('binned'));
  return [
    ['passages', await counted(living)],
    ['notes', await counted(notes)],
    ['bin', (await binned('passage')) + (await binned('note'))],
  ];
}

/** How many sources have each value of a kind, such as each type, as they are kept; `published` is a year and a type, `1999:book`. */
export async function tallied(
  ctx: Context,
  kind: 'type' | 'year' | 'tag' | 'published',
  projectId = '',
): Promise<{ value: string; n: number }[]> {
  const rows = (await mine(ctx, projectId)
    .where('what', '>=', `${kind}:`)
    .where('what', '<', `${kind};`)
    .where('n', '>', 0)
    .select('what', 'n')) as { what: string; n: number }[];
  return rows.map(({ what, n }) => ({ value: what.slice(kind.length + 1), n }));
}

const mine = (ctx: Context, projectId: string) =>
  ctx
    .db('tally')
    .where({ library_id: ctx.libraryId, project_id: projectId })
    .whereIn('person_id', ['', ctx.personId]);

const LIVING = 's.binned IS NULL AND s.merged_into IS NULL';
const WHOSE = `CASE p.visibility WHEN 'private' THEN p.owner_id ELSE '' END`;
const PUBLISHED = `'published:' || s.year || ':' || s.type`;
/** Each count as it follows from the rows themselves: library, project, person, what. `PROJECTS` is filled in below. */
const FROM_ROWS = [
  ...[`'sources'`, `'intake'`, `'findings'`, `'type:' || s.type`, `'year:' || s.year`, PUBLISHED].map(
    (what) =>
      `SELECT s.library_id, f.project_id, '', ${what} FROM source s JOIN (PROJECTS) f ON f.source_id = s.id WHERE ${LIVING} ${
        {
          [`'intake'`]: 'AND s.checked IS NULL',
          [`'findings'`]: `AND s.findings <> '[]'`,
          [`'year:' || s.year`]: 'AND s.year IS NOT NULL',
          [PUBLISHED]: 'AND s.year IS NOT NULL',
        }[what] ?? ''
      }`,
  ),
  `SELECT s.library_id, f.project_id, '', 'tag:' || t.tag FROM source_tag t JOIN source s ON s.id = t.source_id JOIN (PROJECTS) f ON f.source_id = s.id WHERE ${LIVING}`,
  `SELECT s.library_id, f.project_id, ${WHOSE}, 'passages' FROM passage p JOIN source s ON s.id = p.source_id JOIN (PROJECTS) f ON f.source_id = s.id WHERE p.binned IS NULL AND ${LIVING}`,
  `SELECT library_id, '', '', 'bin' FROM source WHERE binned IS NOT NULL AND merged_into IS NULL`,
  `SELECT p.library_id, '', ${WHOSE}, 'bin' FROM passage p WHERE p.binned IS NOT NULL`,
  `SELECT p.library_id, '', ${WHOSE}, 'bin' FROM task p WHERE p.binned IS NOT NULL`,
  `SELECT library_id, '', '', 'bin' FROM project WHERE binned IS NOT NULL`,
  `SELECT library_id, '', '', 'bin' FROM section WHERE binned_with = id`,
  ...['note', 'lead'].flatMap((table) => [
    `SELECT p.library_id, '', ${table === 'note' ? WHOSE : `''`}, 'bin' FROM ${table} p WHERE binned IS NOT NULL`,
    ...[`''`, 'project_id'].map(
      (project) =>
        `SELECT p.library_id, ${project}, ${table === 'note' ? WHOSE : `''`}, '${table}s' FROM ${table} p WHERE binned IS NULL ${
          project === 'project_id' ? 'AND project_id IS NOT NULL' : ''
        } ${table === 'lead' ? 'AND ticked IS NULL' : ''}`,
    ),
  ]),
  `SELECT library_id, '', '', 'duplicates' FROM likeness_group`,
  `SELECT DISTINCT m.library_id, f.project_id, '', 'duplicates:' || m.group_id FROM likeness_member m JOIN filing f ON f.source_id = m.source_id`,
];
const PROJECTS = `SELECT id AS source_id, '' AS project_id FROM source UNION ALL SELECT source_id, project_id FROM filing`;

/** Forgets what was counted of projects that go for good. */
export async function forgetTallies(ctx: Context, projectIds: readonly string[]): Promise<void> {
  await scoped(ctx, 'tally').whereIn('project_id', projectIds).delete();
}

/** All counts anew, from the rows; of one library where it is named. */
export async function recount(db: Knex, libraryId?: string): Promise<void> {
  const whose = libraryId === undefined ? 'true' : 'lib = ?';
  const bound = libraryId === undefined ? [] : [libraryId];
  const rows = FROM_ROWS.map((sql) => sql.replaceAll('PROJECTS', PROJECTS)).map(
    (sql) =>
      `INSERT INTO tally (library_id, project_id, person_id, what, n) SELECT lib, project, person, what, count(*) FROM (SELECT lib, project, person, CASE WHEN what LIKE 'duplicates:%' THEN 'duplicates' ELSE what END AS what FROM (WITH r(lib, project, person, what) AS (${sql}) SELECT * FROM r)) WHERE ${whose} GROUP BY 1, 2, 3, 4 ON CONFLICT (library_id, project_id, person_id, what) DO UPDATE SET n = n + excluded.n`,
  );
  await db.transaction(async (trx) => {
    await trx('tally')
      .where(libraryId === undefined ? {} : { library_id: libraryId })
      .delete();
    for (const sql of rows) await trx.raw(sql, bound);
  });
}

/** Counts a data folder of before there were tallies. Run once at start. */
export async function countFirst(db: Knex): Promise<void> {
  if (!(await db('tally').first('n'))) await recount(db);
}
