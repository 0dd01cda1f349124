import type { Knex } from 'knex';

/**
 * Whole lists are printed where they are kept: in a thread of their own, and no longer in the database. Seasons, terms a language has
 * no word for, and names that repeat behind a title print otherwise: what was printed before is let go of.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.dropTable('printed_list');
  await db('printed').delete();
}
