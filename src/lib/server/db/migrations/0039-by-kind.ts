import type { Knex } from 'knex';

/** Sources are listed by kind, too; and SQLite is told how many of ten thousand are of one. */
export async function up(db: Knex): Promise<void> {
  await db.raw('CREATE INDEX source_by_kind ON source (library_id, binned, merged_into, type, sort_key, id)');
  await db('sqlite_stat1').insert({
    tbl: 'source',
    idx: 'source_by_kind',
    stat: '10000 10000 9000 9000 1000 2 1',
  });
  await db.raw('ANALYZE sqlite_schema');
}
