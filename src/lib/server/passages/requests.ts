import { z } from 'zod';
import { tagName } from '../../core/forms';
import { figurePlace, figureWords } from '../../core/figures';
import { linkKind, locator, MOST_STRETCHES, passageKind, selectors, tint } from '../../core/passages';
import { nfc, squash } from '../../core/text';

const words = z.string().max(50_000).transform(nfc);
const id = z.string().max(60);

/** Tags as they are kept: in one line each, none twice. */
export const passageTags = z
  .array(
    z
      .string()
      .max(120)
      .transform((tag) => nfc(squash(tag))),
  )
  .max(50)
  .transform((tags) => [...new Set(tags.filter(Boolean))]);

/** What a person says of a passage. */
export const passageWords = z.strictObject({
  kind: passageKind,
  tint,
  gist: z.string().max(1_000).transform(nfc),
  ownWords: words,
  locator: locator.nullable(),
  visibility: z.enum(['private', 'library']),
  /** Who sees it too where it is private, by id. */
  shownTo: z.array(id).max(200).default([]),
  wording: words.nullable().default(null),
  tags: passageTags.default([]),
});
export type PassageWords = z.infer<typeof passageWords>;

const furtherPlaces = z.array(selectors).max(MOST_STRETCHES - 1);

/** A figure to cut out of a copy, with what is said of it. */
export const newFigure = figureWords.extend({ place: figurePlace });

/**
 * A new passage: of words in a copy, found by `selectors`; a `figure` in a copy, its caption in `exact`; of a whole copy,
 * without either; or of a source no copy of which is here, its words typed (`exact`), from print or from memory.
 */
export const newPassage = passageWords
  .extend({
    copyId: id.nullable(),
    sourceId: id.nullable().default(null),
    selectors: selectors.nullable(),
    /** Where its words go on, behind those that are left out. */
    further: furtherPlaces.default([]),
    exact: words.default(''),
    figure: newFigure.nullable().default(null),
  })
  .refine((given) => (given.kind === 'figure') === (given.figure !== null), {
    message: 'A passage of kind figure says which part of a picture it is, and no other does.',
  })
  .refine((given) => !given.figure || (given.copyId && !given.selectors), {
    message: 'A figure is cut out of a copy.',
  })
  .refine((given) => given.copyId ?? given.sourceId, {
    message: 'It says neither which copy nor which source.',
  })
  .refine((given) => given.selectors || given.further.length === 0, {
    message: 'Words go on somewhere that begin nowhere.',
  })
  .refine((given) => given.copyId || !given.selectors, { message: 'A place in the text is one in a copy.' })
  .refine(
    (given) =>
      given.selectors ?? given.figure ?? (given.exact.trim() || given.gist.trim() || given.ownWords.trim()),
    {
      message: 'Nothing is said: write the words, their point or your own words.',
    },
  );
export type NewPassage = z.input<typeof newPassage>;

/** A change of a passage: what is said of it and, where that changes too, its place, the words typed from print, or its figure. */
export const passageChange = z.strictObject({
  base: z.number().int(),
  said: passageWords.extend({ shownTo: passageWords.shape.shownTo.unwrap().optional() }),
  selectors: selectors.optional(),
  further: furtherPlaces.optional(),
  exact: words.optional(),
  figure: figureWords.extend({ place: figurePlace.optional() }).optional(),
});
export type PassageChange = z.infer<typeof passageChange>;

/** The kinds a link between passages can be of, or none to take it away, and the passage at its other end. */
export const linkRequest = z.object({ to: id, kind: linkKind.nullable() });

/** How many passages one request changes or writes out. */
export const MOST_PASSAGES = 5_000;
export const passageIds = z.array(id).min(1).max(MOST_PASSAGES);

/** What is done to several passages at once. */
export const manyRequest = z.discriminatedUnion('act', [
  z.object({ act: z.literal('tag'), ids: passageIds, tag: tagName }),
  z.object({ act: z.literal('untag'), ids: passageIds, tag: tagName }),
  z.object({ act: z.literal('bin'), ids: passageIds }),
  z.object({ act: z.literal('place'), ids: passageIds, sectionId: id }),
  z.object({ act: z.literal('unplace'), ids: passageIds, sectionId: id }),
]);
type OfEach<T> = T extends unknown ? Omit<T, 'ids'> : never;
export type ManyAct = OfEach<z.infer<typeof manyRequest>>;

/** What is selected on a page, and its address. */
export const selectionGiven = z.strictObject({
  address: z.string().min(1).max(4_000),
  selection: z.string().min(1).max(50_000),
});

/** The copy that passages are carried to. */
export const carryingTo = z.object({ to: z.string().max(60) });
