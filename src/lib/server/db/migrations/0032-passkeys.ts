import type { Knex } from 'knex';

/** Passkeys: what is known of each is public, and proves nothing without the device it belongs to (W3C Web Authentication). */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('passkey', (t) => {
    // The credential's own id, in base64url.
    t.string('id').primary();
    t.string('person_id').notNullable().references('person.id').onDelete('CASCADE');
    t.string('name').notNullable();
    t.binary('public_key').notNullable();
    t.integer('counter').notNullable();
    t.text('transports').notNullable();
    t.string('made').notNullable();
    t.string('used');
    t.index(['person_id']);
  });
}
