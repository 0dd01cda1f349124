import type { Knex } from 'knex';

/** The ORCID of who is meant by a name of the library; a name of which nothing was said has none. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('person_orcid', (t) => {
    t.string('library_id').notNullable().references('id').inTable('library').onDelete('CASCADE');
    t.string('name').notNullable();
    t.string('orcid').notNullable();
    t.primary(['library_id', 'name']);
    t.index(['library_id', 'orcid']);
  });
}
