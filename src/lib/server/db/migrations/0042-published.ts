import type { Knex } from 'knex';

const counts = (row: string) =>
  `${row}.binned IS NULL AND ${row}.merged_into IS NULL AND ${row}.year IS NOT NULL`;
const what = (row: string) => `'published:' || ${row}.year || ':' || ${row}.type`;
const add = (rows: string) =>
  `INSERT INTO tally (library_id, project_id, person_id, what, n) ${rows} ON CONFLICT (library_id, project_id, person_id, what) DO UPDATE SET n = n + excluded.n;`;
/** A row of sources, in the whole library and in each project it is filed in. */
const source = (row: string, n: 1 | -1) =>
  add(
    `SELECT ${row}.library_id, p.project_id, '', ${what(row)}, ${n} FROM (SELECT '' AS project_id UNION ALL SELECT project_id FROM filing WHERE source_id = ${row}.id) p WHERE ${counts(row)}`,
  );
const filing = (row: string, n: 1 | -1) =>
  add(
    `SELECT s.library_id, ${row}.project_id, '', ${what('s')}, ${n} FROM source s WHERE s.id = ${row}.source_id AND ${counts('s')}`,
  );

/** How many sources of each kind each year has, kept as they come, change and go. */
export async function up(db: Knex): Promise<void> {
  const on = (name: string, when: string, does: string) =>
    db.raw(`CREATE TRIGGER tally_published_${name} ${when} BEGIN ${does} END`);
  await on('in', 'AFTER INSERT ON source', source('NEW', 1));
  await on('out', 'AFTER DELETE ON source', source('OLD', -1));
  await on(
    'change',
    `AFTER UPDATE OF binned, merged_into, type, year ON source
     WHEN OLD.binned IS NOT NEW.binned OR OLD.merged_into IS NOT NEW.merged_into OR OLD.type <> NEW.type OR OLD.year IS NOT NEW.year`,
    source('OLD', -1) + source('NEW', 1),
  );
  await on('filed', 'AFTER INSERT ON filing', filing('NEW', 1));
  await on('taken_out', 'AFTER DELETE ON filing', filing('OLD', -1));
  await db.raw(
    add(
      `SELECT s.library_id, f.project_id, '', ${what('s')}, count(*) FROM source s JOIN (SELECT id AS source_id, '' AS project_id FROM source UNION ALL SELECT source_id, project_id FROM filing) f ON f.source_id = s.id WHERE ${counts('s')} GROUP BY 1, 2, 4`,
    ),
  );
}
