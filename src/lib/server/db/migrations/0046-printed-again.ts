import type { Knex } from 'knex';

/** Dates in words, parts that stand by themselves and roman numerals print otherwise: what was printed before is let go of. */
export async function up(db: Knex): Promise<void> {
  await db('printed').delete();
  await db('printed_list').delete();
}
