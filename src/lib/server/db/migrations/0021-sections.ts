import type { Knex } from 'knex';

const count = (row: string, n: 1 | -1) =>
  `INSERT INTO tally (library_id, project_id, person_id, what, n) SELECT ${row}.library_id, '', '', 'bin', ${n} WHERE ${row}.binned_with = ${row}.id ON CONFLICT (library_id, project_id, person_id, what) DO UPDATE SET n = n + excluded.n;`;

/** Sections stand in sections, and can be put in the bin; a project says where in a section goes what is new. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('section', (t) => {
    t.string('binned');
    // The section that was put in the bin, with all that stands under it.
    t.string('binned_with');
  });
  await db.schema.alterTable('project', (t) => {
    t.boolean('new_first').notNullable().defaultTo(false);
  });
  await db.raw('CREATE INDEX section_binned_with ON section (binned_with) WHERE binned_with IS NOT NULL');
  await db.raw('CREATE INDEX section_of_library ON section (library_id, project_id, position)');
  await db.raw('CREATE INDEX section_under ON section (parent_id) WHERE parent_id IS NOT NULL');
  await db.raw('CREATE INDEX placement_in_order ON placement (section_id, position)');
  await db.raw(
    `CREATE TRIGGER tally_section_change AFTER UPDATE OF binned_with ON section BEGIN ${count('OLD', -1)}${count('NEW', 1)} END`,
  );
  await db.raw(`CREATE TRIGGER tally_section_out AFTER DELETE ON section BEGIN ${count('OLD', -1)} END`);
}
