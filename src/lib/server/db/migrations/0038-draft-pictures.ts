import type { Knex } from 'knex';

/** Pictures of one’s own in drafts. They stay as long as the draft: what was taken out of it can be brought back. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('draft_picture', (t) => {
    t.string('library_id').notNullable().references('id').inTable('library').onDelete('CASCADE');
    t.string('draft_id').notNullable().references('id').inTable('draft').onDelete('CASCADE');
    t.string('sha256').notNullable();
    t.string('media_type').notNullable();
    t.primary(['draft_id', 'sha256']);
    t.index(['sha256']);
  });
}
