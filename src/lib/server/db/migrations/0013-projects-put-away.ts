import type { Knex } from 'knex';

const count = (row: string, n: 1 | -1) =>
  `INSERT INTO tally (library_id, project_id, person_id, what, n) SELECT ${row}.library_id, '', '', 'bin', ${n} WHERE ${row}.binned IS NOT NULL ON CONFLICT (library_id, project_id, person_id, what) DO UPDATE SET n = n + excluded.n;`;

/** A project can be put away, and put in the bin, where it is counted with what else is there. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('project', (t) => {
    t.string('put_away');
    t.string('binned');
  });
  await db.raw(
    `CREATE TRIGGER tally_project_change AFTER UPDATE OF binned ON project BEGIN ${count('OLD', -1)}${count('NEW', 1)} END`,
  );
  await db.raw(`CREATE TRIGGER tally_project_out AFTER DELETE ON project BEGIN ${count('OLD', -1)} END`);
}
