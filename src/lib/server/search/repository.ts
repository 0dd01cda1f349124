import { fold, foldWords } from '../../core/text';
import type { Context } from '../access/context';
import { inParts } from '../db/ids';

export type SearchKind = 'source' | 'passage' | 'note' | 'lead' | 'task' | 'copy';

/** Puts a subject's text into the search index in place of what was there; empty text takes it out. `fresh` for one that was never in it. */
export async function index(
  ctx: Context,
  kind: SearchKind,
  subjectId: string,
  text: string,
  fresh = false,
): Promise<void> {
  const subject = { library_id: ctx.libraryId, kind, subject_id: subjectId };
  const known = fresh
    ? undefined
    : ((await ctx.db('search_subject').where(subject).first('id')) as { id: number } | undefined);
  if (known) await ctx.db('search').where({ rowid: known.id }).delete();
  if (!text) return;
  const rowid = known?.id ?? (await ctx.db('search_subject').insert(subject))[0];
  await ctx.db('search').insert({ rowid, body: fold(text) });
}

/** Takes subjects out of the index with all that is known of them. */
export async function takeOutOfIndex(ctx: Context, kind: SearchKind, subjectIds: string[]): Promise<void> {
  for (const part of inParts(subjectIds)) {
    const rows = (await ctx
      .db('search_subject')
      .where({ library_id: ctx.libraryId, kind })
      .whereIn('subject_id', part)
      .select('id')) as { id: number }[];
    const rowids = rows.map((r) => r.id);
    await ctx.db('search').whereIn('rowid', rowids).delete();
    await ctx.db('search_subject').whereIn('id', rowids).delete();
  }
}

/** A subquery of the ids of what contains the words, and its bindings, for use after `IN`. */
export function matching(ctx: Context, kind: SearchKind, text: string): [string, string[]] {
  return [
    '(SELECT s.subject_id FROM search JOIN search_subject s ON s.id = search.rowid WHERE search MATCH ? AND s.library_id = ? AND s.kind = ?)',
    [matchQuery(text), ctx.libraryId, kind],
  ];
}

/** A person's words as an FTS5 query: every word must be there, the last may be the beginning of one. */
function matchQuery(text: string): string {
  return foldWords(text)
    .map((word) => `"${word}"*`)
    .join(' ');
}

/** Whether there is anything to look for in a person's words. */
export const searchable = (text: string): boolean => fold(text) !== '';
