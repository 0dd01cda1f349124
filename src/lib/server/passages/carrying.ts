import type { Figure } from '../../core/figures';
import {
  anchorAll,
  describe,
  locatorIn,
  sameWords,
  wordsOf,
  worstOf,
  type AnchorState,
  type Selectors,
} from '../../core/passages';
import { change, checkRight } from '../access/change';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { fetchCopy } from '../capture';
import { pictureOf, readingOf } from '../copies';
import { getCopy, insertCopy, renewReading, type Copy } from '../copies/repository';
import { inTurn } from '../turns';
import { passagesWhere, updatePassage, type Passage } from './repository';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['passages'] } as const;

/** How many passages stand how. */
export type Counts = Record<AnchorState, number>;
export const none = (): Counts => ({ found: 0, moved: 0, changed: 0, lost: 0 });

/** What came of looking at a page again: whether it has changed, and how many of its passages stand how. */
export interface Renewal {
  copyId: string;
  changed: boolean;
  passages: Counts;
  /** How many pictures the copy has now that were missing, where its text has not changed. */
  pictures?: number;
}

/** What came of carrying passages over to another copy: how many stand there how, and the revisions made, for undoing. */
export interface Carried {
  passages: Counts;
  revisions: string[];
}

/** Where a passage stands in another text, with its further stretches, and how; no place where it is lost. */
export interface NewPlace {
  anchor: AnchorState;
  now: { selectors: Selectors; further: Selectors[] } | undefined;
}

/** Where passages of one copy stand in the text of another: lost where one of their stretches is. */
export function placesIn(
  copy: Pick<Copy, 'text'>,
  passages: readonly (Passage & { selectors: Selectors })[],
): NewPlace[] {
  const wanted = passages.map(({ selectors, further }) => [selectors, ...further]);
  const found = anchorAll(copy.text, wanted.flat());
  let at = 0;
  return wanted.map((stretches, i) => {
    const mine = found.slice(at, (at += stretches.length));
    const state = worstOf(mine.map((one) => one.state));
    if (state === 'lost') return { anchor: 'lost', now: undefined };
    const [selectors, ...further] = mine.map(({ start, end }) => describe(copy.text, start, end));
    const now = { selectors: selectors!, further };
    // What counts is the words as they were kept: those that changed before may have changed back.
    if (!sameWords(wordsOf(now.selectors, further), passages[i]!.exact)) return { anchor: 'changed', now };
    return { anchor: state === 'changed' ? 'moved' : state, now };
  });
}

/** Whether a figure is in another copy too: its very picture must be kept of it. */
async function hasPicture(ctx: Context, copyId: string, { place }: Figure): Promise<boolean> {
  if (place.on !== 'picture') return false;
  return pictureOf(ctx, copyId, place.sha256).then(
    () => true,
    () => false,
  );
}

export const isLocated = (passage: Passage): passage is Passage & { selectors: Selectors } =>
  passage.selectors !== null;

/**
 * Captures a copy's page again. When its text is the same, nothing new is kept, but for pictures that were missing. When it
 * changed, a new copy is kept and every passage is looked for in it: those found again go over to it (as found, moved or with
 * changed words, beside the words as they were kept), and so do words on the whole of it and figures whose picture it has
 * too; the others stay on the old copy, marked as lost from the page.
 */
export async function renewCopy(ctx: Context, id: string): Promise<Renewal> {
  // Before anything is fetched for them.
  checkRight(ctx, CHANGE.right);
  const old = await getCopy(ctx, id);
  const fresh = await fetchCopy(old.address);
  if (fresh.text === old.text) {
    const { reading_sha256: reading, pictures = [] } = fresh;
    const more = pictures.length > 0 && reading !== old.reading_sha256;
    if (more) await change(ctx, CHANGE, (inner) => renewReading(inner, id, reading, pictures));
    return { copyId: id, changed: false, passages: none(), ...(more ? { pictures: pictures.length } : {}) };
  }
  return change(ctx, CHANGE, async (inner) => {
    const copy = await insertCopy(inner, { ...fresh, source_id: old.source_id });
    const count = none();
    const all = await passagesWhere(inner, { copy_id: id });
    const located = all.filter(isLocated);
    const places = placesIn(copy, located);
    for await (const [i, { id: passageId, revision }] of inTurn(located.entries())) {
      const { anchor, now } = places[i]!;
      count[anchor]++;
      const over = now ? { copyId: copy.id, ...now } : {};
      await updatePassage(inner, passageId, revision, { anchor, ...over }, 'page captured again');
    }
    for (const { id: passageId, revision, figure } of all.filter((p) => !p.selectors)) {
      const goes = !figure || (await hasPicture(inner, copy.id, figure));
      if (figure) count[goes ? 'found' : 'lost']++;
      const over = goes ? { copyId: copy.id } : { anchor: 'lost' as const };
      await updatePassage(inner, passageId, revision, over, 'page captured again');
    }
    return { copyId: copy.id, changed: true, passages: count };
  });
}

/**
 * Carries the passages of a copy over to another copy of the same source (the PDF for the page, a newer one for an older one):
 * each is looked for in its text; those found go over, with the printed page that copy says, and words on the whole go too, and figures whose
 * picture that copy has.
 * What is not in it stays where it is, as it is.
 */
export async function carryPassages(ctx: Context, from: string, to: string): Promise<Carried> {
  const [old, copy] = [await getCopy(ctx, from), await getCopy(ctx, to)];
  if (from === to || old.source_id !== copy.source_id)
    throw new Refusal(422, 'Passages are carried to another copy of the same source.');
  const { html } = await readingOf(ctx, to);
  return change(ctx, CHANGE, async (inner) => {
    const carried: Carried = { passages: none(), revisions: [] };
    const all = await passagesWhere(inner, { copy_id: from });
    const located = all.filter(isLocated);
    const places = placesIn(copy, located);
    const put = async ({ id, revision }: Passage, over: Partial<Passage>) => {
      const { revisionId } = await updatePassage(inner, id, revision, over, 'carried to another copy');
      if (revisionId) carried.revisions.push(revisionId);
    };
    for await (const [i, passage] of inTurn(located.entries())) {
      const { anchor, now } = places[i]!;
      carried.passages[anchor]++;
      if (!now) continue;
      const printed = locatorIn(html, now.selectors.quote.exact);
      const locator = printed?.label === 'page' ? printed : passage.locator;
      await put(passage, { anchor, copyId: to, ...now, locator });
    }
    for (const passage of all.filter((p) => !p.selectors)) {
      const goes = !passage.figure || (await hasPicture(inner, to, passage.figure));
      if (passage.figure) carried.passages[goes ? 'found' : 'lost']++;
      if (goes) await put(passage, { copyId: to, anchor: 'found' });
    }
    return carried;
  });
}
