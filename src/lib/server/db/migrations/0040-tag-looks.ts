import type { Knex } from 'knex';

/** How a tag looks and the group it is in, by its name; a tag of which nothing was said has none. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('tag_look', (t) => {
    t.string('library_id').notNullable().references('id').inTable('library').onDelete('CASCADE');
    t.string('tag').notNullable();
    t.string('tint');
    t.string('pattern').notNullable();
    t.string('group_name');
    t.primary(['library_id', 'tag']);
  });
}
