import type { Locator, PassageKind } from '../passages';
import type { CitedWork } from './cites';
import type { Block, Inline } from './document';
import { countWords } from './reading';

/** What of a passage goes into a draft. */
export interface Material {
  id: string;
  sourceId: string;
  kind: PassageKind;
  exact: string;
  wording: string | null;
  gist: string;
  ownWords: string;
  locator: Locator | null;
  /** Number and alternative text, of a figure. */
  figure: { number: string; alt: string } | null;
}

/**
 * From how many words on a quotation is set apart, by style. APA 7, 8.27: 40 words or more; Chicago 17, 13.10: a hundred words
 * or more; MHRA 3, 9: more than forty words; both from memory. Of others a hundred is common practice.
 */
export function blockWords(style: string): number {
  if (/^(?:apa|american-psychological|modern-humanities|mhra)/.test(style)) return 40;
  return 100;
}

/** What citing a passage cites: its source with its place. */
export const workOf = ({ sourceId, locator }: Pick<Material, 'sourceId' | 'locator'>): CitedWork => ({
  id: sourceId,
  ...(locator ? { label: locator.label, locator: locator.value } : {}),
});

/** Quotation marks within others are the second pair; the usual ones of English where the text has the first. */
const within = (text: string): string => text.replace(/“([^“”]*)”/g, '‘$1’').replace(/"([^"]*)"/g, '‘$1’');

/**
 * What a passage becomes in a draft: a quotation in marks, or set apart from as many words on as the style’s rule says; one’s
 * own words; a figure; each with its citation. `newId` makes the ids of citations.
 */
export function placed(
  material: Material,
  { quotes, words, newId }: { quotes: readonly [string, string]; words: number; newId: () => string },
): { inline: Inline[] } | { blocks: Block[] } {
  const { id, kind, exact, wording, gist, ownWords, figure } = material;
  const cite = (): Inline => ({
    type: 'cite',
    attrs: { id: newId(), works: [workOf(material)], named: false },
  });
  const quoted = wording ?? exact;
  if (figure)
    return {
      blocks: [
        {
          type: 'figure',
          attrs: {
            passage: id,
            caption: exact || gist,
            alt: figure.alt,
            works: [workOf(material)],
            cite: newId(),
          },
        },
      ],
    };
  const own = kind === 'quotation' ? '' : ownWords || gist;
  const from = (as: 'quotation' | 'own') => [{ type: 'passage' as const, attrs: { id, as } }];
  if (own || !quoted)
    return {
      inline: [
        { type: 'text', text: own || gist || '…', marks: from('own') },
        { type: 'text', text: ' ' },
        cite(),
      ],
    };
  if (countWords(quoted) >= words)
    return {
      blocks: [
        {
          type: 'blockquote',
          attrs: { passage: id },
          content: quoted
            .split(/\n+/)
            .filter((line) => line.trim())
            .map((line, i, all) => ({
              type: 'paragraph',
              content: [
                { type: 'text', text: line.trim() },
                ...(i === all.length - 1 ? [{ type: 'text' as const, text: ' ' }, cite()] : []),
              ],
            })),
        },
      ],
    };
  return {
    inline: [
      { type: 'text', text: quotes[0] },
      { type: 'text', text: within(quoted), marks: from('quotation') },
      { type: 'text', text: `${quotes[1]} ` },
      cite(),
    ],
  };
}
