import type { Knex } from 'knex';
import {
  asksAnything,
  nearestWord,
  parseQuery,
  partsSought,
  searchForm,
  type Query,
  type QueryField,
  type Term,
} from '../../core/query';
import type { Context } from '../access/context';
import { inParts } from '../db/ids';

/** What is searched; `own` is a sentence or a question of an outline, `part` one of a draft. */
export type SearchKind = 'source' | 'passage' | 'note' | 'lead' | 'task' | 'copy' | 'own' | 'part';

/** A text by where its words stand. */
export interface SearchText {
  title?: string;
  people?: string;
  /** What it appeared in, and who published it. */
  appeared?: string;
  body?: string;
}

/** Puts a subject's text into the search index in place of what was there; empty text takes it out. `fresh` for one that was never in it. */
export async function index(
  ctx: Context,
  kind: SearchKind,
  subjectId: string,
  text: string | SearchText,
  fresh = false,
): Promise<void> {
  const subject = { library_id: ctx.libraryId, kind, subject_id: subjectId };
  const known = fresh
    ? undefined
    : ((await ctx.db('search_subject').where(subject).first('id')) as { id: number } | undefined);
  if (known) await ctx.db('search').where({ rowid: known.id }).delete();
  const {
    title = '',
    people = '',
    appeared = '',
    body = '',
  } = typeof text === 'string' ? { body: text } : text;
  if (!title && !people && !appeared && !body) return;
  const rowid = known?.id ?? (await ctx.db('search_subject').insert(subject))[0];
  const formed = { title: searchForm(title), people: searchForm(people), appeared: searchForm(appeared) };
  await ctx.db('search').insert({ rowid, ...formed, body: searchForm(body) });
}

/** Has subjects that are in the index found by a text more, which is given as it is looked through. */
export async function alsoFoundBy(
  ctx: Context,
  kind: SearchKind,
  subjectIds: string[],
  text: string,
): Promise<void> {
  for (const part of inParts(subjectIds))
    await ctx
      .db('search')
      .whereIn(
        'rowid',
        ctx
          .db('search_subject')
          .where({ library_id: ctx.libraryId, kind })
          .whereIn('subject_id', part)
          .select('id'),
      )
      .update({ body: ctx.db.raw(`trim(body || ' ' || ?)`, [text]) });
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

/** How much more words weigh where they stand: in a title, in names, in what it appeared in, anywhere else. */
const WEIGHTS = '8.0, 5.0, 3.0, 1.0';

/** A word as it is looked for: letters of scripts without blanks in a row, else a word or the beginning of one. */
function soughtWords(words: string): string[] {
  return partsSought(words).map(({ inRow, begins }) => `"${inRow.join(' ')}"${begins ? '*' : ''}`);
}

/** One term as an FTS5 query; nothing for what is not words. */
function soughtTerm(term: Term): string | undefined {
  if (term.kind === 'words') {
    const parts = term.phrase ? [`"${searchForm(term.words)}"`] : soughtWords(term.words);
    return parts.filter((part) => part !== '""').join(' AND ') || undefined;
  }
  const column = WHERE_WORDS[term.field];
  if (!column) return undefined;
  const values = term.values.map((value) => soughtWords(value).join(' AND ')).filter(Boolean);
  return values.length ? `{${column}} : (${values.map((value) => `(${value})`).join(' OR ')})` : undefined;
}

/** Fields of a query that are words in a part of what is looked through. */
const WHERE_WORDS: Partial<Record<QueryField, string>> = {
  author: 'people',
  title: 'title',
  from: 'appeared',
};

/** A query of words as FTS5 has it: all that must be there, and each that must not. */
export function soughtBy({ terms }: Query): { all: string | undefined; none: string[] } {
  const words = terms.flatMap((term) => {
    const query = soughtTerm(term);
    return query === undefined ? [] : [{ query, not: term.not }];
  });
  return {
    all:
      words
        .filter(({ not }) => !not)
        .map(({ query }) => `(${query})`)
        .join(' AND ') || undefined,
    none: words.filter(({ not }) => not).map(({ query }) => query),
  };
}

/** What a subject is known by: a source by its number, all else by its id. */
const known = (kind: SearchKind) => (kind === 'source' ? 's.no' : 's.subject_id');
const found = (select: string) =>
  `SELECT ${select} FROM search JOIN search_subject s ON s.id = search.rowid WHERE search MATCH ? AND s.library_id = ? AND s.kind = ?`;

/**
 * Narrows a query of rows to those whose text has the words; `column` is their id, of sources their number. `fitted`: `withFit` does,
 * but for what must not be there.
 */
export function withWords(
  ctx: Context,
  rows: Knex.QueryBuilder,
  column: string,
  kind: SearchKind,
  query: Query,
  fitted = false,
): void {
  const { all, none } = soughtBy(query);
  const those = found(known(kind));
  if (all && !fitted) void rows.whereRaw(`${column} IN (${those})`, [all, ctx.libraryId, kind]);
  for (const words of none) {
    // One that is not known would leave nothing out, and nothing in.
    const sure = `${those} AND ${known(kind)} IS NOT NULL`;
    void rows.whereRaw(`${column} NOT IN (${sure})`, [words, ctx.libraryId, kind]);
  }
}

/** The numbers of the living sources of a query that is nothing but words: what is in the bin has none. */
export function sourcesWithWords(ctx: Context, query: Query): Knex.QueryBuilder | undefined {
  const { all, none } = soughtBy(query);
  if (!all || none.length || query.terms.some(({ kind }) => kind !== 'words')) return undefined;
  return ctx.db
    .from('search')
    .join('search_subject as s', 's.id', 'search.rowid')
    .whereRaw('search MATCH ?', [all])
    .where({ 's.library_id': ctx.libraryId, 's.kind': 'source' })
    .select('s.no');
}

/** Whether the words of a query stand in so many texts that going through all sources is less work than looking each up. */
export async function isCommon(ctx: Context, query: Query, sources: number): Promise<boolean> {
  const { all } = soughtBy(query);
  if (!all) return false;
  // Looking a source up takes about as long as going by a dozen (measured).
  const many = Math.ceil(sources / 12);
  const [{ n }] = (await ctx.db.raw(
    'SELECT count(*) AS n FROM (SELECT 1 FROM search WHERE search MATCH ? LIMIT ?)',
    [all, many],
  )) as [{ n: number }];
  return n === many;
}

/**
 * The kinds of what is not a source that have something with the words of a query in it; nothing where it looks for no words, so
 * that any may fit. Whether one may see it is asked where it is looked for.
 */
export async function kindsWith(ctx: Context, query: Query): Promise<Set<SearchKind> | undefined> {
  const { all } = soughtBy(query);
  if (!all) return undefined;
  const rows = (await ctx.db.raw(
    `SELECT DISTINCT s.kind FROM search JOIN search_subject s ON s.id = search.rowid WHERE search MATCH ? AND s.library_id = ? AND s.kind <> 'source'`,
    [all, ctx.libraryId],
  )) as { kind: SearchKind }[];
  return new Set(rows.map(({ kind }) => kind));
}

/**
 * Joins how well each row fits the words as `fit`, less the better; gives whether there are words to fit. `column` as above. `first`:
 * of all that have the words, as many as are wanted of those that fit best, and those that fit as well as the last of them; only
 * where nothing else narrows the rows.
 */
export function withFit(
  ctx: Context,
  rows: Knex.QueryBuilder,
  column: string,
  kind: SearchKind,
  query: Query,
  first?: number,
): boolean {
  const { all } = soughtBy(query);
  if (!all) return false;
  const hits = found(`${known(kind)} AS id, bm25(search, ${WEIGHTS}) AS fit`);
  const best = `WITH hits AS MATERIALIZED (${hits}) SELECT id, fit FROM hits WHERE fit <= coalesce((SELECT fit FROM hits ORDER BY fit LIMIT 1 OFFSET ?), fit)`;
  void rows.joinRaw(`JOIN (${first === undefined ? hits : best}) AS fitting ON fitting.id = ${column}`, [
    all,
    ctx.libraryId,
    kind,
    ...(first === undefined ? [] : [first - 1]),
  ]);
  return true;
}

/** How many words of one beginning are compared with a word that was not found. */
const MOST_NEAR = 4_000;

/** Whether a word stands in what everybody in the library may see: the words there are do not say whose they are. */
const isSeen = async (ctx: Context, word: string): Promise<boolean> =>
  Boolean(
    await ctx
      .db('search')
      .join('search_subject as s', 's.id', 'search.rowid')
      .whereRaw('search MATCH ?', [`"${word}"`])
      .where('s.library_id', ctx.libraryId)
      .whereIn('s.kind', ['source', 'copy'])
      .first('s.id'),
  );

/** For each of some words that nothing has: the nearest that a source or the text of a copy has. */
export async function nearWords(ctx: Context, words: string): Promise<Map<string, string>> {
  const near = new Map<string, string>();
  for (const { inRow, begins } of partsSought(words)) {
    const [word = ''] = inRow;
    if (!begins || word.length < 4) continue;
    const from = (beginning: string) =>
      ctx
        .db('search_word')
        .where('term', '>=', beginning)
        .where('term', '<', `${beginning}\uffff`)
        .limit(MOST_NEAR)
        .select('term') as unknown as Promise<{ term: string }[]>;
    if ((await from(word)).length) continue;
    // The first letter is seldom mistyped; where nothing is near with it, the second is taken for swapped.
    for (const beginning of [word[0]!, word[1]!]) {
      const found = nearestWord(
        word,
        (await from(beginning)).map(({ term }) => term),
      );
      if (!found || !(await isSeen(ctx, found))) continue;
      near.set(word, found);
      break;
    }
  }
  return near;
}

/** Whether there is anything to look for in a person's words. */
export const searchable = (text: string): boolean => asksAnything(parseQuery(text));
