import type { Knex } from 'knex';

/** What a browser kept while the server was not reached and sent since: it is taken once, however often it comes. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('sent_once', (t) => {
    t.string('person_id').notNullable().references('person.id').onDelete('CASCADE');
    t.string('id').notNullable();
    t.string('at').notNullable();
    t.primary(['person_id', 'id']);
    t.index(['at']);
  });
}
