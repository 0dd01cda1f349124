import { fieldLabel, fieldName, isNameVariable, type SourceRecord, type Variable } from '../source';
import { isTitleCased, languageOfTitle, plain, sentenceCase, type CaseHints } from '../text';
import type { Finding } from './types';

/** What is beside a record: the style it prints in, and what else the library holds of it. */
export interface Around {
  /** What the style prints of its type and it lacks (`missingFor`). */
  missing?: Variable[];
  /** What the style can print of its type. */
  asks?: Variable[];
  /** Whether the style prints titles of its type as they stand in the record. */
  titleAsItStands?: boolean;
  /** Names as the library writes them. */
  known?: CaseHints['known'];
  /** When it was first captured, as year, month and day. */
  captured?: [number, number, number];
  /** The published work a preprint has here. */
  versionOfRecord?: { id: string; label: string };
  /** Names of it that the library has in another spelling too, by field. */
  spelled?: { field: Variable; here: string; elsewhere: string }[];
  /** Quotations of it that say no place. */
  placeless?: number;
  /** How many copies are kept of it. */
  copies?: number;
}

const AROUND = new Set([
  'accessed-missing',
  'title-case',
  'version-of-record',
  'spelled-otherwise',
  'place-unsaid',
  'copy-missing',
]);

/** Whether a check is one of what is around a record, not of the record by itself. */
export const isAround = (check: string): boolean => check.endsWith('-asked') || AROUND.has(check);

/** Findings of a record beside what is around it: in a style, in a library. Those of the record by itself are `proof`’s. */
export function proofAround(record: SourceRecord, around: Around): Finding[] {
  const found: Finding[] = [];
  for (const field of around.missing ?? [])
    found.push({
      check: `${field}-asked`,
      pencil: 'blue',
      field,
      message: isNameVariable(field) ? `No ${fieldName(field)}` : `${fieldLabel(field)} missing`,
    });
  const online = record.type === 'webpage' || record.type === 'post' || record.type === 'post-weblog';
  if (online && record.URL && !record.accessed && around.asks?.includes('accessed')) {
    const day = around.captured;
    found.push({
      check: 'accessed-missing',
      pencil: 'blue',
      field: 'accessed',
      message: 'No date of access',
      ...(day
        ? {
            fix: {
              label: `It was captured on ${day.map((n) => String(n).padStart(2, '0')).join('-')}`,
              edit: { accessed: { 'date-parts': [day] } },
            },
          }
        : {}),
    });
  }
  const { title, language } = record;
  if (title && around.titleAsItStands) {
    const bare = plain(title);
    const english = language ? /^en\b/i.test(language) : (languageOfTitle(bare) ?? 'en') === 'en';
    const lower = sentenceCase(title, { language: language ?? 'en', known: around.known });
    if (english && isTitleCased(bare) && lower !== title)
      found.push({
        check: 'title-case',
        pencil: 'blue',
        field: 'title',
        message: 'Capitals as in a headline; this style prints them',
        fix: { label: 'Sentence case', edit: { title: lower } },
      });
  }
  if (around.versionOfRecord)
    found.push({
      check: 'version-of-record',
      pencil: 'blue',
      field: 'type',
      message: `A preprint; as published it is here too: ${around.versionOfRecord.label}`,
    });
  for (const { field, here, elsewhere } of around.spelled ?? [])
    found.push({
      check: 'spelled-otherwise',
      pencil: 'blue',
      field,
      message: `“${here}” is “${elsewhere}” elsewhere`,
    });
  if (around.placeless)
    found.push({
      check: 'place-unsaid',
      pencil: 'blue',
      field: 'page',
      message:
        around.placeless === 1
          ? 'A quotation without its place'
          : `${around.placeless} quotations without their place`,
    });
  if (online && around.copies === 0)
    found.push({
      check: 'copy-missing',
      pencil: 'grey',
      field: 'URL',
      message: 'No copy of the page is kept',
    });
  return found;
}
