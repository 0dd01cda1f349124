import type { Knex } from 'knex';

const ADD = 'INSERT INTO tally (library_id, project_id, person_id, what, n)';
const OR_ADD = 'ON CONFLICT (library_id, project_id, person_id, what) DO UPDATE SET n = n + excluded.n;';

/** Whether none of a group but one source is in a project; every source is in the library, whose project has no name. */
const noOther = (group: string, source: string, project: string) =>
  `NOT EXISTS (SELECT 1 FROM likeness_member m WHERE m.group_id = ${group} AND m.source_id <> ${source} AND (${project} = '' OR EXISTS (SELECT 1 FROM filing f WHERE f.project_id = ${project} AND f.source_id = m.source_id)))`;

/** A group counts once in each place that one of it is in. */
const member = (row: string, n: 1 | -1) =>
  `${ADD} SELECT ${row}.library_id, p.project_id, '', 'duplicates', ${n} FROM (SELECT '' AS project_id UNION ALL SELECT project_id FROM filing WHERE source_id = ${row}.source_id) p WHERE ${noOther(`${row}.group_id`, `${row}.source_id`, 'p.project_id')} ${OR_ADD}`;
const filed = (row: string, n: 1 | -1) =>
  `${ADD} SELECT g.library_id, ${row}.project_id, '', 'duplicates', ${n} FROM likeness_member g WHERE g.source_id = ${row}.source_id AND ${noOther('g.group_id', `${row}.source_id`, `${row}.project_id`)} ${OR_ADD}`;

/**
 * Sources of one work are found by keys that are kept, judged when one of them changes, and kept in groups; works that belong
 * together are kept as such. What was judged before is judged anew, with all that is derived.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(
    `CREATE TABLE lookup (id INTEGER PRIMARY KEY, library_id TEXT NOT NULL REFERENCES library(id), source_id TEXT NOT NULL UNIQUE REFERENCES source(id), keys TEXT NOT NULL)`,
  );
  await db.raw(
    `CREATE TABLE lookup_key (key INTEGER NOT NULL, lookup_id INTEGER NOT NULL, PRIMARY KEY (key, lookup_id)) WITHOUT ROWID`,
  );
  await db.raw(
    `CREATE TRIGGER lookup_in AFTER INSERT ON lookup BEGIN INSERT OR IGNORE INTO lookup_key SELECT value, NEW.id FROM json_each(NEW.keys); END`,
  );
  await db.raw(
    `CREATE TRIGGER lookup_out AFTER DELETE ON lookup BEGIN DELETE FROM lookup_key WHERE lookup_id = OLD.id AND key IN (SELECT value FROM json_each(OLD.keys)); END`,
  );
  for (const name of ['likeness_in', 'likeness_out']) await db.raw(`DROP TRIGGER tally_${name}`);
  await db('tally').where({ what: 'duplicates' }).delete();
  await db.schema.dropTable('likeness');
  await db.schema.createTable('likeness', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('a_id').notNullable().references('source.id');
    t.string('b_id').notNullable().references('source.id');
    // 0 surely one work, 1 to decide.
    t.integer('rank').notNullable();
    t.float('score').notNullable();
    t.text('reasons').notNullable();
    t.primary(['a_id', 'b_id']);
    t.index(['b_id']);
  });
  await db.schema.createTable('likeness_group', (t) => {
    // The id of its first source.
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id');
    t.integer('rank').notNullable();
    t.float('score').notNullable();
    t.integer('size').notNullable();
    t.text('reasons').notNullable();
    t.text('label').notNullable();
    t.index(['library_id', 'rank', 'label', 'id'], 'likeness_group_in_order');
  });
  await db.schema.createTable('likeness_member', (t) => {
    t.string('source_id').primary().references('source.id');
    t.string('library_id').notNullable().references('library.id');
    t.string('group_id').notNullable();
    t.index(['group_id']);
  });
  await db.schema.createTable('relation', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('a_id').notNullable().references('source.id');
    t.string('b_id').notNullable().references('source.id');
    t.string('kind').notNullable();
    // Who said so; nobody where it was judged.
    t.string('person_id').references('person.id');
    t.string('at').notNullable();
    // Since when somebody says that they do not belong together.
    t.string('dismissed');
    t.primary(['a_id', 'b_id']);
    t.index(['b_id']);
  });
  for (const [name, when, does] of [
    ['member_in', 'AFTER INSERT ON likeness_member', member('NEW', 1)],
    ['member_out', 'AFTER DELETE ON likeness_member', member('OLD', -1)],
    ['filing_group_in', 'AFTER INSERT ON filing', filed('NEW', 1)],
    ['filing_group_out', 'AFTER DELETE ON filing', filed('OLD', -1)],
  ])
    await db.raw(`CREATE TRIGGER tally_${name} ${when} BEGIN ${does} END`);
  // What pairs counted in a project is not counted any more: the last statement of these two.
  for (const name of ['tally_filing_in', 'tally_filing_out']) {
    const { sql } = (await db('sqlite_master').where({ type: 'trigger', name }).first('sql')) as {
      sql: string;
    };
    const at = sql.lastIndexOf('INSERT INTO tally');
    await db.raw(`DROP TRIGGER ${name}`);
    await db.raw(`${sql.slice(0, at)} END`);
  }
  // What was merged in one step is undone in one.
  await db.schema.alterTable('merge', (t) => {
    t.string('step');
    t.index(['step']);
  });
}
