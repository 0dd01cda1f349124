import type { Knex } from 'knex';
import { textOfBlock, type Block } from '../../../core/drafting';
import { searchForm } from '../../../core/query';

/** Sentences and questions of outlines, and what drafts say, are searched with everything else. */
export async function up(db: Knex): Promise<void> {
  const put = async (library_id: string, kind: string, subject_id: string, text: string) => {
    if (!text.trim()) return;
    const [rowid] = (await db('search_subject').insert({ library_id, kind, subject_id })) as [number];
    await db('search').insert({ rowid, title: '', people: '', appeared: '', body: searchForm(text) });
  };
  const said = (await db('placement')
    .join('section', 'section.id', 'placement.section_id')
    .whereNotNull('placement.own_id')
    .select('section.library_id', 'placement.own_id', 'placement.words')) as {
    library_id: string;
    own_id: string;
    words: string | null;
  }[];
  for (const { library_id, own_id, words } of said) await put(library_id, 'own', own_id, words ?? '');
  const parts = (await db('draft_part')
    .join('draft', 'draft.id', 'draft_part.draft_id')
    .where('draft_part.gone', false)
    .select('draft.library_id', 'draft_part.id', 'draft_part.content')) as {
    library_id: string;
    id: string;
    content: string;
  }[];
  for (const { library_id, id, content } of parts)
    await put(library_id, 'part', id, textOfBlock(JSON.parse(content) as Block));
}
