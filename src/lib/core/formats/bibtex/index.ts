import type { Format } from '../types';
import { readBib } from './read';
import { writeBib } from './write';

export { looksLikeBiblatex } from './read';

/** BibTeX, as "BibTeXing" (btxdoc, 1988) and its standard styles have it. */
export const bibtex: Format = {
  name: 'bibtex',
  label: 'BibTeX',
  extension: 'bib',
  mediaType: 'application/x-bibtex',
  read: (text) => readBib(text, 'bibtex'),
  write: (items) => writeBib(items, 'bibtex'),
};

/** BibLaTeX, as the biblatex manual (3.19) has it: the same syntax with more entry types, more fields, and EDTF dates. */
export const biblatex: Format = {
  name: 'biblatex',
  label: 'BibLaTeX',
  extension: 'bib',
  mediaType: 'application/x-bibtex',
  read: (text) => readBib(text, 'biblatex'),
  write: (items) => writeBib(items, 'biblatex'),
};
