import type { Knex } from 'knex';

/** What sources are narrowed by beside their columns: who made them, what they appeared in, their language. Written with the record. */
export async function up(db: Knex): Promise<void> {
  await db.raw(
    `CREATE TABLE facet (source_id TEXT NOT NULL REFERENCES source(id) ON DELETE CASCADE, kind TEXT NOT NULL, value TEXT NOT NULL, library_id TEXT NOT NULL, PRIMARY KEY (source_id, kind, value)) WITHOUT ROWID`,
  );
  await db.raw('CREATE INDEX facet_of_value ON facet (library_id, kind, value COLLATE NOCASE)');
}
