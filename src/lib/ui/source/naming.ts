import { checkedOf } from '$lib/core/proof';
import type { QueryField } from '$lib/core/query';
import { TYPE_LABELS, type CslType } from '$lib/core/source';

/** What fields of a query are called where sources are narrowed by them. */
export const FIELD_NAMES: Partial<Record<QueryField, string>> = {
  reading: 'Reading',
  priority: 'Priority',
  type: 'Kind',
  tag: 'Tag',
  person: 'Person',
  container: 'Appeared in',
  language: 'Language',
  has: 'With',
  state: 'State',
  finding: 'Finding',
};

/** How far one is with reading, in words. */
export const READING_NAMES = {
  'to-read': 'To read',
  reading: 'Reading',
  read: 'Read',
  aside: 'Set aside',
} as const;
/** How much a source matters, in words. */
export const PRIORITY_NAMES = { high: 'Matters most', low: 'Matters least' } as const;

const VALUES: Partial<Record<QueryField, Readonly<Record<string, string>>>> = {
  reading: READING_NAMES,
  priority: PRIORITY_NAMES,
  type: TYPE_LABELS,
  has: {
    copy: 'A copy',
    pdf: 'A PDF',
    page: 'A saved page',
    passages: 'Passages',
    notes: 'Notes',
    tasks: 'Something to do',
  },
  state: { unchecked: 'Not checked', found: 'With findings' },
};

const languages = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'code' });

/** What a value of a field is called. */
export function valueName(field: QueryField, value: string): string {
  if (field === 'finding') return checkedOf(value).name;
  if (field === 'language') {
    try {
      return languages.of(value) ?? value;
    } catch {
      return value;
    }
  }
  return VALUES[field]?.[field === 'type' ? (value as CslType) : value.toLowerCase()] ?? value;
}
