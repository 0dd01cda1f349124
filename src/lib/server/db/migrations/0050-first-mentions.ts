import type { Knex } from 'knex';

/** First mentions and lists show fewer names in some styles, and works are sorted otherwise: what was printed before is let go of. */
export async function up(db: Knex): Promise<void> {
  await db('printed').delete();
}
