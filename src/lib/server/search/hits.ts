import type { Knex } from 'knex';
import { textOfBlock, type Block } from '../../core/drafting';
import { keyOf } from '../../core/outline';
import type { Locator } from '../../core/passages';
import { parseQuery, wordsSought } from '../../core/query';
import { excerpt, type Excerpt } from '../../core/text';
import { scoped, type Context } from '../access/context';
import type { Copy } from '../copies/repository';
import { counted } from '../db/counted';
import type { FirstOf } from '../lists/first-of';
import { wordsOf } from '../query';
import { labelOfRecord, ofSourcesAsked } from '../sources/repository';
import { withFit, withWords } from './repository';

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

/** The text a hit is shown from. Words that stand in none of it were found in what goes with it, so its beginning is shown. */
export const shownFrom = (text: string, words: string): Excerpt =>
  excerpt(text, words) ?? { parts: [{ text: text.slice(0, 220), hit: false }], exact: '' };

/** Copies whose text has the words; of copies of one address the latest. */
export async function copiesWith(
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
export async function textsWith(
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
