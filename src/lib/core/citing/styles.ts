import { dialectOf } from '../csl';
import type { CitationFormat, StyleFacts } from './printer';

/** A style offered first. `id` is its id in the catalogue. */
export interface StyleChoice {
  id: string;
  label: string;
  format: CitationFormat;
}

/** The styles offered before the whole catalogue is searched, by how they cite. */
export const STYLES: StyleChoice[] = [
  { id: 'apa', label: 'APA, 7th edition', format: 'author-date' },
  { id: 'modern-language-association', label: 'MLA, 9th edition', format: 'author' },
  { id: 'chicago-author-date', label: 'Chicago, author-date', format: 'author-date' },
  { id: 'chicago-note-bibliography', label: 'Chicago, notes and bibliography', format: 'note' },
  { id: 'harvard-cite-them-right', label: 'Harvard, Cite Them Right', format: 'author-date' },
  { id: 'modern-humanities-research-association', label: 'MHRA, notes', format: 'note' },
  { id: 'american-sociological-association', label: 'ASA', format: 'author-date' },
  { id: 'american-political-science-association', label: 'APSA', format: 'author-date' },
  { id: 'vancouver', label: 'Vancouver', format: 'numeric' },
  { id: 'ieee', label: 'IEEE', format: 'numeric' },
  { id: 'american-medical-association', label: 'AMA', format: 'numeric' },
  { id: 'nature', label: 'Nature', format: 'numeric' },
  { id: 'science', label: 'Science', format: 'numeric' },
  { id: 'council-of-science-editors', label: 'CSE, citation-sequence', format: 'numeric' },
  { id: 'din-1505-2', label: 'DIN 1505-2 (Deutsch)', format: 'author-date' },
  { id: 'iso690-author-date-fr', label: 'ISO 690 (français)', format: 'author-date' },
];

/** Languages offered first, by BCP 47 tag. */
export const LOCALES: { id: string; label: string }[] = [
  { id: 'en-US', label: 'English (US)' },
  { id: 'en-GB', label: 'English (UK)' },
  { id: 'de-DE', label: 'Deutsch' },
  { id: 'fr-FR', label: 'Français' },
  { id: 'es-ES', label: 'Español' },
  { id: 'it-IT', label: 'Italiano' },
  { id: 'nl-NL', label: 'Nederlands' },
  { id: 'pt-PT', label: 'Português' },
  { id: 'sv-SE', label: 'Svenska' },
  { id: 'pl-PL', label: 'Polski' },
];

export const FORMAT_LABELS: Record<CitationFormat, string> = {
  'author-date': 'author and date',
  author: 'author and page',
  numeric: 'numbers',
  label: 'labels',
  note: 'notes',
};

/** Fields of study a style may name (CSL 1.0.2, appendix I), as shown. */
export const FIELD_LABELS: Record<string, string> = {
  anthropology: 'anthropology', astronomy: 'astronomy', biology: 'biology', botany: 'botany', chemistry: 'chemistry', communications: 'communications',
  engineering: 'engineering', geography: 'geography', geology: 'geology', history: 'history', humanities: 'humanities', law: 'law',
  linguistics: 'linguistics', literature: 'literature', math: 'mathematics', medicine: 'medicine', philosophy: 'philosophy', physics: 'physics',
  political_science: 'political science', psychology: 'psychology', science: 'science', social_science: 'social science', sociology: 'sociology',
  theology: 'theology', zoology: 'zoology',
}; // prettier-ignore

/** A style's name as shown: ours for the styles offered first, else the id with spaces. */
export function styleLabel(id: string): string {
  return STYLES.find((s) => s.id === id)?.label ?? id.replace(/-/g, ' ');
}

/**
 * The language a style is written for, of those there are terms in: its `default-locale`, or what stands for the language of
 * that (CSL 1.0.2, "Style Root Element" and "Locale Fallback"). None where the style says nothing, or there are no terms in it.
 */
export const styleLanguage = (
  { locale }: Pick<StyleFacts, 'locale'>,
  known: (id: string) => boolean,
): string | undefined =>
  locale === undefined ? undefined : [locale, dialectOf(locale.split('-')[0]!)].find(known);

/** A language's name as shown. */
export function localeLabel(id: string): string {
  return (
    LOCALES.find((l) => l.id === id)?.label ??
    new Intl.DisplayNames(['en'], { type: 'language' }).of(id) ??
    id
  );
}
