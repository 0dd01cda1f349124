import type { Knex } from 'knex';

interface Entry {
  type: 'table' | 'index' | 'trigger';
  name: string;
  sql: string;
}

/** The knex migrator runs it outside a transaction: foreign keys cannot be left aside within one. */
export const config = { transaction: false };

/**
 * Gives sources a number of their own. SQLite adds no column that is a key to a table that is there, so that the table is made
 * anew, by the steps its manual gives (lang_altertable, section 7).
 */
async function number(db: Knex): Promise<void> {
  const entries = (await db('sqlite_schema')
    .where({ tbl_name: 'source' })
    .whereNotNull('sql')
    .select('type', 'name', 'sql')) as Entry[];
  const table = entries.find(({ type }) => type === 'table')!;
  const made = table.sql
    .replace(
      'CREATE TABLE `source` (`id` varchar(255)',
      'CREATE TABLE source_made (no INTEGER PRIMARY KEY, `id` varchar(255) not null',
    )
    .replace(', primary key (`id`))', ', unique (`id`))');
  const columns = ((await db.raw(`PRAGMA table_info(source)`)) as { name: string }[])
    .map(({ name }) => `"${name}"`)
    .join(', ');
  const stats = (await db('sqlite_stat1').where({ tbl: 'source' })) as object[];
  await db.raw(made);
  await db.raw(`INSERT INTO source_made (no, ${columns}) SELECT rowid, ${columns} FROM source`);
  await db.raw('DROP TABLE source');
  await db.raw('ALTER TABLE source_made RENAME TO source');
  for (const { type, sql } of entries) if (type !== 'table') await db.raw(sql);
  await db('sqlite_stat1').where({ tbl: 'source' }).delete();
  for (const stat of stats) await db('sqlite_stat1').insert(stat);
}

/** Keeps traits while rows of a table come and go: the kind and the value of each, in the words of a row. */
async function kept(
  db: Knex,
  table: 'facet' | 'source_tag' | 'finding',
  kind: (row: string) => string,
  value: (row: string) => string,
): Promise<void> {
  const is = (row: string) =>
    `t.library_id = ${row}.library_id AND t.kind = ${kind(row)} AND t.value = ${value(row)}`;
  await db.raw(
    `CREATE TRIGGER trait_of_${table}_in AFTER INSERT ON ${table} BEGIN
       INSERT INTO trait (library_id, kind, value) VALUES (NEW.library_id, ${kind('NEW')}, ${value('NEW')}) ON CONFLICT DO NOTHING;
       INSERT INTO trait_of (trait_id, no) SELECT t.id, s.no FROM source s, trait t WHERE s.id = NEW.source_id AND ${is('NEW')};
     END`,
  );
  await db.raw(
    `CREATE TRIGGER trait_of_${table}_out AFTER DELETE ON ${table} BEGIN
       DELETE FROM trait_of WHERE trait_id = (SELECT t.id FROM trait t WHERE ${is('OLD')}) AND no = (SELECT no FROM source WHERE id = OLD.source_id);
     END`,
  );
  await db.raw(
    `INSERT INTO trait (library_id, kind, value) SELECT DISTINCT r.library_id, ${kind('r')}, ${value('r')} FROM ${table} r`,
  );
  await db.raw(
    `INSERT INTO trait_of (trait_id, no) SELECT t.id, s.no FROM ${table} r JOIN source s ON s.id = r.source_id JOIN trait t ON ${is('r')}`,
  );
}

/** The traits that stand in the row of a source, as rows of a kind and a value. */
const OF_ROW = (row: string) => `
  SELECT 'type' AS kind, ${row}.type AS value
  UNION ALL SELECT 'year', CAST(${row}.year AS TEXT) WHERE ${row}.year IS NOT NULL
  UNION ALL SELECT 'state', 'unchecked' WHERE ${row}.checked IS NULL
  UNION ALL SELECT 'state', 'found' WHERE ${row}.findings <> '[]'`;
const ADD = `
  INSERT INTO trait (library_id, kind, value) SELECT NEW.library_id, w.kind, w.value FROM (${OF_ROW('NEW')}) w WHERE true ON CONFLICT DO NOTHING;
  INSERT INTO trait_of (trait_id, no) SELECT t.id, NEW.no FROM (${OF_ROW('NEW')}) w CROSS JOIN trait t ON t.library_id = NEW.library_id AND t.kind = w.kind AND t.value = w.value;`;
const REMOVE = `
  DELETE FROM trait_of WHERE no = OLD.no AND trait_id IN (SELECT t.id FROM (${OF_ROW('OLD')}) w CROSS JOIN trait t ON t.library_id = OLD.library_id AND t.kind = w.kind AND t.value = w.value);`;

/**
 * What sources are counted by stands in whole numbers: which sources have which trait, a value of a kind, kept as rows come, change
 * and go. Numbers are counted several times as fast as the texts they stand for.
 */
export async function up(database: Knex): Promise<void> {
  await database.raw('PRAGMA foreign_keys = OFF');
  await database.raw('PRAGMA legacy_alter_table = ON');
  try {
    await database.transaction(async (db) => {
      const columns = (await db.raw('PRAGMA table_info(source)')) as { name: string }[];
      // It was done where the process ended before the migrator wrote that down.
      if (columns.some(({ name }) => name === 'no')) return;
      await number(db);
      await db.raw(
        `CREATE TABLE trait (id INTEGER PRIMARY KEY, library_id TEXT NOT NULL REFERENCES library(id), kind TEXT NOT NULL, value TEXT NOT NULL, n INTEGER NOT NULL DEFAULT 0, UNIQUE (library_id, kind, value))`,
      );
      await db.raw(`CREATE INDEX trait_in_any_case ON trait (library_id, kind, value COLLATE NOCASE)`);
      await db.raw(
        `CREATE TABLE trait_of (trait_id INTEGER NOT NULL REFERENCES trait(id), no INTEGER NOT NULL REFERENCES source(no) ON DELETE CASCADE, PRIMARY KEY (trait_id, no)) WITHOUT ROWID`,
      );
      await db.raw(`CREATE INDEX trait_of_no ON trait_of (no, trait_id)`);
      await kept(
        db,
        'facet',
        (row) => `${row}.kind`,
        (row) => `${row}.value`,
      );
      await kept(
        db,
        'source_tag',
        () => `'tag'`,
        (row) => `${row}.tag`,
      );
      await kept(
        db,
        'finding',
        () => `'finding'`,
        (row) => `${row}.name`,
      );
      await db.raw(`CREATE TRIGGER trait_of_source_in AFTER INSERT ON source BEGIN ${ADD} END`);
      await db.raw(
        `CREATE TRIGGER trait_of_source_change AFTER UPDATE OF type, year, checked, findings ON source
         WHEN OLD.type <> NEW.type OR OLD.year IS NOT NEW.year OR (OLD.checked IS NULL) <> (NEW.checked IS NULL) OR (OLD.findings <> '[]') <> (NEW.findings <> '[]')
         BEGIN ${REMOVE} ${ADD} END`,
      );
      for (const [kind, value, where] of [
        ['type', 'type', 'true'],
        ['year', 'CAST(year AS TEXT)', 'year IS NOT NULL'],
        ['state', `'unchecked'`, 'checked IS NULL'],
        ['state', `'found'`, `findings <> '[]'`],
      ]) {
        await db.raw(
          `INSERT INTO trait (library_id, kind, value) SELECT DISTINCT library_id, '${kind}', ${value} FROM source WHERE ${where}`,
        );
        await db.raw(
          `INSERT INTO trait_of (trait_id, no) SELECT t.id, s.no FROM (SELECT no, library_id, ${value} AS value FROM source WHERE ${where}) s JOIN trait t ON t.library_id = s.library_id AND t.kind = '${kind}' AND t.value = s.value`,
        );
      }
      await db.raw('UPDATE trait SET n = (SELECT count(*) FROM trait_of WHERE trait_id = trait.id)');
      await db.raw(
        'CREATE TRIGGER trait_more AFTER INSERT ON trait_of BEGIN UPDATE trait SET n = n + 1 WHERE id = NEW.trait_id; END',
      );
      await db.raw(
        'CREATE TRIGGER trait_less AFTER DELETE ON trait_of BEGIN UPDATE trait SET n = n - 1 WHERE id = OLD.trait_id; END',
      );
      // What sources are found by says their number, too.
      await db.raw('ALTER TABLE search_subject ADD COLUMN no INTEGER');
      await db.raw(
        `UPDATE search_subject SET no = (SELECT no FROM source WHERE id = subject_id) WHERE kind = 'source'`,
      );
      await db.raw(
        `CREATE TRIGGER search_subject_number AFTER INSERT ON search_subject WHEN NEW.kind = 'source' BEGIN
           UPDATE search_subject SET no = (SELECT no FROM source WHERE id = NEW.subject_id) WHERE id = NEW.id;
         END`,
      );
      await db.raw('DROP INDEX facet_of_value');
      await db('sqlite_stat1').where({ idx: 'facet_of_value' }).delete();
      await db('sqlite_stat1').insert([
        { tbl: 'trait', idx: 'sqlite_autoindex_trait_1', stat: '20000 20000 2500 1' },
        { tbl: 'trait', idx: 'trait_in_any_case', stat: '20000 20000 2500 1' },
        { tbl: 'trait_of', idx: 'trait_of', stat: '80000 4 1' },
        { tbl: 'trait_of', idx: 'trait_of_no', stat: '80000 8 1' },
      ]);
      await db.raw('ANALYZE sqlite_schema');
    });
  } finally {
    await database.raw('PRAGMA legacy_alter_table = OFF');
    await database.raw('PRAGMA foreign_keys = ON');
  }
}
