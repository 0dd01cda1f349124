import { nfc, plain, squash } from '../text';
import {
  issnText,
  parseDate,
  parseName,
  parseNames,
  type CslName,
  type CslType,
  type DateVariable,
  type NameVariable,
  type OriginKind,
  type TextVariable,
  type Variable,
} from '../source';

/** A value read from one place for one field; `note` names the tag or property it was read from. */
export interface Candidate {
  field: Variable | 'type';
  value: unknown;
  kind: OriginKind;
  note?: string;
}

/** Collects candidates of one origin, leaving out what is empty or unreadable. */
export function collector(kind: OriginKind) {
  const found: Candidate[] = [];
  const add = (field: Variable | 'type', value: unknown, note?: string) => {
    if (value !== undefined && value !== '' && !(Array.isArray(value) && value.length === 0))
      found.push({ field, value, kind, ...(note ? { note } : {}) });
  };
  return {
    found,
    type: (value: CslType | undefined, note?: string) => add('type', value, note),
    text: (field: TextVariable, value: string | undefined | null, note?: string) => {
      const clean = squash(nfc(value ?? ''));
      if (clean.length <= 100_000) add(field, field === 'ISSN' ? (issnText(clean) ?? '') : clean, note);
    },
    date: (field: DateVariable, value: string | undefined | null, note?: string) =>
      add(field, value ? parseDate(value) : undefined, note),
    names: (role: NameVariable, values: (string | CslName)[], note?: string) => {
      const one = values.length === 1 && typeof values[0] === 'string';
      const names = one
        ? parseNames(values[0] as string)
        : values
            .map((v) => (typeof v === 'string' ? parseName(v) : v))
            .filter((n): n is CslName => n !== undefined);
      add(role, names, note);
    },
  };
}

/** Text that came with HTML in it (descriptions, headlines) without tags, white space squashed. */
export function textOnly(html: string): string {
  return squash(plain(html.replace(/<\/?(?!i\b|b\b|sup\b|sub\b)[a-z][^>]*>/gi, ' ')));
}

/** First and last page as one range, `12–24` typed with a plain hyphen as CSL has it. */
export function pageRange(first?: string, last?: string): string | undefined {
  const [a, b] = [first, last].map((p) => p?.trim().replace(/[–—]/g, '-'));
  if (!a) return undefined;
  return b && b !== a ? `${a}-${b}` : a;
}
