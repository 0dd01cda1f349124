import type { Knex } from 'knex';

/** Names that repeat, and what tells works apart, print otherwise: what was printed before is let go of. */
export async function up(db: Knex): Promise<void> {
  await db('printed').delete();
}
