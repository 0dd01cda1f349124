import type { Knex } from 'knex';
import { textOfBlock, type Block } from '../../core/drafting';
import { keyOf } from '../../core/outline';
import { KIND_LABELS, type Locator } from '../../core/passages';
import { excerpt, fold, type Excerpt } from '../../core/text';
import { scoped, type Context } from '../access/context';
import type { Copy } from '../copies/repository';
import { counted } from '../db/counted';
import { parseQuery, printQuery, problemsIn, wordsSought } from '../../core/query';
import { wordsOf } from '../query';
import { kindsWith, nearWords, searchable, withFit, withWords, type SearchKind } from './repository';
import { labelOfRecord, ofSourcesAsked } from '../sources/repository';
import type { FirstOf } from '../lists/first-of';
import { listLeads } from '../leads';
import { listNotes } from '../notes';
import { listPassages } from '../passages';
import { threadsOf } from '../replies';
import type { Look } from '../lists/printing';
import { listSources, type SourceItem } from '../sources';

/** Where words can be found. */
export const FOUND_KINDS = ['sources', 'passages', 'copies', 'texts', 'notes', 'leads'] as const;
export type FoundKind = (typeof FOUND_KINDS)[number];

/** Words found in a passage, a note, a lead, the text of a copy, an outline or a draft. */
export interface Hit {
  id: string;
  excerpt: Excerpt;
  /** What it is, in a word, where that is not said by where it is shown. */
  label?: string;
  sourceId?: string;
  sourceLabel?: string;
  copyId?: string;
  copyKind?: Copy['kind'];
  locator?: Locator | null;
  /** Of what one writes: its project, and where it stands, as an address within it. */
  projectId?: string;
  at?: string;
}

export interface Everything {
  sources: FirstOf<SourceItem>;
  passages: FirstOf<Hit>;
  copies: FirstOf<Hit>;
  /** Sentences and questions of outlines, and drafts. */
  texts: FirstOf<Hit>;
  notes: FirstOf<Hit>;
  leads: FirstOf<Hit>;
  /** What of the query cannot be asked as it is written. */
  problems: string[];
  /** Where nothing was found: the query with words the library knows for those nothing has. */
  near?: string;
}

/** The text a hit is shown from. Words that stand in none of it were found in what goes with it, so its beginning is shown. */
const shownFrom = (text: string, words: string): Excerpt =>
  excerpt(text, words) ?? { parts: [{ text: text.slice(0, 220), hit: false }], exact: '' };

/** Looks for words in everything of a project or the library; of each kind at most `limit` are given, or what `limits` says. */
export async function searchEverything(
  ctx: Context,
  text: string,
  look: Look,
  {
    projectId,
    limit = 20,
    limits = {},
  }: {
    projectId?: string | undefined;
    limit?: number;
    limits?: Partial<Record<FoundKind, number>>;
  },
): Promise<Everything> {
  const nothing = { total: 0, items: [] };
  const problems = problemsIn(parseQuery(text));
  if (!searchable(text) || problems.length)
    return {
      sources: nothing,
      passages: nothing,
      copies: nothing,
      texts: nothing,
      notes: nothing,
      leads: nothing,
      problems,
    };
  const filter = { text, ...(projectId ? { projectId } : {}) };
  const words = wordsSought(parseQuery(text));
  const most = (kind: FoundKind) => limits[kind] ?? limit;
  // The words are looked for once in all that is no source: what has them nowhere is not gone into.
  const found = await kindsWith(ctx, wordsOf(parseQuery(text)));
  const among = <T>(kinds: SearchKind[], look: () => Promise<T>, none: T): Promise<T> | T =>
    !found || kinds.some((kind) => found.has(kind)) ? look() : none;
  const [sources, passages, copies, texts, notes, leads] = await Promise.all([
    listSources(ctx, filter, look, { from: { offset: 0 }, limit: most('sources'), sort: 'fit' }),
    among(['passage'], () => listPassages(ctx, filter, most('passages')), nothing),
    among(['copy'], () => copiesWith(ctx, text, projectId, most('copies')), nothing),
    among(['own', 'part'], () => textsWith(ctx, text, projectId, most('texts')), nothing),
    among(['note'], () => listNotes(ctx, filter), []),
    among(['lead'], () => listLeads(ctx, filter), []),
  ]);
  const threads = await threadsOf(
    ctx,
    passages.items.map(({ id }) => id),
  );
  const saidTo = (id: string) =>
    (threads.get(id)?.replies ?? []).map(({ owner, text: said }) => `${owner}: ${said}`);
  const total = [sources, passages, copies, texts].reduce(
    (n, of) => n + of.total,
    notes.length + leads.length,
  );
  const near = total === 0 ? await nearQuery(ctx, text) : undefined;
  return {
    ...(near ? { near } : {}),
    problems,
    sources,
    passages: {
      total: passages.total,
      items: passages.items.map((p) => ({
        id: p.id,
        excerpt: shownFrom([p.exact, p.gist, p.ownWords, ...saidTo(p.id)].filter(Boolean).join(' · '), words),
        label: KIND_LABELS[p.kind],
        sourceId: p.sourceId,
        sourceLabel: p.sourceLabel,
        ...(p.copyId ? { copyId: p.copyId } : {}),
        locator: p.locator,
      })),
    },
    copies,
    texts,
    notes: {
      total: notes.length,
      items: notes.slice(0, most('notes')).map((n) => ({
        id: n.id,
        excerpt: shownFrom(n.body, words),
        ...(n.sourceId ? { sourceId: n.sourceId } : {}),
        ...(n.sourceLabel ? { sourceLabel: n.sourceLabel } : {}),
        ...(n.projectName ? { label: n.projectName } : {}),
      })),
    },
    leads: {
      total: leads.length,
      items: leads.slice(0, most('leads')).map((l) => ({
        id: l.id,
        excerpt: shownFrom(l.text, words),
        ...(l.ticked ? { label: 'found' } : {}),
        ...(l.metIn ? { sourceId: l.metIn } : {}),
        ...(l.metInLabel ? { sourceLabel: l.metInLabel } : {}),
      })),
    },
  };
}

/** A query with words the library knows for those of it that nothing has; nothing where none is near. */
async function nearQuery(ctx: Context, text: string): Promise<string | undefined> {
  const query = parseQuery(text);
  const near = await nearWords(ctx, wordsSought(query));
  if (near.size === 0) return undefined;
  const mended = (words: string) =>
    words.replace(/[\p{L}\p{N}\p{M}]+/gu, (word) => near.get(fold(word)) ?? word);
  const terms = query.terms.map((term) =>
    term.kind === 'words' && !term.not ? { ...term, words: mended(term.words) } : term,
  );
  return printQuery({ terms });
}

/** Copies whose text has the words; of copies of one address the latest. */
async function copiesWith(
  ctx: Context,
  text: string,
  projectId: string | undefined,
  limit: number,
): Promise<FirstOf<Hit>> {
  const asked = parseQuery(text);
  const query = scoped(ctx, 'copy')
    .join('source', 'source.id', 'copy.source_id')
    .whereNull('source.binned')
    .whereNotExists(
      ctx
        .db('copy as later')
        .whereRaw('later.source_id = copy.source_id AND later.address = copy.address')
        .whereRaw("copy.address <> ''")
        .whereRaw('later.captured > copy.captured'),
    );
  if (projectId)
    void query.whereIn(
      'copy.source_id',
      ctx.db('filing').where({ project_id: projectId }).select('source_id'),
    );
  withWords(ctx, query, 'copy.id', 'copy', wordsOf(asked));
  ofSourcesAsked(ctx, query, 'copy.source_id', asked);
  const total = await counted(query);
  if (withFit(ctx, query, 'copy.id', 'copy', asked)) void query.orderBy('fitting.fit');
  const rows = (await query
    .orderBy('source.sort_key')
    .limit(limit)
    .select('copy.id', 'copy.source_id', 'copy.kind', 'copy.text', 'source.record')) as unknown as {
    id: string;
    source_id: string;
    kind: Copy['kind'];
    text: string;
    record: string;
  }[];
  return {
    total,
    items: rows.map((row) => ({
      id: row.id,
      copyId: row.id,
      excerpt: shownFrom(row.text, wordsSought(asked)),
      copyKind: row.kind,
      sourceId: row.source_id,
      sourceLabel: labelOfRecord(row.record),
    })),
  };
}

/** What is written with the words, in outlines and drafts; nothing where the query asks for what only a source has. */
async function textsWith(
  ctx: Context,
  text: string,
  projectId: string | undefined,
  limit: number,
): Promise<FirstOf<Hit>> {
  const asked = parseQuery(text);
  if (asked.terms.some((term) => term.kind !== 'words')) return { total: 0, items: [] };
  const living = (query: Knex.QueryBuilder, project: string) => {
    void query.join('project', 'project.id', project).whereNull('project.binned');
    return projectId ? query.where('project.id', projectId) : query;
  };
  const own = living(
    scoped(ctx, 'section')
      .join('placement', 'placement.section_id', 'section.id')
      .whereNull('section.binned')
      .whereNotNull('placement.own_id'),
    'section.project_id',
  );
  const parts = living(
    scoped(ctx, 'draft')
      .join('draft_part', 'draft_part.draft_id', 'draft.id')
      .where('draft_part.gone', false),
    'draft.project_id',
  );
  withWords(ctx, own, 'placement.own_id', 'own', asked);
  withWords(ctx, parts, 'draft_part.id', 'part', asked);
  const total = (await counted(own)) + (await counted(parts));
  const words = wordsSought(asked);
  const said = (await own
    .orderBy('project.name')
    .orderBy('section.position')
    .orderBy('placement.position')
    .limit(limit)
    .select(
      'placement.own_id',
      'placement.words',
      'placement.section_id',
      'section.project_id',
      ctx.db.raw('section.name AS section'),
      ctx.db.raw('project.name AS project'),
    )) as { own_id: string; words: string; section_id: string; project_id: string; section: string; project: string }[]; // prettier-ignore
  const written = (await parts
    .orderBy('project.name')
    .orderBy('draft_part.position')
    .limit(limit - said.length)
    .select(
      'draft_part.id',
      'draft_part.content',
      'draft.project_id',
      ctx.db.raw('project.name AS project'),
    )) as { id: string; content: string; project_id: string; project: string }[];
  return {
    total,
    items: [
      ...said.map((row) => ({
        id: row.own_id,
        excerpt: shownFrom(row.words, words),
        label: `${row.project}, ${row.section}`,
        projectId: row.project_id,
        at: `/outline?at=${encodeURIComponent(keyOf({ sectionId: row.section_id, ref: row.own_id }))}`,
      })),
      ...written.map((row) => ({
        id: row.id,
        excerpt: shownFrom(textOfBlock(JSON.parse(row.content) as Block), words),
        label: `${row.project}, draft`,
        projectId: row.project_id,
        at: `/draft?part=${encodeURIComponent(row.id)}`,
      })),
    ],
  };
}
