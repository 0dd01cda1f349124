import type { Knex } from 'knex';
import { searchForm } from '../../../core/query';

/** A passage is found by what was said to it, too. */
export async function up(db: Knex): Promise<void> {
  const said = (await db('reply')
    .join('search_subject', (on) =>
      on.on('search_subject.subject_id', 'reply.passage_id').andOnVal('search_subject.kind', 'passage'),
    )
    .whereNull('reply.binned')
    .select('search_subject.id', 'reply.text')) as { id: number; text: string }[];
  for (const { id, text } of said)
    await db('search')
      .where({ rowid: id })
      .update({ body: db.raw(`body || ' ' || ?`, [searchForm(text)]) });
}
