import type { Knex } from 'knex';

/** Which source of one library is the same work as one of another, since it was brought from there. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('crossing', (t) => {
    t.string('from_id').notNullable();
    t.string('library_id').notNullable().references('library.id').onDelete('CASCADE');
    t.string('to_id').notNullable();
    t.string('at').notNullable();
    t.primary(['from_id', 'library_id']);
    t.index(['to_id']);
  });
}
