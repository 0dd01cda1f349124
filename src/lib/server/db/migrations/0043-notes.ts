import type { Knex } from 'knex';

/** Notes have a look and a colour, and name sources and each other. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('note', (t) => {
    t.text('content');
    t.string('tint');
  });
  await db.schema.createTable('note_named', (t) => {
    t.string('library_id').notNullable().references('id').inTable('library').onDelete('CASCADE');
    t.string('note_id').notNullable().references('id').inTable('note').onDelete('CASCADE');
    t.string('source_id').references('id').inTable('source').onDelete('CASCADE');
    t.string('other_id').references('id').inTable('note').onDelete('CASCADE');
    t.index(['note_id']);
    t.index(['source_id']);
    t.index(['other_id']);
    t.index(['library_id']);
  });
}
