import { MOST_STRETCHES, wordsOf, type Locator, type Selectors, type Tint } from '$lib/core/passages';
import type { PassageWords } from '$lib/server/passages';
import { drafts } from '../frame/drafts';

/** A stretch of words selected in the text: where they stand, in code units of it, and the locator of their place. */
export interface Selected {
  selectors: Selectors;
  start: number;
  end: number;
  place: Locator | undefined;
}

/** Words selected, and those that were added to them, with an omission between. */
export interface Fresh extends Selected {
  further?: Selected[];
}

/** Words that are selected with others added to them: in the order of the text, with the places of both. */
export function joinedWith(fresh: Fresh, more: Selected): Fresh | undefined {
  const all = [fresh, ...(fresh.further ?? []), more].sort((a, b) => a.start - b.start);
  if (all.length > MOST_STRETCHES || all.some((one, i) => i > 0 && one.start < all[i - 1]!.end))
    return undefined;
  const [first, ...further] = all.map(({ selectors, start, end, place }): Selected => ({
    selectors,
    start,
    end,
    place,
  }));
  const places = all.flatMap(({ place }) => place?.value ?? []).filter((p, i, list) => list.indexOf(p) === i);
  const label = fresh.place?.label ?? more.place?.label;
  const place = label && places.length ? { label, value: places.join(', ') } : undefined;
  return { ...first!, further, place };
}

/** The words of what is selected. */
export const wordsSelected = ({ selectors, further = [] }: Fresh): string =>
  wordsOf(
    selectors,
    further.map((one) => one.selectors),
  );

/** A passage that was begun and not kept, with what was typed of it. */
export type Begun = Fresh & { said: PassageWords };

/** What a passage says before anything is said of it. */
export const nothingSaid = (
  kind: PassageWords['kind'] = 'quotation',
  tint: Tint = 'claim',
): PassageWords => ({
  kind,
  tint,
  gist: '',
  ownWords: '',
  locator: null,
  visibility: 'library',
  shownTo: [],
  wording: null,
  tags: [],
});

/** What is said of a kept passage. */
export const saidOf = (passage: PassageWords): PassageWords => {
  const { kind, tint, gist, ownWords, locator, visibility, shownTo, wording, tags } = passage;
  return { kind, tint, gist, ownWords, locator, visibility, shownTo, wording, tags };
};

/** What was typed of a passage and waited; passages had no tags, no wording of their own and nobody by name who sees them, and a response was a comment. */
export const asSaid = <T extends PassageWords>(typed: T): T => ({
  ...typed,
  kind: (typed.kind as string) === 'comment' ? 'response' : typed.kind,
  wording: typed.wording ?? null,
  tags: typed.tags ?? [],
  shownTo: typed.shownTo ?? [],
});

const same = (a: Fresh, b: Fresh) =>
  a.start === b.start && a.end === b.end && (a.further?.length ?? 0) === (b.further?.length ?? 0);

/** Passages begun in a copy and not kept: what was typed of them waits until they are kept or thrown away. */
export function beginnings(copyId: () => string) {
  let begun = $state.raw<Begun[]>([]);
  const name = $derived(`passages ${copyId()}`);
  $effect(() => {
    begun = (drafts.find<Begun[]>(name) ?? []).map((one) => ({ ...one, said: asSaid(one.said) }));
  });
  function set(next: Begun[]) {
    begun = next;
    if (next.length) drafts.keep(name, next);
    else drafts.drop(name);
  }
  const others = (of: Fresh) => begun.filter((b) => !same(b, of));
  return {
    /** Those that wait, without the one that is at hand. */
    but: (fresh: Fresh | undefined) => begun.filter((b) => !fresh || !same(b, fresh)),
    /** What was typed of one before. */
    saidOf: (fresh: Fresh) => begun.find((b) => same(b, fresh))?.said,
    /** Puts down what is being typed, so that nothing that comes between takes it away. */
    typed: (of: Fresh, said: PassageWords) =>
      set(
        said.gist || said.ownWords || said.wording || said.tags.length
          ? [...others(of), { ...of, said }]
          : others(of),
      ),
    throwAway: (of: Fresh) => set(others(of)),
  };
}
