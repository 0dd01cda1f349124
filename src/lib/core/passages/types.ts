import { z } from 'zod';
import { nfc } from '../text';

/** What a passage is. */
export const PASSAGE_KINDS = ['quotation', 'paraphrase', 'summary', 'response', 'mark', 'figure'] as const;
export const passageKind = z.enum(PASSAGE_KINDS);
export type PassageKind = z.infer<typeof passageKind>;
export const KIND_LABELS: Record<PassageKind, string> = {
  quotation: 'Quotation',
  paraphrase: 'Paraphrase',
  summary: 'Summary',
  response: 'Response',
  mark: 'Mark',
  figure: 'Figure',
};

/** Kinds of passages of words: any of them can become any other. A figure is a part of a picture, and stays one. */
export type WordsKind = Exclude<PassageKind, 'figure'>;
export const WORDS_KINDS = PASSAGE_KINDS.filter((kind): kind is WordsKind => kind !== 'figure');

/** Kinds that are kept for what one says oneself; the words of the work stand behind it. */
export const inOwnWords = (kind: PassageKind): boolean =>
  kind === 'paraphrase' || kind === 'summary' || kind === 'response';

/** The tints: a meaning, a colour and a line pattern each (the last two are the interface's). */
export const TINTS = ['claim', 'evidence', 'method', 'term', 'doubt'] as const;
export const tint = z.enum(TINTS);
export type Tint = z.infer<typeof tint>;

/** Locator labels of CSL 1.0.2, appendix IV, "Locators". */
export const LOCATOR_LABELS = [
  'page', 'act', 'appendix', 'article-locator', 'book', 'canon', 'chapter', 'column', 'elocation', 'equation', 'figure',
  'folio', 'issue', 'line', 'note', 'opus', 'paragraph', 'part', 'rule', 'scene', 'section', 'sub-verbo', 'supplement',
  'table', 'timestamp', 'title-locator', 'verse', 'version', 'volume',
] as const; // prettier-ignore
/** What a locator is called where its name in CSL is no word. */
const LOCATOR_WORDS: Partial<Record<(typeof LOCATOR_LABELS)[number], string>> = {
  'article-locator': 'article',
  'title-locator': 'title',
  'sub-verbo': 'headword',
  elocation: 'e-location',
};
/** What a kind of locator is called. */
export const locatorName = (label: (typeof LOCATOR_LABELS)[number]): string => LOCATOR_WORDS[label] ?? label;

export const locator = z.strictObject({
  label: z.enum(LOCATOR_LABELS),
  value: z.string().trim().min(1).max(200).transform(nfc),
});
export type Locator = z.infer<typeof locator>;

/** Whether a locator names more than one place: a range or a row. Source: CSL 1.0.2, "Label", contextual plural. */
export const severalPlaces = (value: string): boolean =>
  /[\p{L}\p{N}]\s*(?:[-–—,;&]|\band\b)\s*[\p{L}\p{N}]/u.test(value);

/** A locator as it is shown: `p. 9`, `pp. 9–11`, `para. 3`, else its label and value; nothing for none. */
export function locatorText(given: Locator | null): string {
  if (!given) return '';
  const several = severalPlaces(given.value);
  const short: Partial<Record<Locator['label'], string>> = {
    page: several ? 'pp.' : 'p.',
    paragraph: several ? 'paras.' : 'para.',
  };
  return `${short[given.label] ?? given.label} ${given.value}`;
}

/** How many characters of context a quote selector keeps on each side. */
export const CONTEXT = 64;

/** W3C Web Annotation Data Model 4.2.4 and 4.2.5, both in one value. Positions count code points. */
export const selectors = z.strictObject({
  quote: z.strictObject({
    exact: z.string().min(1).max(50_000),
    prefix: z.string().max(1_000),
    suffix: z.string().max(1_000),
  }),
  position: z
    .strictObject({ start: z.number().int().min(0), end: z.number().int().min(1) })
    .refine((p) => p.end > p.start, { message: 'A passage ends after it starts' }),
});
export type Selectors = z.infer<typeof selectors>;

/** Whether the words still stand where they stood, elsewhere, with other words in them, or not any more. */
export const anchorState = z.enum(['found', 'moved', 'changed', 'lost']);
export type AnchorState = z.infer<typeof anchorState>;

/** What one passage says of another. */
export const LINK_KINDS = ['supports', 'contradicts', 'see also'] as const;
export const linkKind = z.enum(LINK_KINDS);
export type LinkKind = z.infer<typeof linkKind>;
/** How a link reads from the passage it comes from, and from the one it leads to. */
export const LINK_LABELS: Record<LinkKind, { to: string; from: string }> = {
  supports: { to: 'supports', from: 'is supported by' },
  contradicts: { to: 'contradicts', from: 'is contradicted by' },
  'see also': { to: 'see also', from: 'see also' },
};
