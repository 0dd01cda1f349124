/** What a list can go out as. */
export const OUTPUTS = [
  'docx',
  'html',
  'rtf',
  'text',
  'markdown',
  'latex',
  'csl-json',
  'bibtex',
  'biblatex',
  'ris',
] as const;
export type Output = (typeof OUTPUTS)[number];
