import type { Knex } from 'knex';

const living = (row: string) => `${row}.binned IS NULL AND ${row}.merged_into IS NULL`;

/** What a row of sources counts as, each with how much. */
const ofSource = (row: string, n: 1 | -1) => `
  SELECT 'sources' AS what, ${n} AS n WHERE ${living(row)}
  UNION ALL SELECT 'intake', ${n} WHERE ${living(row)} AND ${row}.checked IS NULL
  UNION ALL SELECT 'findings', ${n} WHERE ${living(row)} AND ${row}.findings <> '[]'
  UNION ALL SELECT 'type:' || ${row}.type, ${n} WHERE ${living(row)}
  UNION ALL SELECT 'year:' || ${row}.year, ${n} WHERE ${living(row)} AND ${row}.year IS NOT NULL`;

/** The whole library, and the projects a source is filed in. */
const projectsOf = (source: string) =>
  `SELECT '' AS project_id UNION ALL SELECT project_id FROM filing WHERE source_id = ${source}`;

const add = (rows: string) =>
  `INSERT INTO tally (library_id, project_id, person_id, what, n) ${rows} ON CONFLICT (library_id, project_id, person_id, what) DO UPDATE SET n = n + excluded.n;`;

/** A private row counts for its person alone. */
const whose = (row: string) => `CASE ${row}.visibility WHEN 'private' THEN ${row}.owner_id ELSE '' END`;

const passage = (row: string, n: 1 | -1) =>
  add(
    `SELECT ${row}.library_id, p.project_id, ${whose(row)}, 'passages', ${n} FROM (${projectsOf(`${row}.source_id`)}) p, source s WHERE s.id = ${row}.source_id AND ${living('s')} AND ${row}.binned IS NULL`,
  ) + add(`SELECT ${row}.library_id, '', ${whose(row)}, 'bin', ${n} WHERE ${row}.binned IS NOT NULL`);

const kept = (what: string, counts: (row: string) => string) => (row: string, n: 1 | -1) =>
  add(
    `SELECT ${row}.library_id, p.project_id, '', '${what}', ${n} FROM (SELECT '' AS project_id UNION ALL SELECT ${row}.project_id WHERE ${row}.project_id IS NOT NULL) p WHERE ${row}.binned IS NULL ${counts(row)}`,
  ) + add(`SELECT ${row}.library_id, '', '', 'bin', ${n} WHERE ${row}.binned IS NOT NULL`);

const tag = (row: string, n: 1 | -1) =>
  add(
    `SELECT ${row}.library_id, p.project_id, '', 'tag:' || ${row}.tag, ${n} FROM (${projectsOf(`${row}.source_id`)}) p, source s WHERE s.id = ${row}.source_id AND ${living('s')}`,
  );

const likeness = (row: string, n: 1 | -1) =>
  add(
    `SELECT ${row}.library_id, p.project_id, '', 'duplicates', ${n} FROM (SELECT '' AS project_id UNION SELECT project_id FROM filing WHERE source_id IN (${row}.a_id, ${row}.b_id)) p WHERE true`,
  );

/** All that a source brings into a project, or takes out of it. */
const filing = (row: string, n: 1 | -1) =>
  (
    [
      [`'sources'`, ''],
      [`'intake'`, 'AND s.checked IS NULL'],
      [`'findings'`, `AND s.findings <> '[]'`],
      [`'type:' || s.type`, ''],
      [`'year:' || s.year`, 'AND s.year IS NOT NULL'],
    ] as const
  )
    .map(([what, when]) =>
      add(
        `SELECT s.library_id, ${row}.project_id, '', ${what}, ${n} FROM source s WHERE s.id = ${row}.source_id AND ${living('s')} ${when}`,
      ),
    )
    .join('') +
  add(
    `SELECT t.library_id, ${row}.project_id, '', 'tag:' || t.tag, ${n} FROM source_tag t JOIN source s ON s.id = t.source_id WHERE t.source_id = ${row}.source_id AND ${living('s')}`,
  ) +
  add(
    `SELECT p.library_id, ${row}.project_id, ${whose('p')}, 'passages', ${n} FROM passage p JOIN source s ON s.id = p.source_id WHERE p.source_id = ${row}.source_id AND p.binned IS NULL AND ${living('s')}`,
  ) +
  add(
    `SELECT l.library_id, ${row}.project_id, '', 'duplicates', ${n} FROM likeness l WHERE (l.a_id = ${row}.source_id OR l.b_id = ${row}.source_id) AND NOT EXISTS (SELECT 1 FROM filing f WHERE f.project_id = ${row}.project_id AND f.source_id <> ${row}.source_id AND f.source_id IN (l.a_id, l.b_id))`,
  );

/** Counts are kept as rows come, change and go: a view reads them, whatever the size of the library. */
export async function up(db: Knex): Promise<void> {
  await db.raw(
    `CREATE TABLE tally (library_id TEXT NOT NULL, project_id TEXT NOT NULL, person_id TEXT NOT NULL, what TEXT NOT NULL, n INTEGER NOT NULL, PRIMARY KEY (library_id, project_id, person_id, what)) WITHOUT ROWID`,
  );
  const on = (name: string, when: string, does: string) =>
    db.raw(`CREATE TRIGGER tally_${name} ${when} BEGIN ${does} END`);
  const both = async (table: string, change: string, counts: (row: string, n: 1 | -1) => string) => {
    await on(`${table}_in`, `AFTER INSERT ON ${table}`, counts('NEW', 1));
    await on(`${table}_out`, `AFTER DELETE ON ${table}`, counts('OLD', -1));
    if (change)
      await on(
        `${table}_change`,
        `AFTER UPDATE OF ${change} ON ${table}`,
        counts('OLD', -1) + counts('NEW', 1),
      );
  };
  const bin = (row: string, n: 1 | -1) =>
    add(
      `SELECT ${row}.library_id, '', '', 'bin', ${n} WHERE ${row}.binned IS NOT NULL AND ${row}.merged_into IS NULL`,
    );
  const source = (row: string, n: 1 | -1) =>
    add(
      `SELECT ${row}.library_id, p.project_id, '', w.what, w.n FROM (${projectsOf(`${row}.id`)}) p, (${ofSource(row, n)}) w WHERE true`,
    ) + bin(row, n);
  await on('source_in', 'AFTER INSERT ON source', source('NEW', 1));
  await on('source_out', 'AFTER DELETE ON source', source('OLD', -1));
  await on(
    'source_change',
    `AFTER UPDATE OF binned, merged_into, checked, findings, type, year ON source
     WHEN OLD.binned IS NOT NEW.binned OR OLD.merged_into IS NOT NEW.merged_into OR (OLD.checked IS NULL) <> (NEW.checked IS NULL)
       OR OLD.findings <> NEW.findings OR OLD.type <> NEW.type OR OLD.year IS NOT NEW.year`,
    source('OLD', -1) + source('NEW', 1),
  );
  const alive = `((${living('NEW')}) - (${living('OLD')}))`;
  await on(
    'source_life',
    `AFTER UPDATE OF binned, merged_into ON source WHEN ${alive} <> 0`,
    add(
      `SELECT t.library_id, p.project_id, '', 'tag:' || t.tag, ${alive} FROM source_tag t, (${projectsOf('NEW.id')}) p WHERE t.source_id = NEW.id`,
    ) +
      add(
        `SELECT q.library_id, p.project_id, ${whose('q')}, 'passages', ${alive} FROM passage q, (${projectsOf('NEW.id')}) p WHERE q.source_id = NEW.id AND q.binned IS NULL`,
      ),
  );
  await both('passage', 'binned, source_id, visibility', passage);
  await both(
    'note',
    'binned, project_id',
    kept('notes', () => ''),
  );
  await both(
    'lead',
    'binned, project_id, ticked',
    kept('leads', (row) => `AND ${row}.ticked IS NULL`),
  );
  await both('source_tag', '', tag);
  await both('likeness', '', likeness);
  await both('filing', '', filing);
}
