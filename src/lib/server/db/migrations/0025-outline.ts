import type { Knex } from 'knex';

/** What stands in a section beside sources and passages: sentences and questions of one’s own. All of it in one order. */
export async function up(db: Knex): Promise<void> {
  await db.schema.alterTable('placement', (t) => {
    t.string('own_id');
    t.string('own_kind');
    t.text('words');
  });
  await db.raw('CREATE UNIQUE INDEX placement_of_own ON placement (own_id) WHERE own_id IS NOT NULL');
  // Sources and passages were numbered each by themselves: passages come behind the sources they were put behind.
  await db.raw(
    `UPDATE placement SET position = (SELECT n FROM (SELECT rowid AS r, row_number() OVER (PARTITION BY section_id ORDER BY position, passage_id IS NOT NULL, rowid) AS n FROM placement) WHERE r = placement.rowid)`,
  );
}
