import type { Knex } from 'knex';

/** How far each person is with reading a source, and how much it matters to them. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('reading', (t) => {
    t.string('source_id').notNullable().references('source.id');
    t.string('owner_id').notNullable().references('person.id');
    t.string('state').checkIn(['to-read', 'reading', 'read', 'aside']);
    t.string('priority').checkIn(['high', 'low']);
    t.string('changed').notNullable();
    t.primary(['source_id', 'owner_id']);
    t.index(['owner_id', 'state']);
    t.index(['owner_id', 'priority']);
  });
}
