import type { Knex } from 'knex';

/** What several people choose among, who is asked, what they said, and what was settled. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('choice', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id').onDelete('CASCADE');
    t.string('owner_id').notNullable().references('person.id');
    t.string('name').notNullable();
    t.string('way').notNullable().checkIn(['opinion', 'order', 'screening']);
    t.text('reasons').notNullable();
    t.string('made').notNullable();
    t.string('closed');
    t.string('put_away');
    t.index(['library_id']);
  });
  await db.schema.createTable('choice_voter', (t) => {
    t.string('choice_id').notNullable().references('choice.id').onDelete('CASCADE');
    t.string('person_id').notNullable().references('person.id');
    t.integer('place').notNullable();
    t.primary(['choice_id', 'person_id']);
    t.index(['person_id']);
  });
  await db.schema.createTable('candidate', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id').onDelete('CASCADE');
    t.string('choice_id').notNullable().references('choice.id').onDelete('CASCADE');
    t.string('source_id').notNullable().references('source.id');
    t.integer('place').notNullable();
    t.string('settled').checkIn(['include', 'exclude']);
    t.string('settled_by').references('person.id');
    t.unique(['choice_id', 'source_id']);
    t.index(['source_id']);
  });
  // Held to its choice and not to its candidate: that goes and comes back where two sources are made one and taken apart again.
  await db.schema.createTable('vote', (t) => {
    t.string('choice_id').notNullable().references('choice.id').onDelete('CASCADE');
    t.string('candidate_id').notNullable();
    t.string('person_id').notNullable().references('person.id');
    t.string('library_id').notNullable().references('library.id').onDelete('CASCADE');
    t.string('says').checkIn(['keep', 'perhaps', 'leave', 'include', 'exclude']);
    t.integer('place');
    t.text('reason').notNullable();
    t.string('at').notNullable();
    t.primary(['candidate_id', 'person_id']);
    t.index(['choice_id', 'person_id']);
    t.index(['person_id']);
  });
}
