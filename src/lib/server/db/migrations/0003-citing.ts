import type { Knex } from 'knex';

/** Citing: styles a person keeps at hand or brings, and how citekeys are made. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('favourite_style', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('person_id').notNullable().references('person.id');
    t.string('style').notNullable();
    t.string('at').notNullable();
    t.primary(['library_id', 'person_id', 'style']);
  });
  await db.schema.createTable('own_style', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id');
    t.string('owner_id').notNullable().references('person.id');
    t.string('title').notNullable();
    t.string('sha256').notNullable();
    t.string('format').notNullable();
    t.boolean('has_list').notNullable();
    t.string('added').notNullable();
    t.string('binned');
    t.index(['library_id']);
  });
  await db.schema.alterTable('library', (t) => {
    // JSON: the parts of a citekey in order; null for the usual.
    t.text('citekey_parts');
  });
}
