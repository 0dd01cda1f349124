import type { Knex } from 'knex';

/** Fields of study of styles people bring, as JSON, so that they are found by field like the rest. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('own_style', (t) => {
    t.text('fields').notNullable().defaultTo('[]');
  });
}
