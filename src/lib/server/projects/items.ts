import {
  changed,
  isOwn,
  keyOf,
  OutlineError,
  type Item,
  type ItemChange,
  type ItemKind,
} from '../../core/outline';
import type { Figure } from '../../core/figures';
import type { Locator, PassageKind, Tint } from '../../core/passages';
import { shortLabel, yearOf, type SourceRecord } from '../../core/source';
import { scoped, visible, type Context } from '../access/context';
import { notHere, Refusal } from '../access/refusal';
import { inParts, newId } from '../db/ids';
import type { PassageRow } from '../passages/repository';
import { index, takeOutOfIndex } from '../search/repository';
import { checkSources } from '../sources/repository';

/** A row of the table of what stands in sections. */
interface Row {
  section_id: string;
  position: number;
  source_id: string | null;
  passage_id: string | null;
  own_id: string | null;
  own_kind: 'sentence' | 'question' | null;
  words: string | null;
}

const COLUMN: Record<ItemKind, 'source_id' | 'passage_id' | 'own_id'> = {
  source: 'source_id',
  passage: 'passage_id',
  sentence: 'own_id',
  question: 'own_id',
};

function opened(row: Row): Item {
  const { section_id: sectionId, source_id, passage_id, own_id } = row;
  if (source_id) return { sectionId, ref: source_id, kind: 'source' };
  if (passage_id) return { sectionId, ref: passage_id, kind: 'passage' };
  return { sectionId, ref: own_id!, kind: row.own_kind ?? 'sentence', words: row.words ?? '' };
}

/** What stands in the living sections of a project, in the order of each. */
async function itemsOf(ctx: Context, projectId: string): Promise<(Item & { position: number })[]> {
  const rows = (await ctx
    .db('placement')
    .join('section', 'section.id', 'placement.section_id')
    .where({ 'section.library_id': ctx.libraryId, 'section.project_id': projectId })
    .whereNull('section.binned')
    .where((q) => void q.whereNotNull('source_id').orWhereNotNull('passage_id').orWhereNotNull('own_id'))
    .orderBy(['placement.section_id', 'placement.position'])
    .select('placement.*')) as Row[];
  return rows.map((row) => ({ ...opened(row), position: row.position }));
}

/** Refuses what would come in and is not there for the person: sources and sections of elsewhere, passages somebody keeps private, own words of others. */
async function checkComing(ctx: Context, projectId: string, changes: readonly ItemChange[]): Promise<void> {
  const coming = changes.flatMap((c): Omit<Item, 'sectionId'>[] =>
    c.act === 'put' ? c.items : c.act === 'restore' ? c.put : [],
  );
  const sections = new Set(
    changes.flatMap((c) =>
      c.act === 'restore' ? c.put.map((i) => i.sectionId) : 'sectionId' in c ? [c.sectionId] : [],
    ),
  );
  const refs = (test: (kind: ItemKind) => boolean) => [
    ...new Set(coming.filter(({ kind }) => test(kind)).map(({ ref }) => ref)),
  ];
  for (const part of inParts([...sections])) {
    const there = (await scoped(ctx, 'section')
      .where({ project_id: projectId })
      .whereNull('binned')
      .whereIn('id', part)
      .select('id')) as unknown[];
    if (there.length !== part.length) throw notHere('section');
  }
  await checkSources(
    ctx,
    refs((kind) => kind === 'source'),
  );
  for (const part of inParts(refs((kind) => kind === 'passage'))) {
    const there = (await visible(ctx, 'passage').whereIn('id', part).select('id')) as unknown[];
    if (there.length !== part.length) throw notHere('passage');
  }
  for (const part of inParts(refs(isOwn))) {
    const taken = (await ctx
      .db('placement')
      .join('section', 'section.id', 'placement.section_id')
      .whereIn('own_id', part)
      .whereNot('section.project_id', projectId)
      .first('own_id')) as unknown;
    if (taken) throw notHere('sentence');
  }
}

/**
 * Makes changes to what stands in the sections of a project, all or none. Gives the change that takes them back, and the ids given to sentences and questions that came in.
 */
export async function changeItems(
  ctx: Context,
  projectId: string,
  said: readonly ItemChange[],
): Promise<{ back: ItemChange; made: string[] }> {
  const made: string[] = [];
  const changes = said.map((change): ItemChange => {
    if (change.act !== 'put') return change;
    const items = change.items.map((item) => {
      if (!isOwn(item.kind)) return item;
      made.push(newId());
      return { ...item, ref: made.at(-1)! };
    });
    return { ...change, items };
  });
  await checkComing(ctx, projectId, changes);
  const before = await itemsOf(ctx, projectId);
  const { items, back } = outcome(before, changes);
  const known = new Map(before.map((item) => [keyOf(item), item]));
  const stays = new Set(items.map(keyOf));
  const where = ({ sectionId, ref, kind }: Item) => ({ section_id: sectionId, [COLUMN[kind]]: ref });
  for (const item of before)
    if (!stays.has(keyOf(item))) await ctx.db('placement').where(where(item)).delete();
  const counted = new Map<string, number>();
  for (const item of items) {
    const position = (counted.get(item.sectionId) ?? 0) + 1;
    counted.set(item.sectionId, position);
    const was = known.get(keyOf(item));
    const own = isOwn(item.kind) ? { own_kind: item.kind, words: item.words ?? '' } : {};
    if (!was) await ctx.db('placement').insert({ ...where(item), position, ...own });
    else if (was.position !== position || was.words !== item.words || was.kind !== item.kind)
      await ctx
        .db('placement')
        .where(where(item))
        .update({ position, ...own });
  }
  await searchedBy(ctx, before, items);
  return { back, made };
}

/** Has sentences and questions found by what they say now. */
async function searchedBy(ctx: Context, before: readonly Item[], items: readonly Item[]): Promise<void> {
  const own = (all: readonly Item[]) =>
    new Map(all.filter(({ kind }) => isOwn(kind)).map(({ ref, words = '' }) => [ref, words]));
  const [were, are] = [own(before), own(items)];
  await takeOutOfIndex(
    ctx,
    'own',
    [...were.keys()].filter((ref) => !are.has(ref)),
  );
  for (const [ref, words] of are) if (were.get(ref) !== words) await index(ctx, 'own', ref, words);
}

function outcome(before: readonly Item[], changes: readonly ItemChange[]): ReturnType<typeof changed> {
  try {
    return changed(before.map(({ sectionId, ref, kind, words }) => ({ sectionId, ref, kind, ...(words === undefined ? {} : { words }) })), changes); // prettier-ignore
  } catch (error) {
    if (error instanceof OutlineError)
      throw new Refusal(
        error.code === 'not-own' ? 422 : 409,
        `${error.message} Nothing was changed; look at the outline as it is now.`,
      );
    throw error;
  }
}

/** What stands in the living sections of a project, seen by the person or not, in the order of each. */
export const placedItems = async (ctx: Context, projectId: string): Promise<Item[]> =>
  (await itemsOf(ctx, projectId)).map(({ position: _position, ...item }) => item);

/** What is shown of something in an outline. */
export type OutlineItem = Item & {
  source?: { id: string; label: string; title: string; type: string; year?: number };
  passage?: {
    kind: PassageKind;
    tint: Tint;
    gist: string;
    /** The first words of what is quoted, and of one’s own. */
    exact: string;
    ownWords: string;
    locator: Locator | null;
    figure: Figure | null;
    copyId: string | null;
    anchor: PassageRow['anchor'];
    private: boolean;
  };
};

/** How much of a passage an outline shows, in characters; the rest is where the passage is. */
const SHOWN = 400;

/** What the person may see of what stands in the sections of a project: living sources, and passages of such. */
export async function outlineItems(ctx: Context, projectId: string): Promise<OutlineItem[]> {
  const items = await itemsOf(ctx, projectId);
  const passages = new Map<string, PassageRow>();
  const ids = (kind: ItemKind) => items.filter((i) => i.kind === kind).map((i) => i.ref);
  for (const part of inParts([...new Set(ids('passage'))]))
    for (const row of (await visible<PassageRow>(ctx, 'passage')
      .whereIn('id', part)
      .whereNull('binned')
      .select(
        'id',
        'source_id',
        'copy_id',
        'kind',
        'tint',
        'gist',
        'locator',
        'figure',
        'anchor',
        'visibility',
        ctx.db.raw('substr(exact, 1, ?) AS exact', [SHOWN]),
        ctx.db.raw('substr(own_words, 1, ?) AS own_words', [SHOWN]),
      )) as unknown as PassageRow[])
      // prettier-ignore
      passages.set(row.id, row);
  const sources = new Map<string, NonNullable<OutlineItem['source']>>();
  const wanted = new Set([...ids('source'), ...[...passages.values()].map((p) => p.source_id)]);
  for (const part of inParts([...wanted]))
    for (const { id, record } of (await scoped(ctx, 'source')
      .whereIn('id', part)
      .whereNull('binned')
      .whereNull('merged_into')
      .select('id', 'record')) as unknown as { id: string; record: string }[])
      sources.set(id, shown(id, JSON.parse(record) as SourceRecord));
  return items.flatMap(({ position: _position, ...item }): OutlineItem[] => {
    if (isOwn(item.kind)) return [item];
    const passage = passages.get(item.ref);
    const source = sources.get(item.kind === 'source' ? item.ref : (passage?.source_id ?? ''));
    if (!source) return [];
    if (item.kind === 'source') return [{ ...item, source }];
    return [{ ...item, source, passage: passageShown(passage!) }];
  });
}

function shown(id: string, record: SourceRecord): NonNullable<OutlineItem['source']> {
  const year = yearOf(record.issued);
  return {
    id,
    label: shortLabel(record),
    title: record.title ?? '',
    type: record.type,
    ...(year === undefined ? {} : { year }),
  };
}

const passageShown = (row: PassageRow): NonNullable<OutlineItem['passage']> => ({
  kind: row.kind,
  tint: row.tint,
  gist: row.gist,
  exact: row.exact,
  ownWords: row.own_words,
  locator: row.locator ? (JSON.parse(row.locator) as Locator) : null,
  figure: row.figure ? (JSON.parse(row.figure) as Figure) : null,
  copyId: row.copy_id,
  anchor: row.anchor,
  private: row.visibility === 'private',
});
