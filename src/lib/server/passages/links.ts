import type { LinkKind } from '../../core/passages';
import { change } from '../access/change';
import { scoped, visible, type Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { inParts, now } from '../db/ids';
import { itemsOf, type PassageItem } from './listing';
import { getPassage, openPassage, type PassageRow } from './repository';

/** What is changed here. */
const CHANGE = { right: 'annotate', of: ['passages'] } as const;

interface Row {
  from_id: string;
  to_id: string;
  kind: LinkKind;
}

/** A link of a passage, seen from it: which way it goes, and the passage at its other end. */
export interface PassageLink {
  kind: LinkKind;
  /** Whether it says something of the other one, or the other one of it. */
  way: 'to' | 'from';
  other: PassageItem;
}

/** Links two passages, or says otherwise how they are linked. Gives how they were linked before, if they were. */
export async function linkPassages(
  ctx: Context,
  from: string,
  to: string,
  kind: LinkKind,
): Promise<{ before: LinkKind | null }> {
  if (from === to) throw new Refusal(422, 'A passage is linked with another one, not with itself.');
  return change(ctx, CHANGE, async (inner) => {
    await Promise.all([getPassage(inner, from), getPassage(inner, to)]);
    const before = (await scoped<Row>(inner, 'passage_link').where({ from_id: from, to_id: to }).first()) as
      Row | undefined;
    await inner
      .db('passage_link')
      .insert({
        library_id: inner.libraryId,
        from_id: from,
        to_id: to,
        kind,
        person_id: inner.personId,
        at: now(),
      })
      .onConflict(['from_id', 'to_id'])
      .merge(['kind']);
    return { before: before?.kind ?? null };
  });
}

/** Takes the link from one passage to another away; gives which kind it was of. */
export async function unlinkPassages(
  ctx: Context,
  from: string,
  to: string,
): Promise<{ before: LinkKind | null }> {
  return change(ctx, CHANGE, async (inner) => {
    await Promise.all([getPassage(inner, from), getPassage(inner, to)]);
    const where = { from_id: from, to_id: to };
    const before = (await scoped<Row>(inner, 'passage_link').where(where).first()) as Row | undefined;
    await scoped(inner, 'passage_link').where(where).delete();
    return { before: before?.kind ?? null };
  });
}

/** The links of some passages, both ways, by passage; of passages in the bin, or that somebody else keeps private, none. */
export async function linksOf(ctx: Context, ids: readonly string[]): Promise<Map<string, PassageLink[]>> {
  const rows: Row[] = [];
  for (const column of ['from_id', 'to_id'])
    for (const part of inParts([...ids]))
      rows.push(...((await scoped<Row>(ctx, 'passage_link').whereIn(column, part)) as Row[]));
  const ends: PassageRow[] = [];
  for (const part of inParts([...new Set(rows.flatMap((row) => [row.from_id, row.to_id]))]))
    ends.push(
      ...((await visible<PassageRow>(ctx, 'passage')
        .whereIn('id', part)
        .whereNull('binned')) as PassageRow[]),
    );
  const items = new Map((await itemsOf(ctx, ends.map(openPassage))).map((item) => [item.id, item]));
  const of = new Map<string, PassageLink[]>();
  const wanted = new Set(ids);
  const seen = new Set<string>();
  for (const { from_id, to_id, kind } of rows) {
    if (seen.has(`${from_id} ${to_id}`)) continue;
    seen.add(`${from_id} ${to_id}`);
    const [from, to] = [items.get(from_id), items.get(to_id)];
    if (!from || !to) continue;
    const add = (id: string, link: PassageLink) => of.set(id, [...(of.get(id) ?? []), link]);
    if (wanted.has(from_id)) add(from_id, { kind, way: 'to', other: to });
    if (wanted.has(to_id)) add(to_id, { kind, way: 'from', other: from });
  }
  return of;
}
