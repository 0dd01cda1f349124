import type { Knex } from 'knex';

/** Queries that are kept by a name, each as it is written. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('saved_query', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id');
    t.string('owner_id').notNullable().references('person.id');
    t.string('name').notNullable();
    t.text('query').notNullable();
    t.string('created').notNullable();
    t.index(['library_id', 'name']);
  });
}
