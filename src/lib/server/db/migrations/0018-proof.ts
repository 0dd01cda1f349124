import type { Knex } from 'knex';

/**
 * What the proof finds in each living source, by check, so that a whole library is asked for one of them at once; written with the source. And
 * the checks a project does not ask.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('finding', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('source_id').notNullable().references('source.id').onDelete('CASCADE');
    t.string('name').notNullable();
    t.string('pencil').notNullable().checkIn(['red', 'blue', 'grey']);
    t.boolean('fixable').notNullable();
    t.primary(['source_id', 'name']);
    t.index(['library_id', 'name', 'source_id', 'pencil', 'fixable'], 'finding_by_name');
  });
  await db.schema.createTable('proof_aside', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('project_id').notNullable().references('project.id').onDelete('CASCADE');
    t.string('name').notNullable();
    t.string('person_id').notNullable().references('person.id');
    t.string('at').notNullable();
    t.primary(['project_id', 'name']);
  });
}
