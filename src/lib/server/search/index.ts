import { KIND_LABELS } from '../../core/passages';
import { fold } from '../../core/text';
import type { Context } from '../access/context';
import { parseQuery, printQuery, problemsIn, wordsSought } from '../../core/query';
import { wordsOf } from '../query';
import { copiesWith, shownFrom, textsWith, type Hit } from './hits';
import { kindsWith, nearWords, searchable, type SearchKind } from './repository';
import type { FirstOf } from '../lists/first-of';
import { listLeads } from '../leads';
import { listNotes } from '../notes';
import { listPassages } from '../passages';
import { threadsOf } from '../replies';
import type { Look } from '../lists/printing';
import { listSources, type SourceItem } from '../sources';

export type { Hit } from './hits';

/** Where words can be found. */
export const FOUND_KINDS = ['sources', 'passages', 'copies', 'texts', 'notes', 'leads'] as const;
export type FoundKind = (typeof FOUND_KINDS)[number];

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
