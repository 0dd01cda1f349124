import { z } from 'zod';
import { nfc, squash, withoutControls } from '../text';
import { credibilityWords } from './credibility-words';

/** Who read a work before it came out. */
export const REVIEWED = ['peers', 'editors', 'nobody', 'unknown'] as const;
export type Reviewed = (typeof REVIEWED)[number];
/** How far a source can be trusted. */
export const TRUST = ['fully', 'with care', 'not at all'] as const;
export type Trust = (typeof TRUST)[number];

/** An answer taken back is none. */
const orNothing = (value: unknown) => (value === '' ? undefined : value);
const said = z
  .string()
  .max(4_000)
  .transform((text) => nfc(withoutControls(text)).trim() || undefined)
  .optional();

/**
 * What somebody says of how far a source can be trusted, as libraries teach to ask it: who is behind it, what it is after,
 * what it rests on, who read it before it came out. What was not said is absent.
 */
export const credibility = z.strictObject({
  behind: said,
  aim: said,
  rests: said,
  reviewed: z.preprocess(orNothing, z.enum(REVIEWED).optional()),
  trust: z.preprocess(orNothing, z.enum(TRUST).optional()),
  why: said,
});
export type Credibility = z.infer<typeof credibility>;

/** The questions in the order they are asked, with what is said to help. */
export const CREDIBILITY_QUESTIONS = [
  ['behind', 'Who is behind it', 'Who wrote it, who published it, who paid for it'],
  ['aim', 'What it is after', 'To inform, to persuade, to sell'],
  ['rests', 'What it rests on', 'Sources it names, data, hearsay; how old they are'],
] as const satisfies readonly (readonly [keyof Credibility, string, string])[];

/** What each answer is called. */
export const reviewedWords = (reviewed: Reviewed): string => credibilityWords('en').reviewed[reviewed];
/** What each verdict is called. */
export const trustWords = (trust: Trust): string => credibilityWords('en').trust[trust];

/** A sentence ends as one. */
const ended = (text: string) => (/[.!?…]["”’»)]?$/u.test(text) ? text : `${text}.`);

/** What was said, in sentences of a locale's language, the verdict first; nothing where nothing was said. */
export function credibilityText({ reviewed, trust, why, ...answers }: Credibility, locale = 'en'): string {
  const words = credibilityWords(locale);
  const headed = (heading: string | undefined, text: string | undefined) =>
    heading && text ? `${heading}${words.colon}${squash(text)}` : (heading ?? (text && squash(text)));
  const sentences = [
    headed(trust && words.trust[trust], why),
    reviewed && words.reviewed[reviewed],
    ...CREDIBILITY_QUESTIONS.map(([key]) => answers[key] && headed(words[key], answers[key])),
  ];
  return sentences.flatMap((sentence) => (sentence ? ended(sentence) : [])).join(' ');
}

/** What was said of several that become one: where two say something else in words both stand, of verdicts the first. */
export function joinedCredibility(several: readonly (Credibility | undefined)[]): Credibility | undefined {
  const given = several.filter((one) => one !== undefined);
  if (given.length < 2) return given[0];
  const words = (key: 'behind' | 'aim' | 'rests' | 'why') => {
    const all = [...new Set(given.flatMap((one) => one[key] ?? []))].join('; ');
    return all && { [key]: all.slice(0, 4_000) };
  };
  const first = <K extends 'reviewed' | 'trust'>(key: K) => {
    const one = given.find((each) => each[key])?.[key];
    return one && { [key]: one };
  };
  return Object.assign({}, words('behind'), words('aim'), words('rests'), words('why'), first('reviewed'), first('trust')); // prettier-ignore
}
