import type { Knex } from 'knex';

/** The language a style that a person brings is written for, where it says one; of those brought before, it is not known. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('own_style', (t) => {
    t.string('locale');
  });
}
