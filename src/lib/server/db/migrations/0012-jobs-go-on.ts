import type { Knex } from 'knex';

/** Jobs know what was answered, and how often they were begun, so that a server that starts again goes on with them. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('job', (t) => {
    t.text('answer');
    t.integer('tries').notNullable().defaultTo(0);
  });
}
