import type { Figure } from '../../core/figures';
import {
  sameWords,
  wordsOf,
  type AnchorState,
  type Locator,
  type PassageKind,
  type Selectors,
  type Tint,
} from '../../core/passages';
import { checkOwn } from '../access/change';
import { checkWhoSees, shownAs, shownOf } from '../access/shown';
import { scoped, visible, type Context } from '../access/context';
import { inParts, newId, now } from '../db/ids';
import { changedMeanwhile, notHere } from '../access/refusal';
import { noteRevision } from '../history/repository';
import { index } from '../search/repository';

/** A located piece of a copy or of a printed work. */
export interface Passage {
  id: string;
  sourceId: string;
  copyId: string | null;
  kind: PassageKind;
  /** Where it stands now, and in which words. */
  selectors: Selectors | null;
  /** Where else its words stand, in the order of the text, where words between them are left out. */
  further: Selectors[];
  /** The part of a picture it is, for one of kind figure; `exact` is its caption then. */
  figure: Figure | null;
  /** The words as they were kept; none for a word on a whole document. */
  exact: string;
  /** How the quotation is worded in print, where that is not `exact`: with omissions and insertions in brackets. */
  wording: string | null;
  locator: Locator | null;
  gist: string;
  ownWords: string;
  tint: Tint;
  tags: string[];
  visibility: 'private' | 'library';
  /** Who sees it beside its owner, where it is private, by id. */
  shownTo: string[];
  anchor: AnchorState;
  revision: number;
  added: string;
  binned: string | null;
  /** Whose it is. */
  ownerId: string;
}

export interface PassageRow {
  id: string;
  owner_id: string;
  source_id: string;
  copy_id: string | null;
  kind: PassageKind;
  selectors: string | null;
  further: string;
  figure: string | null;
  figure_sha256: string | null;
  exact: string;
  wording: string | null;
  locator: string | null;
  gist: string;
  own_words: string;
  tint: Tint;
  tags: string;
  visibility: 'private' | 'library';
  shown_to: string | null;
  anchor: AnchorState;
  revision: number;
  added: string;
  binned: string | null;
}

/** A passage of which other words are kept than those that stand there now has changed: its row says where it went. */
function stateIn(row: PassageRow, now: Selectors | null, further: readonly Selectors[]): AnchorState {
  return row.anchor !== 'lost' && now && !sameWords(wordsOf(now, further), row.exact)
    ? 'changed'
    : row.anchor;
}

export function openPassage(row: PassageRow): Passage {
  const at = row.selectors ? (JSON.parse(row.selectors) as Selectors) : null;
  const further = JSON.parse(row.further) as Selectors[];
  return {
    id: row.id,
    sourceId: row.source_id,
    copyId: row.copy_id,
    kind: row.kind,
    selectors: at,
    further,
    figure: row.figure ? (JSON.parse(row.figure) as Figure) : null,
    exact: row.exact,
    wording: row.wording,
    locator: row.locator ? (JSON.parse(row.locator) as Locator) : null,
    gist: row.gist,
    ownWords: row.own_words,
    tint: row.tint,
    tags: JSON.parse(row.tags) as string[],
    visibility: row.visibility,
    shownTo: shownOf(row.shown_to),
    anchor: stateIn(row, at, further),
    revision: row.revision,
    added: row.added,
    binned: row.binned,
    ownerId: row.owner_id,
  };
}

const rowOf = (p: Passage): PassageRow => ({
  id: p.id,
  owner_id: p.ownerId,
  source_id: p.sourceId,
  copy_id: p.copyId,
  kind: p.kind,
  selectors: p.selectors && JSON.stringify(p.selectors),
  further: JSON.stringify(p.further),
  figure: p.figure && JSON.stringify(p.figure),
  figure_sha256: p.figure?.image.sha256 ?? null,
  exact: p.exact,
  wording: p.wording,
  locator: p.locator && JSON.stringify(p.locator),
  gist: p.gist,
  own_words: p.ownWords,
  tint: p.tint,
  tags: JSON.stringify(p.tags),
  visibility: p.visibility,
  shown_to: shownAs(p),
  anchor: p.anchor === 'changed' ? 'moved' : p.anchor,
  revision: p.revision,
  added: p.added,
  binned: p.binned,
});

/** What a revision of a passage covers. */
const stateOf = ({
  id: _id,
  revision: _revision,
  added: _added,
  sourceId: _source,
  ownerId: _owner,
  ...state
}: Passage) => state;
export type PassageState = ReturnType<typeof stateOf>;

/** Has a passage found by what was said to it, too, since that changed. */
export const foundByReplies = (ctx: Context, passage: Passage): Promise<void> =>
  beside(ctx, passage, passage.tags);

/** What stands beside a passage and is made from it: what it is searched by, and its tags. */
async function beside(ctx: Context, p: Passage, tagsBefore: readonly string[] = []): Promise<void> {
  const { number = '', alt = '' } = p.figure ?? {};
  const replies = p.binned
    ? []
    : ((await scoped(ctx, 'reply')
        .where({ passage_id: p.id })
        .whereNull('binned')
        .pluck('text')) as unknown as string[]);
  const words = [p.gist, number, p.exact, p.wording ?? '', alt, p.ownWords, ...p.tags, ...replies]
    .filter(Boolean)
    .join('\n');
  await index(ctx, 'passage', p.id, p.binned ? '' : words);
  if (JSON.stringify(tagsBefore) === JSON.stringify(p.tags)) return;
  await scoped(ctx, 'passage_tag').where({ passage_id: p.id }).delete();
  for (const tag of p.tags)
    await ctx.db('passage_tag').insert({ library_id: ctx.libraryId, passage_id: p.id, tag });
}

/** Adds a passage. Call in a transaction. */
export async function insertPassage(
  ctx: Context,
  passage: Omit<
    Passage,
    'id' | 'revision' | 'added' | 'binned' | 'ownerId' | 'wording' | 'tags' | 'figure' | 'further' | 'shownTo'
  > &
    Partial<Pick<Passage, 'wording' | 'tags' | 'figure' | 'further' | 'shownTo'>>,
): Promise<Passage> {
  const whole: Passage = {
    wording: null,
    tags: [],
    figure: null,
    further: [],
    shownTo: [],
    ...passage,
    id: newId(),
    revision: 1,
    added: now(),
    binned: null,
    ownerId: ctx.personId,
  };
  if (whole.visibility === 'library') whole.shownTo = [];
  await ctx.db('passage').insert({ ...rowOf(whole), library_id: ctx.libraryId });
  await beside(ctx, whole);
  await noteRevision(ctx, 'passage', whole.id, 1, {}, stateOf(whole), 'kept');
  return whole;
}

/** One passage; refuses when it is not in the library. */
export async function getPassage(ctx: Context, id: string): Promise<Passage> {
  const row = (await visible<PassageRow>(ctx, 'passage').where({ id }).first()) as PassageRow | undefined;
  if (!row) throw notHere('passage');
  return openPassage(row);
}

/** Changes a passage made on revision `base`; another one refuses with 409. */
export async function updatePassage(
  ctx: Context,
  id: string,
  base: number,
  change: Partial<PassageState>,
  why: string,
): Promise<{ passage: Passage; revisionId?: string }> {
  const before = await getPassage(ctx, id);
  checkOwn(ctx, before.ownerId);
  if (before.revision !== base) throw changedMeanwhile('passage');
  const after: Passage = { ...before, ...change };
  if (after.visibility === 'library') after.shownTo = [];
  checkWhoSees(ctx, before.ownerId, before, after);
  if (JSON.stringify(stateOf(before)) === JSON.stringify(stateOf(after))) return { passage: before };
  after.revision = base + 1;
  const changed = await scoped<PassageRow>(ctx, 'passage').where({ id, revision: base }).update(rowOf(after));
  if (changed !== 1) throw changedMeanwhile('passage');
  await beside(ctx, after, before.tags);
  const revisionId = await noteRevision(
    ctx,
    'passage',
    id,
    after.revision,
    stateOf(before),
    stateOf(after),
    why,
  );
  return { passage: after, revisionId };
}

/** Some passages by their ids, those there are and the person may see, in any order. */
export async function getPassages(ctx: Context, ids: readonly string[]): Promise<Passage[]> {
  const found: Passage[] = [];
  for (const part of inParts([...new Set(ids)]))
    found.push(
      ...((await visible<PassageRow>(ctx, 'passage').whereIn('id', part)) as PassageRow[]).map(openPassage),
    );
  return found;
}

/** The living passages of some sources, those of each in the order of its text. */
export async function passagesOfSources(ctx: Context, sourceIds: string[]): Promise<Passage[]> {
  const found: Passage[] = [];
  for (const part of inParts(sourceIds))
    found.push(
      ...(
        (await visible<PassageRow>(ctx, 'passage')
          .whereIn('source_id', part)
          .whereNull('binned')
          .orderBy('added')) as PassageRow[]
      ).map(openPassage),
    );
  return inPlace(found);
}

const inPlace = (passages: Passage[]) =>
  passages.sort((a, b) => (a.selectors?.position.start ?? 0) - (b.selectors?.position.start ?? 0));

/** The living passages of a copy or a source, in the order of the text. */
export async function passagesWhere(
  ctx: Context,
  where: { copy_id: string } | { source_id: string },
): Promise<Passage[]> {
  const rows = (await visible<PassageRow>(ctx, 'passage')
    .where(where)
    .whereNull('binned')
    .orderBy('added')) as PassageRow[];
  return inPlace(rows.map(openPassage));
}

/** Passages of one's own in the library that nobody else sees: what is taken along on leaving. */
export const privatePassages = async (ctx: Context): Promise<string[]> =>
  (await visible<{ id: string }>(ctx, 'passage')
    .where('passage.visibility', 'private')
    .where('passage.owner_id', ctx.personId)
    .whereNull('binned')
    .pluck('id')) as string[];

/** The tags of living passages, and how many have each. */
export const passageTags = async (ctx: Context): Promise<{ value: string; n: number }[]> =>
  (await visible(ctx, 'passage')
    .join('passage_tag', 'passage_tag.passage_id', 'passage.id')
    .whereNull('passage.binned')
    .groupBy('passage_tag.tag')
    .select('passage_tag.tag as value')
    .count({ n: '*' })) as unknown as { value: string; n: number }[];

/** Passages with a tag, those in the bin too. */
export async function passagesTagged(ctx: Context, tag: string): Promise<string[]> {
  const rows = (await visible(ctx, 'passage')
    .join('passage_tag', 'passage_tag.passage_id', 'passage.id')
    .where('passage_tag.tag', tag)
    .select('passage.id as id')) as unknown as { id: string }[];
  return rows.map((row) => row.id);
}
