import { z } from 'zod';

/** The languages text is recognised in, by their codes of ISO 639-3; what ships with the product. */
export const RECOGNISED = {
  eng: 'English',
  deu: 'German',
  fra: 'French',
  spa: 'Spanish',
  lat: 'Latin',
} as const;
export type Recognised = keyof typeof RECOGNISED;
export const recognised = z.enum(Object.keys(RECOGNISED) as [Recognised, ...Recognised[]]);

/** Languages in words: “English and Latin”. */
export const languagesInWords = (codes: readonly Recognised[]): string =>
  new Intl.ListFormat('en', { type: 'conjunction' }).format(codes.map((code) => RECOGNISED[code]));
