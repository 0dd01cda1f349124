import type { Knex } from 'knex';

/** The text being written of a project, by its parts, each with the revision of the draft that last changed it. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('draft', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id').onDelete('CASCADE');
    t.string('project_id').notNullable().references('project.id').onDelete('CASCADE');
    t.integer('revision').notNullable().defaultTo(0);
    // Sources in its list that it does not cite.
    t.text('listed').notNullable().defaultTo('[]');
    t.string('created').notNullable();
    t.unique(['project_id']);
    t.index(['library_id']);
  });
  await db.schema.createTable('draft_part', (t) => {
    t.string('id').primary();
    t.string('draft_id').notNullable().references('draft.id').onDelete('CASCADE');
    t.integer('position').notNullable();
    t.text('content').notNullable();
    t.integer('revision').notNullable();
    t.boolean('gone').notNullable().defaultTo(false);
    // The window that wrote it last: what that one did it does not clash with.
    t.string('page').notNullable().defaultTo('');
    t.string('person_id').notNullable().references('person.id');
    t.string('changed').notNullable();
    t.index(['draft_id', 'gone', 'position']);
    t.index(['draft_id', 'revision']);
  });
  await db.schema.createTable('draft_version', (t) => {
    t.string('id').primary();
    t.string('draft_id').notNullable().references('draft.id').onDelete('CASCADE');
    // Empty where it was kept by itself.
    t.string('name').notNullable().defaultTo('');
    t.text('parts').notNullable();
    t.integer('revision').notNullable();
    t.integer('words').notNullable();
    t.string('person_id').notNullable().references('person.id');
    t.string('made').notNullable();
    t.index(['draft_id', 'made']);
  });
  // Derived from the parts: which passages each was written from, and which works it cites.
  await db.schema.createTable('draft_use', (t) => {
    t.string('part_id').notNullable().references('draft_part.id').onDelete('CASCADE');
    t.string('kind').notNullable();
    t.string('ref').notNullable();
    t.primary(['part_id', 'kind', 'ref']);
    t.index(['kind', 'ref']);
  });
}
