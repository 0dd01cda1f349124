import type { Knex } from 'knex';

/**
 * How records spell people, institutions and containers: each spelling once with the sources that have it, counted; by the
 * keys that spellings of one name share, which ones look like one name, proposed anew when a spelling comes or goes.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`ALTER TABLE lookup ADD COLUMN spellings TEXT NOT NULL DEFAULT '[]'`);
  // Of the source, so that what was derived from it is known without reading it.
  await db.raw(`ALTER TABLE lookup ADD COLUMN revision INTEGER NOT NULL DEFAULT 0`);
  await db.raw(
    `CREATE TABLE spelling (id INTEGER PRIMARY KEY, library_id TEXT NOT NULL REFERENCES library(id), kind TEXT NOT NULL, key TEXT NOT NULL, form TEXT NOT NULL, n INTEGER NOT NULL DEFAULT 0, UNIQUE (library_id, key, form))`,
  );
  await db.raw(
    `CREATE TABLE spelling_source (spelling_id INTEGER NOT NULL, lookup_id INTEGER NOT NULL, PRIMARY KEY (spelling_id, lookup_id)) WITHOUT ROWID`,
  );
  // Keys that several spellings may share and whose spellings have come or gone since they were compared.
  await db.raw(
    `CREATE TABLE spelling_stale (library_id TEXT NOT NULL REFERENCES library(id), key TEXT NOT NULL, kind TEXT NOT NULL, PRIMARY KEY (library_id, key)) WITHOUT ROWID`,
  );
  await db.raw(
    `CREATE TRIGGER spelling_in AFTER INSERT ON lookup WHEN NEW.spellings <> '[]' BEGIN
       INSERT OR IGNORE INTO spelling (library_id, kind, key, form) SELECT NEW.library_id, value ->> 'kind', value ->> 'key', value ->> 'form' FROM json_each(NEW.spellings);
       INSERT OR IGNORE INTO spelling_source SELECT spelling.id, NEW.id FROM json_each(NEW.spellings) CROSS JOIN spelling ON spelling.library_id = NEW.library_id AND spelling.key = json_each.value ->> 'key' AND spelling.form = json_each.value ->> 'form';
     END`,
  );
  await db.raw(
    `CREATE TRIGGER spelling_out AFTER DELETE ON lookup WHEN OLD.spellings <> '[]' BEGIN
       DELETE FROM spelling_source WHERE lookup_id = OLD.id AND spelling_id IN (SELECT spelling.id FROM json_each(OLD.spellings) CROSS JOIN spelling ON spelling.library_id = OLD.library_id AND spelling.key = json_each.value ->> 'key' AND spelling.form = json_each.value ->> 'form');
     END`,
  );
  for (const [name, when, row, by] of [
    ['spelling_more', 'AFTER INSERT', 'NEW', '+'],
    ['spelling_less', 'AFTER DELETE', 'OLD', '-'],
  ])
    await db.raw(
      `CREATE TRIGGER ${name} ${when} ON spelling_source BEGIN UPDATE spelling SET n = n ${by} 1 WHERE id = ${row}.spelling_id; END`,
    );
  // One that is the only one of its key so far is compared with nothing.
  await db.raw(
    `CREATE TRIGGER spelling_comes_or_goes AFTER UPDATE OF n ON spelling
       WHEN (OLD.n = 0) <> (NEW.n = 0) AND EXISTS (SELECT 1 FROM spelling s WHERE s.library_id = NEW.library_id AND s.key = NEW.key AND s.id <> NEW.id) BEGIN
       INSERT OR IGNORE INTO spelling_stale (library_id, key, kind) VALUES (NEW.library_id, NEW.key, NEW.kind);
     END`,
  );
  await db.schema.createTable('spelling_group', (t) => {
    t.increments('id');
    t.string('library_id').notNullable().references('library.id');
    t.string('kind').notNullable();
    t.string('key').notNullable();
    // 0 when they differ in nothing that could tell two names apart, 1 for a person to decide.
    t.integer('rank').notNullable();
    t.string('label').notNullable();
    t.text('forms').notNullable();
    t.text('differences').notNullable();
    t.index(['library_id', 'kind', 'rank', 'label', 'id'], 'spelling_group_in_order');
    t.index(['library_id', 'key']);
  });
  await db.schema.createTable('spelling_apart', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('a').notNullable();
    t.string('b').notNullable();
    t.string('key').notNullable();
    t.string('person_id').notNullable().references('person.id');
    t.string('at').notNullable();
    t.primary(['library_id', 'key', 'a', 'b']);
    t.index(['library_id', 'at']);
  });
}
