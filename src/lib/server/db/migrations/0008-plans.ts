import type { Knex } from 'knex';

/** Rows that share the leading columns of an index of sources, column by column, in a library of ten thousand. */
const SOURCES: Record<string, string> = {
  sqlite_autoindex_source_1: '10000 1',
  source_library_id_citekey_unique: '10000 10000 1',
  source_library_id_title_key_index: '10000 10000 2',
  source_library_id_doi_index: '10000 10000 2',
  source_library_id_isbn_index: '10000 10000 2',
  source_library_id_address_key_index: '10000 10000 2',
  source_library_id_binned_merged_into_sort_key_index: '10000 10000 9000 9000 2',
  source_checked: '10000 10000 9000 9000 100',
  source_findings: '1000 1000 900 900',
};

/**
 * Sources that wait or have findings are counted beside every page, from an index. And SQLite is told what a library
 * looks like (https://sqlite.org/lang_analyze.html): left to guess, it takes a library for ten rows, and goes through
 * all of it for a few sources by their ids.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw('CREATE INDEX source_checked ON source (library_id, binned, merged_into, checked)');
  await db.raw(
    `CREATE INDEX source_findings ON source (library_id, binned, merged_into) WHERE findings <> '[]'`,
  );
  await db.raw('ANALYZE');
  await db('sqlite_stat1').delete();
  await db('sqlite_stat1').insert(
    Object.entries(SOURCES).map(([idx, stat]) => ({ tbl: 'source', idx, stat })),
  );
  // Has this connection look at it again.
  await db.raw('ANALYZE sqlite_schema');
}
