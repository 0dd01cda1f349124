/** How two spellings of one name differ. */
export const DIFFERENCES = [
  'marks',
  'parts',
  'particle',
  'initials',
  'fewer',
  'abbreviated',
  'acronym',
  'subtitle',
  'issn',
] as const;
export type Difference = (typeof DIFFERENCES)[number];

/** Each in words. */
export const DIFFERENCE_WORDS: Record<Difference, string> = {
  marks: 'accents, capitals or punctuation',
  parts: 'one string, or given and family name',
  particle: 'a particle, or half of a double name',
  initials: 'initials for given names',
  fewer: 'more or fewer given names',
  abbreviated: 'abbreviated',
  acronym: 'by its initials',
  subtitle: 'with and without its subtitle',
  issn: 'the same ISSN',
};

/** Those that leave no doubt that it is one name. */
export const SURE: ReadonlySet<Difference> = new Set<Difference>(['marks', 'parts']);
