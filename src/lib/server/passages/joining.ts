import { fold } from '../../core/text';
import { visible, type Context } from '../access/context';
import { inParts, now } from '../db/ids';
import { openPassage, updatePassage, type Passage, type PassageRow } from './repository';

/** Two passages that became one: the one that stayed, at which revision, and the one that went into it. */
export interface Joined {
  stayed: string;
  revision: number;
  gist: string;
  ownWords: string;
  locator: Passage['locator'];
  wording?: string | null;
  /** As they were; joined before passages had tags, there were none. */
  tags?: string[];
  went: string;
}

const both = (a: string, b: string, between: string) =>
  a.trim() === '' ? b : b.trim() === '' || a.includes(b.trim()) ? a : `${a}${between}${b}`;

/** Whether two passages mark the same words, are of the same kind, and seen by the same people. Figures under one caption are several. */
const alike = (a: Passage, b: Passage) =>
  a.kind === b.kind &&
  a.visibility === b.visibility &&
  a.shownTo.join() === b.shownTo.join() &&
  !a.figure &&
  fold(a.exact) !== '' &&
  fold(a.exact) === fold(b.exact) &&
  (a.wording === null || b.wording === null || a.wording === b.wording);

/** Those of some passages something hangs on: a link, a task, a place in the outline. */
async function hungOn(ctx: Context, ids: readonly string[]): Promise<Set<string>> {
  const hung = new Set<string>();
  for (const [table, column] of [
    ['passage_link', 'from_id'],
    ['passage_link', 'to_id'],
    ['task', 'passage_id'],
    ['placement', 'passage_id'],
  ] as const)
    for (const part of inParts([...ids]))
      for (const row of (await ctx.db(table).whereIn(column, part).select(column)) as Record<
        string,
        string
      >[])
        hung.add(row[column]!);
  return hung;
}

/**
 * Makes one of passages that mark the same words, when those with ids `came` have come to a source: what was said of both is
 * said of the one that was there, the other goes to the bin. What is private to
 * somebody else is left alone, and so is one that is linked, filed or has a task.
 */
export async function joinPassages(ctx: Context, sourceId: string, came: string[]): Promise<Joined[]> {
  if (came.length === 0) return [];
  const newly = new Set(came);
  const hung = await hungOn(ctx, came);
  const rows = (await visible<PassageRow>(ctx, 'passage')
    .where({ source_id: sourceId })
    .whereNull('binned')
    .orderBy('added')) as PassageRow[];
  const all = rows.map(openPassage);
  const there = all.filter((p) => !newly.has(p.id));
  const joined: Joined[] = [];
  for (const passage of all.filter((p) => newly.has(p.id) && !hung.has(p.id))) {
    const at = there.findIndex((p) => alike(p, passage));
    const stays = there[at];
    if (!stays) continue;
    const change = {
      gist: both(stays.gist, passage.gist, ' · ').slice(0, 1_000),
      ownWords: both(stays.ownWords, passage.ownWords, '\n\n'),
      locator: stays.locator ?? passage.locator,
      wording: stays.wording ?? passage.wording,
      tags: [...new Set([...stays.tags, ...passage.tags])],
    };
    const why = 'joined with one that marks the same words';
    const { passage: after } = await updatePassage(ctx, stays.id, stays.revision, change, why);
    await updatePassage(ctx, passage.id, passage.revision, { binned: now() }, why);
    joined.push({
      stayed: stays.id,
      revision: after.revision,
      gist: stays.gist,
      ownWords: stays.ownWords,
      locator: stays.locator,
      wording: stays.wording,
      tags: stays.tags,
      went: passage.id,
    });
    there[at] = after;
  }
  return joined;
}

/** Takes that back: what went into another is out of the bin; the words of the other are as they were, unless edited since. */
export async function partPassages(ctx: Context, joined: readonly Joined[]): Promise<void> {
  for (const part of inParts([...joined].reverse()))
    for (const { stayed, revision, went, ...said } of part) {
      const why = 'no longer joined';
      const rows = (await visible<PassageRow>(ctx, 'passage').whereIn('id', [stayed, went])) as PassageRow[];
      const [one, other] = [stayed, went].map((id) => rows.find((row) => row.id === id));
      if (one?.revision === revision) await updatePassage(ctx, stayed, revision, said, why);
      if (other?.binned) await updatePassage(ctx, went, other.revision, { binned: null }, why);
    }
}
