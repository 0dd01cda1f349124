import type { Knex } from 'knex';

const LIVING = 'source (library_id, binned, merged_into';

/** Years by kind, and kinds by year, are counted from an index alone: the rows of sources are large. */
export async function up(db: Knex): Promise<void> {
  await db.raw('DROP INDEX source_by_kind');
  await db.raw('DROP INDEX source_oldest');
  await db.raw(`CREATE INDEX source_by_kind ON ${LIVING}, type, sort_key, id, year)`);
  await db.raw(`CREATE INDEX source_oldest ON ${LIVING}, year, sort_key, id, type)`);
  await db('sqlite_stat1').whereIn('idx', ['source_by_kind', 'source_oldest']).delete();
  await db('sqlite_stat1').insert([
    { tbl: 'source', idx: 'source_by_kind', stat: '10000 10000 9000 9000 1000 2 1 1' },
    { tbl: 'source', idx: 'source_oldest', stat: '10000 10000 9000 9000 90 2 1 1' },
  ]);
  await db.raw('ANALYZE sqlite_schema');
}
