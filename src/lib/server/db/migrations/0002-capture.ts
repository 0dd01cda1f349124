import type { Knex } from 'knex';

/** Capture: printed page labels of copies, notes, leads, sections, capture presets, captures that wait for an answer. */
export async function up(db: Knex): Promise<void> {
  const owned = (t: Knex.CreateTableBuilder) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id');
    t.string('owner_id').notNullable().references('person.id');
  };
  await db.schema.alterTable('copy', (t) => {
    // JSON array: the printed label of each leaf, null where none is known. Empty for copies without leaves.
    t.text('labels');
    t.string('note');
  });
  await db.schema.createTable('section', (t) => {
    owned(t);
    t.string('project_id').notNullable().references('project.id');
    t.string('parent_id').references('section.id');
    t.integer('position').notNullable();
    t.string('name').notNullable();
    t.string('created').notNullable();
    t.index(['project_id', 'position']);
  });
  await db.schema.createTable('placement', (t) => {
    t.string('section_id').notNullable().references('section.id');
    t.integer('position').notNullable();
    t.string('source_id').references('source.id');
    t.string('passage_id').references('passage.id');
    t.string('note_id');
    t.unique(['section_id', 'source_id']);
    t.index(['source_id']);
  });
  await db.schema.createTable('note', (t) => {
    owned(t);
    t.text('body').notNullable();
    t.string('project_id').references('project.id');
    t.string('source_id').references('source.id');
    t.string('audio_sha256');
    t.string('audio_type');
    t.integer('audio_seconds');
    t.integer('revision').notNullable();
    t.string('added').notNullable();
    t.string('binned');
    t.index(['library_id', 'binned', 'added']);
    t.index(['source_id']);
  });
  await db.schema.createTable('lead', (t) => {
    owned(t);
    t.text('text').notNullable();
    t.text('parsed').notNullable();
    t.string('project_id').references('project.id');
    t.string('met_in').references('source.id');
    t.string('found_id').references('source.id');
    t.string('ticked');
    t.integer('revision').notNullable();
    t.string('added').notNullable();
    t.string('binned');
    t.index(['library_id', 'binned', 'added']);
    t.index(['met_in']);
    t.index(['found_id']);
  });
  await db.schema.createTable('preset', (t) => {
    owned(t);
    t.string('name').notNullable();
    t.string('project_id').references('project.id');
    t.string('section_id').references('section.id');
    t.string('type');
    t.text('asked').notNullable();
    t.text('defaults').notNullable();
    t.text('tags').notNullable();
    t.boolean('keep_page').notNullable();
    t.boolean('keep_pdf').notNullable();
    t.string('created').notNullable();
    t.index(['library_id']);
  });
  await db.schema.createTable('hold', (t) => {
    t.string('job_id').primary().references('job.id').onDelete('CASCADE');
    t.string('library_id').notNullable().references('library.id');
    t.text('content').notNullable();
  });
  // SQLite cannot change a check, so the table is set up anew: notes and leads have a history too.
  await db.schema.renameTable('revision', 'revision_before');
  await db.schema.createTable('revision', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id');
    t.string('subject').notNullable().checkIn(['source', 'passage', 'note', 'lead']);
    t.string('subject_id').notNullable();
    t.integer('number').notNullable();
    t.string('person_id').notNullable().references('person.id');
    t.string('at').notNullable();
    t.string('why').notNullable();
    t.text('forward').notNullable();
    t.text('backward').notNullable();
  });
  await db.raw(
    'INSERT INTO revision (id, library_id, subject, subject_id, number, person_id, at, why, forward, backward) SELECT id, library_id, subject, subject_id, number, person_id, at, why, forward, backward FROM revision_before',
  );
  await db.schema.dropTable('revision_before');
  await db.raw('CREATE UNIQUE INDEX revision_of_subject ON revision (subject_id, number)');
}
