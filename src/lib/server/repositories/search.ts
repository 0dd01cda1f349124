import { fold, foldWords } from '../../core/text';
import type { Context } from '../context';

export type SearchKind = 'source' | 'passage';

/** Puts a subject's text into the search index in place of what was there; empty text takes it out. */
export async function index(ctx: Context, kind: SearchKind, subjectId: string, text: string): Promise<void> {
  await ctx.db('search').where({ subject_id: subjectId, kind }).delete();
  if (text)
    await ctx
      .db('search')
      .insert({ library_id: ctx.libraryId, kind, subject_id: subjectId, body: fold(text) });
}

/** A person's words as an FTS5 query: every word must be there, the last may be the beginning of one. */
export function matchQuery(text: string): string {
  return foldWords(text)
    .map((word) => `"${word}"*`)
    .join(' ');
}

/** Ids of what contains the words, best first. */
export async function find(ctx: Context, kind: SearchKind, text: string, limit = 500): Promise<string[]> {
  if (!fold(text)) return [];
  const rows = (await ctx.db.raw(
    'SELECT subject_id FROM search WHERE search MATCH ? AND library_id = ? AND kind = ? ORDER BY rank LIMIT ?',
    [matchQuery(text), ctx.libraryId, kind, limit],
  )) as { subject_id: string }[];
  return rows.map((r) => r.subject_id);
}
