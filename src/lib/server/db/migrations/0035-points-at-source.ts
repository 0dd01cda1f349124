import type { Knex } from 'knex';

/** What points at a source is found by it: a source that goes is not looked for in all rows of a table. */
export async function up(db: Knex): Promise<void> {
  await db.raw('CREATE INDEX source_merged_into ON source (merged_into) WHERE merged_into IS NOT NULL');
  for (const [table, column] of [
    ['apart', 'b_id'],
    ['merge', 'absorbed_id'],
    ['merge', 'survivor_id'],
    ['alias', 'source_id'],
  ] as const)
    await db.raw(`CREATE INDEX ${table}_by_${column} ON "${table}" (${column})`);
}
