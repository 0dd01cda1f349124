import type { Knex } from 'knex';

/** Accounts, sessions, tokens, invitations, links to read, and what was handed out. Secrets are kept as their SHA-256. */
export async function up(db: Knex): Promise<void> {
  // What a column may hold cannot be changed in place: the table is laid anew.
  await db.schema.createTable('membership_new', (t) => {
    t.string('library_id').notNullable().references('library.id').onDelete('CASCADE');
    t.string('person_id').notNullable().references('person.id');
    t.string('role').notNullable().checkIn(['owner', 'editor', 'annotator', 'reader']);
    t.string('joined').notNullable().defaultTo('');
    t.primary(['library_id', 'person_id']);
    t.index(['person_id']);
  });
  await db.raw(
    `INSERT INTO membership_new (library_id, person_id, role, joined)
     SELECT m.library_id, m.person_id, m.role, l.created FROM membership m JOIN library l ON l.id = m.library_id`,
  );
  await db.schema.dropTable('membership');
  await db.schema.renameTable('membership_new', 'membership');

  await db.schema.createTable('account', (t) => {
    t.string('person_id').primary().references('person.id');
    t.string('mail').notNullable().unique();
    // Argon2id, as a PHC string.
    t.string('phrase').notNullable();
    // The one who answers for the server: gives ways back in to who forgot their pass phrase.
    t.boolean('keeper').notNullable().defaultTo(false);
    // Time-based codes (RFC 6238): the secret in base32 once it is confirmed, and the last step that was taken.
    t.string('code_secret');
    t.string('code_waiting');
    t.integer('code_step').notNullable().defaultTo(0);
    t.string('made').notNullable();
  });
  const handed = (t: Knex.CreateTableBuilder) => {
    t.string('id').primary();
    t.string('hash').notNullable().unique();
    t.string('made').notNullable();
    t.string('expires');
  };
  await db.schema.createTable('session', (t) => {
    handed(t);
    t.string('person_id').notNullable().references('person.id').onDelete('CASCADE');
    t.string('seen').notNullable();
    t.string('agent').notNullable();
    t.string('address').notNullable();
    t.index(['person_id']);
  });
  await db.schema.createTable('token', (t) => {
    handed(t);
    t.string('person_id').notNullable().references('person.id').onDelete('CASCADE');
    t.string('library_id').notNullable().references('library.id').onDelete('CASCADE');
    t.string('name').notNullable();
    t.string('may').notNullable().checkIn(['read', 'capture', 'all']);
    t.string('used');
    t.index(['person_id']);
  });
  await db.schema.createTable('way_back', (t) => {
    handed(t);
    t.string('person_id').notNullable().references('person.id').onDelete('CASCADE');
    t.string('by_id').notNullable().references('person.id');
  });
  await db.schema.createTable('attempt', (t) => {
    t.string('of').primary();
    t.integer('failed').notNullable();
    t.string('last').notNullable();
  });
  await db.schema.createTable('invitation', (t) => {
    handed(t);
    t.string('library_id').notNullable().references('library.id').onDelete('CASCADE');
    t.string('owner_id').notNullable().references('person.id');
    t.string('role').notNullable().checkIn(['editor', 'annotator', 'reader']);
    t.string('name').notNullable();
    t.string('used');
    t.string('used_by').references('person.id');
    t.index(['library_id']);
  });
  await db.schema.createTable('share_link', (t) => {
    handed(t);
    t.string('library_id').notNullable().references('library.id').onDelete('CASCADE');
    t.string('owner_id').notNullable().references('person.id');
    t.string('what').notNullable().checkIn(['project', 'section', 'list']);
    t.string('project_id').references('project.id').onDelete('CASCADE');
    t.string('section_id').references('section.id').onDelete('CASCADE');
    t.text('source_ids');
    t.string('name').notNullable();
    t.string('style').notNullable();
    t.string('locale').notNullable();
    t.boolean('documents').notNullable();
    t.boolean('passages').notNullable();
    t.string('withdrawn');
    t.integer('opened').notNullable().defaultTo(0);
    t.string('last_opened');
    t.index(['library_id']);
    t.index(['project_id']);
    t.index(['section_id']);
  });
  await db.schema.createTable('audit', (t) => {
    t.string('id').primary();
    t.string('library_id').references('library.id').onDelete('CASCADE');
    t.string('person_id').references('person.id');
    t.string('at').notNullable();
    t.string('act').notNullable();
    t.text('words').notNullable();
    t.index(['library_id', 'at']);
    t.index(['person_id', 'at']);
  });
}
