import type { Knex } from 'knex';

/** What is said to a passage by others and by oneself, whom it is for, and whether it is settled. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('reply', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id').onDelete('CASCADE');
    t.string('passage_id').notNullable().references('passage.id').onDelete('CASCADE');
    t.string('owner_id').notNullable().references('person.id');
    t.text('text').notNullable();
    t.string('added').notNullable();
    t.string('edited');
    t.string('binned');
    t.index(['passage_id', 'added']);
    t.index(['library_id']);
  });
  // Whom a reply is for; `seen` once they looked at it.
  await db.schema.createTable('reply_for', (t) => {
    t.string('reply_id').notNullable().references('reply.id').onDelete('CASCADE');
    t.string('person_id').notNullable().references('person.id');
    t.string('seen');
    t.primary(['reply_id', 'person_id']);
    t.index(['person_id', 'seen']);
  });
  await db.schema.createTable('settled', (t) => {
    t.string('passage_id').primary().references('passage.id').onDelete('CASCADE');
    t.string('library_id').notNullable().references('library.id').onDelete('CASCADE');
    t.string('person_id').notNullable().references('person.id');
    t.string('at').notNullable();
    t.index(['library_id']);
  });
}
