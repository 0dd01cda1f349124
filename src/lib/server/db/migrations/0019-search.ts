import type { Knex } from 'knex';
import { searchForm } from '../../../core/query';

/** How many rows are formed anew at once. */
const AT_ONCE = 200;

/**
 * What is looked through has parts, so that words can be asked of a title or of people, and what stands in a title comes first. Scripts without
 * blanks are kept letter by letter. Beginnings of two and three letters have an index of their own.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(
    `CREATE VIRTUAL TABLE sought USING fts5(title, people, appeared, body, tokenize = "unicode61 remove_diacritics 0", prefix = '2 3')`,
  );
  for (let after = 0; ;) {
    const rows = (await db('search')
      .where('rowid', '>', after)
      .orderBy('rowid')
      .limit(AT_ONCE)
      .select('rowid', 'body')) as {
      rowid: number;
      body: string;
    }[];
    for (const { rowid, body } of rows)
      await db('sought').insert({ rowid, title: '', people: '', appeared: '', body: searchForm(body) });
    const last = rows.at(-1);
    if (!last) break;
    after = last.rowid;
  }
  await db.raw('DROP TABLE search');
  await db.raw('ALTER TABLE sought RENAME TO search');
  // The words there are, for one that was mistyped.
  await db.raw('CREATE VIRTUAL TABLE search_word USING fts5vocab(search, row)');
}
