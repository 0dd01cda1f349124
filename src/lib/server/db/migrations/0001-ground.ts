import type { Knex } from 'knex';

/** The ground: people and libraries, projects, sources with revisions, copies, passages, doubles, caches, jobs, search. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('person', (t) => {
    t.string('id').primary();
    t.string('name').notNullable();
    t.string('created').notNullable();
  });
  await db.schema.createTable('library', (t) => {
    t.string('id').primary();
    t.string('name').notNullable();
    t.string('owner_id').notNullable().references('person.id');
    t.string('created').notNullable();
  });
  await db.schema.createTable('membership', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('person_id').notNullable().references('person.id');
    t.string('role').notNullable().checkIn(['owner', 'editor', 'reader']);
    t.primary(['library_id', 'person_id']);
  });
  const owned = (t: Knex.CreateTableBuilder) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id');
    t.string('owner_id').notNullable().references('person.id');
  };
  await db.schema.createTable('project', (t) => {
    owned(t);
    t.string('name').notNullable();
    t.string('style').notNullable();
    t.string('locale').notNullable();
    t.string('created').notNullable();
    t.index(['library_id']);
  });
  await db.schema.createTable('source', (t) => {
    owned(t);
    t.text('record').notNullable();
    t.integer('revision').notNullable();
    t.string('citekey').notNullable();
    t.string('added').notNullable();
    t.string('checked');
    t.string('binned');
    t.string('merged_into').references('source.id');
    t.string('type').notNullable();
    t.text('title').notNullable();
    t.text('title_key').notNullable();
    t.string('creator_key').notNullable();
    t.integer('year');
    t.string('doi');
    t.string('isbn');
    t.string('address_key');
    t.text('sort_key').notNullable();
    t.text('people').notNullable();
    t.text('findings').notNullable();
    t.unique(['library_id', 'citekey']);
    t.index(['library_id', 'binned', 'merged_into', 'sort_key']);
    t.index(['library_id', 'title_key']);
    t.index(['library_id', 'doi']);
    t.index(['library_id', 'isbn']);
    t.index(['library_id', 'address_key']);
  });
  await db.schema.createTable('source_tag', (t) => {
    t.string('library_id').notNullable();
    t.string('source_id').notNullable().references('source.id').onDelete('CASCADE');
    t.string('tag').notNullable();
    t.primary(['source_id', 'tag']);
    t.index(['library_id', 'tag']);
  });
  await db.schema.createTable('filing', (t) => {
    t.string('project_id').notNullable().references('project.id');
    t.string('source_id').notNullable().references('source.id');
    t.string('filed').notNullable();
    t.primary(['project_id', 'source_id']);
    t.index(['source_id']);
  });
  await db.schema.createTable('revision', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id');
    t.string('subject').notNullable().checkIn(['source', 'passage']);
    t.string('subject_id').notNullable();
    t.integer('number').notNullable();
    t.string('person_id').notNullable().references('person.id');
    t.string('at').notNullable();
    t.string('why').notNullable();
    t.text('forward').notNullable();
    t.text('backward').notNullable();
    t.unique(['subject_id', 'number']);
  });
  await db.schema.createTable('copy', (t) => {
    owned(t);
    t.string('source_id').notNullable().references('source.id');
    t.string('kind').notNullable().checkIn(['pdf', 'page', 'image', 'audio']);
    t.string('media_type').notNullable();
    t.string('sha256').notNullable();
    t.integer('size').notNullable();
    t.string('reading_sha256').notNullable();
    t.text('title').notNullable();
    t.text('address').notNullable();
    t.string('captured').notNullable();
    t.text('text').notNullable();
    t.index(['source_id']);
  });
  await db.schema.createTable('passage', (t) => {
    owned(t);
    t.string('source_id').notNullable().references('source.id');
    t.string('copy_id').references('copy.id');
    t.string('kind').notNullable();
    t.text('selectors');
    t.text('exact').notNullable();
    t.text('locator');
    t.text('gist').notNullable();
    t.text('own_words').notNullable();
    t.string('tint').notNullable();
    t.string('visibility').notNullable().checkIn(['private', 'library']);
    t.string('anchor').notNullable().checkIn(['found', 'moved', 'lost']);
    t.integer('revision').notNullable();
    t.string('added').notNullable();
    t.string('binned');
    t.index(['library_id', 'binned']);
    t.index(['source_id']);
    t.index(['copy_id']);
  });
  await db.schema.createTable('apart', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('a_id').notNullable().references('source.id');
    t.string('b_id').notNullable().references('source.id');
    t.string('person_id').notNullable().references('person.id');
    t.string('at').notNullable();
    t.primary(['a_id', 'b_id']);
  });
  await db.schema.createTable('merge', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id');
    t.string('survivor_id').notNullable().references('source.id');
    t.string('absorbed_id').notNullable().references('source.id');
    t.string('person_id').notNullable().references('person.id');
    t.string('at').notNullable();
    t.string('undone');
    t.text('before').notNullable();
    t.index(['library_id']);
  });
  await db.schema.createTable('alias', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('alias').notNullable();
    t.string('source_id').notNullable().references('source.id');
    t.primary(['library_id', 'alias']);
  });
  await db.schema.createTable('printed', (t) => {
    t.string('source_id').notNullable();
    t.integer('revision').notNullable();
    t.string('style').notNullable();
    t.string('locale').notNullable();
    t.text('runs').notNullable();
    t.primary(['source_id', 'revision', 'style', 'locale']);
  });
  await db.schema.createTable('printed_list', (t) => {
    t.string('key').primary();
    t.string('at').notNullable();
    t.text('list').notNullable();
  });
  await db.schema.createTable('job', (t) => {
    t.string('id').primary();
    t.string('library_id').notNullable().references('library.id');
    t.string('person_id').notNullable().references('person.id');
    t.string('kind').notNullable();
    t.string('state').notNullable().checkIn(['waiting', 'running', 'done', 'failed', 'dismissed']);
    t.text('input').notNullable();
    t.text('result');
    t.text('error');
    t.string('created').notNullable();
    t.string('updated').notNullable();
    t.index(['library_id', 'state']);
  });
  // The full-text table finds a row quickly only by its rowid, so subjects have a table of their own.
  await db.schema.createTable('search_subject', (t) => {
    t.increments('id');
    t.string('library_id').notNullable().references('library.id');
    t.string('kind').notNullable();
    t.string('subject_id').notNullable();
    t.unique(['subject_id', 'kind']);
  });
  await db.schema.raw(
    `CREATE VIRTUAL TABLE search USING fts5(body, tokenize = "unicode61 remove_diacritics 0")`,
  );
}
