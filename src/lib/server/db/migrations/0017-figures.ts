import type { Knex } from 'knex';

/** Figures: passages that are part of a picture, with the picture that was cut out in the store; and passages of several stretches. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('passage', (t) => {
    t.text('figure');
    t.string('figure_sha256');
    // Where else its words stand, behind those that are left out.
    t.text('further').notNullable().defaultTo('[]');
    t.index(['figure_sha256']);
  });
  // A page that is read again in its own window is looked up by its address.
  await db.schema.alterTable('copy', (t) => {
    t.index(['library_id', 'address']);
  });
}
