import type { Knex } from 'knex';

const add = (rows: string) =>
  `INSERT INTO tally (library_id, project_id, person_id, what, n) ${rows} ON CONFLICT (library_id, project_id, person_id, what) DO UPDATE SET n = n + excluded.n;`;
const whose = (row: string) => `CASE ${row}.visibility WHEN 'private' THEN ${row}.owner_id ELSE '' END`;
const ofNote = (row: string, n: 1 | -1) =>
  add(
    `SELECT ${row}.library_id, p.project_id, ${whose(row)}, 'notes', ${n} FROM (SELECT '' AS project_id UNION ALL SELECT ${row}.project_id WHERE ${row}.project_id IS NOT NULL) p WHERE ${row}.binned IS NULL`,
  ) + add(`SELECT ${row}.library_id, '', ${whose(row)}, 'bin', ${n} WHERE ${row}.binned IS NOT NULL`);

/** Notes can be private, and what is private can be shown to some by name. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('passage', (t) => {
    // Ids of persons, as JSON; nothing where it is for nobody but its owner, or for all.
    t.text('shown_to');
  });
  await db.schema.alterTable('note', (t) => {
    t.string('visibility').notNullable().defaultTo('library').checkIn(['private', 'library']);
    t.text('shown_to');
  });
  for (const table of ['passage', 'note'])
    await db.raw(`CREATE INDEX ${table}_shown_to_some ON ${table} (library_id) WHERE shown_to IS NOT NULL`);
  for (const when of ['in', 'out', 'change']) await db.raw(`DROP TRIGGER tally_note_${when}`);
  await db.raw(`CREATE TRIGGER tally_note_in AFTER INSERT ON note BEGIN ${ofNote('NEW', 1)} END`);
  await db.raw(`CREATE TRIGGER tally_note_out AFTER DELETE ON note BEGIN ${ofNote('OLD', -1)} END`);
  await db.raw(
    `CREATE TRIGGER tally_note_change AFTER UPDATE OF binned, project_id, visibility ON note BEGIN ${ofNote('OLD', -1)}${ofNote('NEW', 1)} END`,
  );
}
