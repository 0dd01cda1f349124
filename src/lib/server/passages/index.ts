import { change } from '../access/change';
import { z } from 'zod';
import {
  anchor,
  anchorAll,
  describe,
  locator,
  passageKind,
  sameWords,
  selectors,
  tint,
  type AnchorState,
} from '../../core/passages';
import { codePointLength, nfc, sliceCodePoints } from '../../core/text';
import { visible, type Context } from '../access/context';
import { now } from '../db/ids';
import { Refusal } from '../access/refusal';
import { getCopy, insertCopy } from '../copies/repository';
import {
  getPassage,
  insertPassage,
  openPassage,
  passagesWhere,
  updatePassage,
  type Passage,
  type PassageRow,
} from './repository';
import { matching, searchable } from '../search/repository';
import { labelOfRecord } from '../sources/repository';
import { fetchCopy } from '../capture';
import { inTurn } from '../turns';

import type { Knex } from 'knex';
import { talliesOf } from '../sources/tallies';

export { passagesWhere, type Passage } from './repository';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['passages'] } as const;

const words = z.string().max(50_000).transform(nfc);

/** What a person says of a passage. */
export const passageWords = z.strictObject({
  kind: passageKind,
  tint,
  gist: z.string().max(1_000).transform(nfc),
  ownWords: words,
  locator: locator.nullable(),
  visibility: z.enum(['private', 'library']),
});
export type PassageWords = z.infer<typeof passageWords>;

/** A new passage: located in a copy by selectors, or quoted by hand from a printed work. */
export const newPassage = passageWords.extend({
  copyId: z.string(),
  selectors,
});

/**
 * Keeps a passage of a copy. The selectors must name a stretch that is in the copy's text; where the position does
 * not fit, the quote decides.
 */
export async function keepPassage(ctx: Context, given: z.infer<typeof newPassage>): Promise<Passage> {
  return change(ctx, CHANGE, async (inner) => {
    const copy = await getCopy(inner, given.copyId);
    const { start, end } = given.selectors.position;
    let { selectors: where } = given;
    if (end > codePointLength(copy.text) || sliceCodePoints(copy.text, start, end) !== where.quote.exact) {
      const found = anchor(copy.text, where);
      if (found.state === 'lost')
        throw new Refusal(422, 'These words are not in the copy. Select them again.');
      // What is kept is what the copy says.
      where = describe(copy.text, found.start, found.end);
    }
    const { copyId, selectors: _given, ...said } = given;
    return insertPassage(inner, {
      ...said,
      sourceId: copy.source_id,
      copyId,
      selectors: where,
      exact: where.quote.exact,
      anchor: 'found',
    });
  });
}

/** Changes what was said of a passage, on revision `base`. */
export async function editPassage(ctx: Context, id: string, base: number, said: PassageWords) {
  return change(ctx, CHANGE, (inner) => updatePassage(inner, id, base, said, 'edited'));
}

/** Puts a passage in the bin or takes it out. */
export async function binPassage(ctx: Context, id: string, binned: boolean) {
  return change(ctx, CHANGE, async (inner) => {
    const { revision } = await getPassage(inner, id);
    return updatePassage(
      inner,
      id,
      revision,
      { binned: binned ? now() : null },
      binned ? 'put in the bin' : 'taken out of the bin',
    );
  });
}

/** A passage with the source it is of. */
export interface PassageItem extends Passage {
  sourceLabel: string;
}

export interface PassageFilter {
  projectId?: string;
  text?: string;
  kind?: string;
  tint?: string;
  lost?: boolean;
}

const counted = async (query: Knex.QueryBuilder): Promise<number> =>
  ((await query.clone().count({ n: '*' })) as unknown as [{ n: number }])[0].n;

/** The living passages that fit a filter, newest first, at most `limit`. */
export async function listPassages(
  ctx: Context,
  filter: PassageFilter,
  limit = 500,
): Promise<{ total: number; items: PassageItem[] }> {
  const query = visible<PassageRow>(ctx, 'passage')
    .join('source', 'source.id', 'passage.source_id')
    .whereNull('passage.binned')
    .whereNull('source.binned');
  if (filter.projectId)
    void query.whereIn(
      'passage.source_id',
      ctx.db('filing').where({ project_id: filter.projectId }).select('source_id'),
    );
  if (filter.kind) void query.where('passage.kind', filter.kind);
  if (filter.tint) void query.where('passage.tint', filter.tint);
  if (filter.lost) void query.where('passage.anchor', 'lost');
  if (filter.text && searchable(filter.text)) {
    const [ids, bindings] = matching(ctx, 'passage', filter.text);
    void query.whereRaw(`passage.id IN ${ids}`, bindings);
  }
  const { projectId, ...more } = filter;
  const n =
    Object.keys(more).length === 0 ? (await talliesOf(ctx, projectId)).passages : await counted(query);
  const rows = (await query
    .orderBy('passage.added', 'desc')
    .limit(limit)
    .select('passage.*', 'source.record as source_record')) as unknown as (PassageRow & {
    source_record: string;
  })[];
  return {
    total: n,
    items: rows.map((row) => ({
      ...openPassage(row),
      sourceLabel: labelOfRecord(row.source_record),
    })),
  };
}

/** What came of looking at a page again: whether it has changed, and how many of its passages stand how. */
export interface Renewal {
  copyId: string;
  changed: boolean;
  passages: Record<AnchorState, number>;
}

/**
 * Captures a copy's page again. When its text is the same, nothing new is kept. When it changed, a new copy is kept
 * and every passage is looked for in it: those found again go over to it (as found, moved or with changed words, beside
 * the words as they were kept), the others stay on the old copy, marked as lost from the page.
 */
export async function renewCopy(ctx: Context, id: string): Promise<Renewal> {
  const old = await getCopy(ctx, id);
  const fresh = await fetchCopy(old.address);
  const count: Record<AnchorState, number> = { found: 0, moved: 0, changed: 0, lost: 0 };
  if (fresh.text === old.text) return { copyId: id, changed: false, passages: count };
  return change(ctx, CHANGE, async (inner) => {
    const copy = await insertCopy(inner, { ...fresh, source_id: old.source_id });
    const located = (await passagesWhere(inner, { copy_id: id })).flatMap(({ selectors: at, ...passage }) =>
      at ? [{ ...passage, selectors: at }] : [],
    );
    const found = anchorAll(
      fresh.text,
      located.map((passage) => passage.selectors),
    );
    for await (const [i, passage] of inTurn(located.entries())) {
      const { state, start, end } = found[i]!;
      const now = state === 'lost' ? undefined : describe(fresh.text, start, end);
      // What counts is the words as they were kept: those that changed before may have changed back.
      const anchored: AnchorState = !now
        ? 'lost'
        : !sameWords(now.quote.exact, passage.exact)
          ? 'changed'
          : state === 'changed'
            ? 'moved'
            : state;
      count[anchored]++;
      await updatePassage(
        inner,
        passage.id,
        passage.revision,
        { anchor: anchored, ...(now ? { copyId: copy.id, selectors: now } : {}) },
        'page captured again',
      );
    }
    return { copyId: copy.id, changed: true, passages: count };
  });
}
