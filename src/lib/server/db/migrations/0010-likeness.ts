import type { Knex } from 'knex';

/**
 * Pairs of sources that look like one work are judged when a source changes, and kept. Derived columns carry the version
 * of what derived them, so that rows of an earlier one are found and brought up to date. And lists are read from an index
 * in each of their orders.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('likeness', (t) => {
    t.string('library_id').notNullable().references('library.id');
    t.string('a_id').notNullable().references('source.id');
    t.string('b_id').notNullable().references('source.id');
    // 0 the same, 1 likely the same: the order in which they are shown.
    t.integer('rank').notNullable();
    t.text('reasons').notNullable();
    t.text('label').notNullable();
    t.primary(['a_id', 'b_id']);
    t.index(['b_id']);
    t.index(['library_id', 'rank', 'label', 'a_id', 'b_id'], 'likeness_in_order');
  });
  // What an import that is under way has added and changed so far, so that it can be taken back whole.
  await db.schema.createTable('import_step', (t) => {
    t.increments('id');
    t.string('job_id').notNullable().references('job.id').onDelete('CASCADE');
    t.string('source_id').notNullable();
    t.string('revision_id');
    t.string('alias');
    t.index(['job_id']);
  });
  // Printed lists are of a library; those of before are a cache that is made anew.
  await db('printed_list').delete();
  await db.schema.alterTable('printed_list', (t) => void t.string('library_id').notNullable().defaultTo(''));
  await db.schema.alterTable('source', (t) => {
    t.integer('derived').notNullable().defaultTo(0);
    t.index(['derived']);
  });
  const living = 'source (library_id, binned, merged_into';
  await db.raw(`CREATE INDEX source_by_title ON ${living}, title_key, sort_key, id)`);
  await db.raw(`CREATE INDEX source_newest ON ${living}, year DESC, sort_key, id)`);
  await db.raw(`CREATE INDEX source_oldest ON ${living}, year, sort_key, id)`);
  await db.raw(`CREATE INDEX source_added ON ${living}, added DESC, sort_key, id)`);
  await db.raw(`CREATE INDEX source_by_author ON ${living}, sort_key, id)`);
  await db.raw('CREATE INDEX passage_added ON passage (library_id, binned, added DESC)');
  await db.raw('DROP INDEX source_library_id_binned_merged_into_sort_key_index');
  await db('sqlite_stat1').where({ idx: 'source_library_id_binned_merged_into_sort_key_index' }).delete();
  await db('sqlite_stat1').insert(
    [
      ['source', 'source_by_title', '10000 10000 9000 9000 2 1 1'],
      ['source', 'source_newest', '10000 10000 9000 9000 90 2 1'],
      ['source', 'source_oldest', '10000 10000 9000 9000 90 2 1'],
      ['source', 'source_added', '10000 10000 9000 9000 1 1 1'],
      ['source', 'source_by_author', '10000 10000 9000 9000 2 1'],
      ['source', 'source_derived_index', '10000 10000'],
    ].map(([tbl, idx, stat]) => ({ tbl, idx, stat })),
  );
  await db.raw('ANALYZE sqlite_schema');
}
