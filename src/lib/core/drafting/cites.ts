import { z } from 'zod';
import type { CiteItem } from '../citing';
import { parseLocated } from './locators';

const short = z.string().max(500);

/** A work as a citation cites it: its place in the work, words before and after it, and whether its author is left out. */
export const citedWork = z.object({
  id: z.string().max(60),
  label: z.string().max(40).optional(),
  locator: short.optional(),
  prefix: short.optional(),
  suffix: short.optional(),
  withoutAuthor: z.boolean().optional(),
});
export type CitedWork = z.infer<typeof citedWork>;

/** A work as it is handed to a style: words before and after it stand apart from it, where they are no mark of punctuation. */
export function citeItem({ id, label, locator, prefix, suffix, withoutAuthor }: CitedWork): CiteItem {
  const [place, before, after] = [locator?.trim(), prefix?.trim(), suffix?.trim()];
  return {
    id,
    ...(place ? { locator: place, label: label ?? 'page' } : {}),
    ...(before ? { prefix: `${before} ` } : {}),
    ...(after ? { suffix: /^[,;:.)\]]/.test(after) ? after : ` ${after}` } : {}),
    ...(withoutAuthor ? { 'suppress-author': true } : {}),
  };
}

/**
 * What is typed behind a work that was found: a place, and words after it. `12-14`, `ch. 3, on the sluice`. What is no place
 * is words.
 */
export function typedPlace(text: string): Pick<CitedWork, 'label' | 'locator' | 'suffix'> {
  const { label, locator, suffix } = parseLocated(text.trim());
  const words = suffix.trim();
  return {
    ...(locator ? { label: label ?? 'page', locator } : {}),
    ...(words ? { suffix: words } : {}),
  };
}

/** Words one puts before a work: signals of the manuals, and what they are in German and French. Common practice. */
const SIGNALS =
  /^(?:(?:but )?see(?: also| especially)?|cf\.?|e\.\s?g\.,?|(?:quoted|cited) in|as (?:quoted|cited) in|contra|compare|siehe(?: auch)?|vgl\.?|zit\. nach|zitiert nach|voir(?: aussi)?|cité (?:par|dans))(?=\s)/iu;

/**
 * What is typed to find a work: words before it that are no part of what is looked for, a stroke that leaves its author out,
 * and what is looked for. `see also -fitch sluices`.
 */
export function typedWork(text: string): { wanted: string; prefix?: string; withoutAuthor?: true } {
  const prefix = SIGNALS.exec(text.trimStart())?.[0];
  const rest = text
    .trimStart()
    .slice(prefix?.length ?? 0)
    .trimStart();
  const left = rest.startsWith('-');
  return {
    wanted: (left ? rest.slice(1) : rest).replace(/^@/, '').trim(),
    ...(prefix ? { prefix } : {}),
    ...(left ? { withoutAuthor: true } : {}),
  };
}

/** Cites as they begin a note: the first words before them with a capital. */
export const begun = ([first, ...others]: CiteItem[]): CiteItem[] =>
  first
    ? [
        first.prefix ? { ...first, prefix: first.prefix.replace(/^\p{Ll}/u, (c) => c.toUpperCase()) } : first,
        ...others,
      ]
    : [];
