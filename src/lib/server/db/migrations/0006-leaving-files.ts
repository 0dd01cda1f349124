import type { Knex } from 'knex';

/** Files of what was deleted for good; they leave the store at the next start, unless something else has them. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('leaving_file', (t) => {
    t.string('sha256').primary();
  });
}
