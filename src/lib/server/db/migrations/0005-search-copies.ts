import type { Knex } from 'knex';
import { fold } from '../../../core/text';

/** The text of copies is found by searching: that of the copies there are goes into the index. */
export async function up(db: Knex): Promise<void> {
  const copies = (await db('copy').select('id')) as { id: string }[];
  for (const { id } of copies) {
    const copy = (await db('copy').where({ id }).first('library_id', 'text')) as {
      library_id: string;
      text: string;
    };
    if (!copy.text) continue;
    const [rowid] = await db('search_subject').insert({
      library_id: copy.library_id,
      kind: 'copy',
      subject_id: id,
    });
    await db('search').insert({ rowid, body: fold(copy.text) });
  }
}
