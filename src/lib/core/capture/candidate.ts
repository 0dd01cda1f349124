import { nfc, plain, squash } from '../text';
import {
  issnText,
  nameText,
  orcidText,
  parseDate,
  type CslName,
  type CslType,
  type DateVariable,
  type NameVariable,
  type OriginKind,
  type TextVariable,
  type Variable,
} from '../source';
import { peopleOf } from './people';
import { tidy } from './tidy';

/** A value read from one place for one field; `note` names the tag or property it was read from. */
export interface Candidate {
  field: Variable | 'type';
  value: unknown;
  kind: OriginKind;
  note?: string;
  /** Of names, the ORCIDs that came with them, by the name as it is shown. */
  orcids?: Readonly<Record<string, string>>;
}

/** The ORCID that came with each name, of those whose check character holds: what is given may be any. */
export function orcidsWith(given: readonly [name: CslName, orcid: unknown][]): Record<string, string> {
  return Object.fromEntries(
    given.flatMap(([name, orcid]) => {
      const text = typeof orcid === 'string' && orcid.length < 200 ? orcidText(orcid) : undefined;
      return text && name.literal === undefined ? [[nameText(name), text]] : [];
    }),
  );
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
      const clean = tidy(field, squash(nfc(value ?? '')));
      if (clean.length <= 100_000) add(field, field === 'ISSN' ? (issnText(clean) ?? '') : clean, note);
    },
    date: (field: DateVariable, value: string | undefined | null, note?: string) =>
      add(field, value ? parseDate(value) : undefined, note),
    names: (
      role: NameVariable,
      values: (string | CslName)[],
      note?: string,
      orcids: Record<string, string> = {},
    ) => {
      const names = values.every((v) => typeof v === 'string')
        ? peopleOf(values)
        : values.flatMap((v) => (typeof v === 'string' ? peopleOf([v]) : [v]));
      add(role, names, note);
      const last = found.at(-1);
      if (last?.value === names && Object.keys(orcids).length) last.orcids = orcids;
    },
  };
}

/** Text that came with HTML in it (descriptions, headlines) without tags, white space squashed. */
export function textOnly(html: string): string {
  return squash(plain(html.replace(/<\/?(?!i\b|b\b|sup\b|sub\b)[a-z][^<>]*>/gi, ' ')));
}

/**
 * First and last page as one range, `12-24` with a plain hyphen as CSL has it. A last page written short is filled
 * up (`112-30` gives `112-130`), a first page alone stays alone.
 */
export function pageRange(first?: string, last?: string): string | undefined {
  const [a, b] = [first, last].map((p) =>
    squash(p ?? '')
      .replace(/^(?:pages?|pp?|seiten?|s)\.?\s+(?=[\divxlc])|^pp?\.(?=\d)/i, '')
      .replace(/ ?(?:--?|[–—‐‑−]) ?/g, '-'),
  );
  if (!a || /^(?:n\/?a|0|-)$/i.test(a)) return undefined;
  const whole = b && b !== a ? `${a}-${b}` : a;
  const m = /^(\d+)-(\d+)$/.exec(whole);
  if (!m) return whole;
  const [from, to] = [m[1]!, m[2]!];
  if (from === to) return from;
  return to.length < from.length ? `${from}-${from.slice(0, from.length - to.length)}${to}` : whole;
}
