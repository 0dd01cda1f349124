import type { Knex } from 'knex';

/** What was printed by the processor before is let go of, and printed anew when it is asked for. */
export async function up(db: Knex): Promise<void> {
  await db('printed').delete();
  await db('printed_list').delete();
}
