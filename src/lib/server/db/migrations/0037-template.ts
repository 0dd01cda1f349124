import type { Knex } from 'knex';

/** A draft has the template it is saved in, for the next time. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('draft', (t) => {
    t.string('template_sha256');
    t.string('template_name');
    t.index(['template_sha256']);
  });
}
