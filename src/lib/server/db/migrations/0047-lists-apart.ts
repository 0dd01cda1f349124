import type { Knex } from 'knex';

/** Whole lists are printed where they are kept: in a thread of their own, and no longer in the database. */
export async function up(db: Knex): Promise<void> {
  await db.schema.dropTable('printed_list');
}
