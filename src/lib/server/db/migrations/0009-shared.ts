import type { Knex } from 'knex';

/**
 * What a phone's share sheet sent waits here until the capture window shows it: it may be too long for an address. And
 * sources of one title are told apart by first creator and year from an index, since hundreds may have that title.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('shared', (t) => {
    t.text('id').primary();
    t.text('library_id').notNullable().references('library.id');
    t.text('person_id').notNullable().references('person.id');
    t.text('content').notNullable();
    t.text('created').notNullable();
    t.index(['created']);
  });
  await db.raw('DROP INDEX source_library_id_title_key_index');
  await db('sqlite_stat1').where({ idx: 'source_library_id_title_key_index' }).delete();
  await db.raw('CREATE INDEX source_title_creator ON source (library_id, title_key, creator_key, year)');
  await db('sqlite_stat1').insert({
    tbl: 'source',
    idx: 'source_title_creator',
    stat: '10000 10000 2 2 2',
  });
  await db.raw('ANALYZE sqlite_schema');
}
