import type { Knex } from 'knex';
import { shortLabel } from '../../core/source';
import { visible, type Context } from '../access/context';
import { counted } from '../db/counted';
import { inParts } from '../db/ids';
import { parseQuery } from '../../core/query';
import { wordsOf } from '../query';
import { namesOf } from '../history/repository';
import { withWords } from '../search/repository';
import { getSources, ofSourcesAsked, labelOfRecord } from '../sources/repository';
import { talliesOf } from '../sources/tallies';
import { openPassage, type Passage, type PassageRow } from './repository';

/** A passage with the source it is of and the sections it stands under. */
export interface PassageItem extends Passage {
  sourceLabel: string;
  sections: { id: string; name: string }[];
  /** Whose it is, by name. */
  owner: string;
}

export interface PassageFilter {
  projectId?: string;
  text?: string;
  kind?: string;
  tint?: string;
  tag?: string;
  sourceId?: string;
  sectionId?: string;
  /** It stands in no section of this project. */
  unplacedIn?: string;
  /** Who kept it. */
  personId?: string;
  /** What is wanting or the matter: its words are no longer in the document, no place is said, nothing of one's own is. */
  state?: PassageState;
}

/** What a passage can be narrowed to by what is the matter with it. */
export const PASSAGE_STATES = [
  'lost',
  'changed',
  'no place',
  'no own words',
  'open task',
  'only for me',
] as const;
export type PassageState = (typeof PASSAGE_STATES)[number];

export const PASSAGE_SORTS = ['newest', 'source'] as const;
export type PassageSort = (typeof PASSAGE_SORTS)[number];

/** A place is asked of what is quoted or taken from the work, and of nothing that is on the whole of it. */
const WITHOUT_PLACE =
  "passage.locator IS NULL AND (passage.exact <> '' OR passage.selectors IS NOT NULL OR passage.figure IS NOT NULL)";

/** A quotation has one's own words beside it, or a point; what is a mark or a figure only needs none. */
const WITHOUT_WORDS =
  "passage.own_words = '' AND passage.gist = '' AND passage.kind NOT IN ('mark', 'figure')";

const NARROWING: Record<PassageState, (query: Knex.QueryBuilder, ctx: Context) => unknown> = {
  lost: (query) => query.where('passage.anchor', 'lost'),
  changed: (query) =>
    query
      .where('passage.anchor', 'moved')
      .whereRaw(
        "json_extract(passage.selectors, '$.quote.exact') || coalesce((SELECT group_concat(' […] ' || json_extract(value, '$.quote.exact'), '') FROM json_each(passage.further)), '') <> passage.exact",
      ),
  'no place': (query) => query.whereRaw(`(${WITHOUT_PLACE})`),
  'no own words': (query) => query.whereRaw(`(${WITHOUT_WORDS})`),
  'open task': (query, ctx) =>
    query.whereExists(
      visible(ctx, 'task')
        .whereRaw('task.passage_id = passage.id')
        .whereNull('task.done')
        .whereNull('task.binned')
        .select('task.id'),
    ),
  'only for me': (query) => query.where('passage.visibility', 'private').whereNull('passage.shown_to'),
};

/** The living passages a filter leaves, of living sources. */
function filtered(ctx: Context, filter: PassageFilter): Knex.QueryBuilder {
  const query = visible<PassageRow>(ctx, 'passage')
    .join('source', 'source.id', 'passage.source_id')
    .whereNull('passage.binned')
    .whereNull('source.binned') as unknown as Knex.QueryBuilder;
  if (filter.projectId)
    void query.whereIn(
      'passage.source_id',
      ctx.db('filing').where({ project_id: filter.projectId }).select('source_id'),
    );
  if (filter.kind) void query.where('passage.kind', filter.kind);
  if (filter.tint) void query.where('passage.tint', filter.tint);
  if (filter.personId) void query.where('passage.owner_id', filter.personId);
  if (filter.sourceId) void query.where('passage.source_id', filter.sourceId);
  if (filter.tag)
    void query.whereIn(
      'passage.id',
      ctx.db('passage_tag').where({ library_id: ctx.libraryId, tag: filter.tag }).select('passage_id'),
    );
  if (filter.sectionId)
    void query.whereIn(
      'passage.id',
      ctx
        .db('placement')
        .where({ section_id: filter.sectionId })
        .whereNotNull('passage_id')
        .select('passage_id'),
    );
  if (filter.unplacedIn)
    void query.whereNotExists(
      ctx
        .db('placement')
        .join('section', 'section.id', 'placement.section_id')
        .whereRaw('placement.passage_id = passage.id')
        .where('section.project_id', filter.unplacedIn)
        .whereNull('section.binned')
        .select('placement.passage_id'),
    );
  if (filter.state) NARROWING[filter.state](query, ctx);
  if (filter.text) {
    const asked = parseQuery(filter.text);
    withWords(ctx, query, 'passage.id', 'passage', wordsOf(asked));
    ofSourcesAsked(ctx, query, 'passage.source_id', asked);
  }
  return query;
}

/** Orders by source as a reference list does, and within it by where the words stand. */
const inOrder = (query: Knex.QueryBuilder, sort: PassageSort): Knex.QueryBuilder =>
  sort === 'newest'
    ? query.orderBy('passage.added', 'desc').orderBy('passage.id')
    : query
        .orderBy('source.sort_key')
        .orderBy('source.id')
        .orderByRaw(
          "passage.copy_id, json_extract(passage.selectors, '$.position.start'), passage.added, passage.id",
        );

/** The sections each of some passages stands under, in the order of their outlines. */
async function sectionsOfPassages(
  ctx: Context,
  ids: string[],
): Promise<Map<string, PassageItem['sections']>> {
  const of = new Map<string, PassageItem['sections']>();
  for (const part of inParts(ids)) {
    const rows = (await ctx
      .db('placement')
      .join('section', 'section.id', 'placement.section_id')
      .where('section.library_id', ctx.libraryId)
      .whereNull('section.binned')
      .whereIn('placement.passage_id', part)
      .orderBy('section.position')
      .select('placement.passage_id', 'section.id', 'section.name')) as {
      passage_id: string;
      id: string;
      name: string;
    }[];
    for (const { passage_id, id, name } of rows)
      of.set(passage_id, [...(of.get(passage_id) ?? []), { id, name }]);
  }
  return of;
}

const named = async (
  ctx: Context,
  passages: (Passage & { sourceLabel: string })[],
): Promise<PassageItem[]> => {
  const sections = await sectionsOfPassages(
    ctx,
    passages.map((p) => p.id),
  );
  const owners = await namesOf(ctx, [...new Set(passages.map((p) => p.ownerId))]);
  return passages.map((p) => ({
    ...p,
    sections: sections.get(p.id) ?? [],
    owner: owners.get(p.ownerId) ?? '',
  }));
};

/** The living passages that fit a filter, newest first or by source and place, at most `limit`, and how many there are. */
export async function listPassages(
  ctx: Context,
  filter: PassageFilter,
  limit = 500,
  sort: PassageSort = 'newest',
): Promise<{ total: number; items: PassageItem[] }> {
  const query = filtered(ctx, filter);
  const { projectId, ...more } = filter;
  const total =
    Object.keys(more).length === 0 ? (await talliesOf(ctx, projectId)).passages : await counted(query);
  const rows = (await inOrder(query, sort)
    .limit(limit)
    .select('passage.*', 'source.record as source_record')) as (PassageRow & { source_record: string })[];
  const passages = rows.map((row) => ({
    ...openPassage(row),
    sourceLabel: labelOfRecord(row.source_record),
  }));
  return { total, items: await named(ctx, passages) };
}

/** The ids of all passages a filter leaves, in order, at most `limit`. */
export async function passageIdsOf(
  ctx: Context,
  filter: PassageFilter,
  limit: number,
  sort: PassageSort = 'newest',
): Promise<string[]> {
  const rows = (await inOrder(filtered(ctx, filter), sort).limit(limit).select('passage.id')) as {
    id: string;
  }[];
  return rows.map((row) => row.id);
}

/** Tags of passages the person may see, each with how many living ones have it. */
export async function tagsOfPassages(ctx: Context): Promise<{ tag: string; n: number }[]> {
  return (await visible(ctx, 'passage')
    .join('passage_tag', 'passage_tag.passage_id', 'passage.id')
    .whereNull('passage.binned')
    .groupBy('passage_tag.tag')
    .orderBy('passage_tag.tag')
    .select('passage_tag.tag')
    .count({ n: '*' })) as unknown as { tag: string; n: number }[];
}

/** Who has kept passages one may see, by name; the living ones. */
export async function peopleOfPassages(ctx: Context): Promise<{ id: string; name: string; n: number }[]> {
  return (await visible(ctx, 'passage')
    .join('person', 'person.id', 'passage.owner_id')
    .whereNull('passage.binned')
    .groupBy('person.id')
    .orderBy('person.name')
    .select('person.id', 'person.name')
    .count({ n: '*' })) as unknown as { id: string; name: string; n: number }[];
}

/** Passages with the names of their sources and sections, in the order they are given. */
export async function itemsOf(ctx: Context, passages: Passage[]): Promise<PassageItem[]> {
  const sources = new Map(
    (await getSources(ctx, [...new Set(passages.map((p) => p.sourceId))])).map((s) => [
      s.id,
      shortLabel(s.record),
    ]),
  );
  return named(
    ctx,
    passages.map((p) => ({ ...p, sourceLabel: sources.get(p.sourceId) ?? '' })),
  );
}
