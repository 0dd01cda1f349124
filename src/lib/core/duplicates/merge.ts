import { isShouting, fold } from '../text';
import {
  AND_OTHERS,
  CSL_TYPES,
  DATE_VARIABLES,
  datesAgree,
  doiKey,
  isDateVariable,
  isbnKeys,
  isNameVariable,
  joinedCredibility,
  NAME_VARIABLES,
  NUMBER_VARIABLES,
  parseNames,
  precisionOf,
  samePerson,
  sameValue,
  TEXT_VARIABLES,
  typedDate,
  type CslDate,
  type CslName,
  type Own,
  type Seen,
  type SourceRecord,
  type Variable,
  translationsOf,
  withTranslations,
} from '../source';

/** Which of two records a field's value is taken from. */
export type Side = 'a' | 'b';
export type MergeField = Variable | 'type';

/** A field in which two records differ, the side proposed and why; `check` marks a doubtful proposal. */
export interface Suggestion {
  field: MergeField;
  side: Side;
  why: string;
  check: boolean;
}

/** What merging a second record into a first does to the first's fields, each list in reading order. */
export interface MergeEffect {
  /** Fields only the second has. */
  adds: MergeField[];
  /** Fields both have, where the second's value is the better one. */
  replaces: MergeField[];
  /** Fields both have with different values, where the first's stays. */
  keeps: MergeField[];
  /** Tags only the second has. */
  tags: string[];
  /** Names of fields that are kept for a file format, and only the second has. */
  kept: string[];
}

const FIELDS: MergeField[] = [
  'type',
  ...TEXT_VARIABLES,
  ...NUMBER_VARIABLES,
  ...NAME_VARIABLES,
  ...DATE_VARIABLES,
];
const ORDER: MergeField[] = [
  'type',
  'title',
  'author',
  'editor',
  'issued',
  'container-title',
  'volume',
  'issue',
  'page',
  'publisher',
];

const alphabetical = (field: MergeField) => {
  const at = ORDER.indexOf(field);
  return at === -1 ? ORDER.length : at;
};

/** Fields all of some records have with the same value. */
export function agreeing(...records: SourceRecord[]): MergeField[] {
  const [first] = records;
  return FIELDS.filter((f) => first![f] !== undefined && records.every((r) => sameValue(r[f], first![f])));
}

/** A field in which records differ: the place of the one whose value is proposed, why, and whether to check it. */
export interface Proposal {
  field: MergeField;
  from: number;
  why: string;
  check: boolean;
}

/** A proposal for every field in which some records differ, in reading order. */
export function proposals(records: readonly SourceRecord[]): Proposal[] {
  return FIELDS.filter((f) => records.some((r) => !sameValue(r[f], records[0]![f])))
    .map((field) => {
      let best: Proposal = { field, from: 0, why: 'the only one', check: false };
      for (const [i, record] of records.entries()) {
        const value = records[best.from]![field];
        if (i === 0 || sameValue(value, record[field])) continue;
        const { side, why, check } = propose(field, value, record[field]);
        // That one has no value says nothing against the reason for which another was chosen.
        const told = value === undefined || record[field] !== undefined;
        best = {
          field,
          from: side === 'a' ? best.from : i,
          why: told ? why : best.why,
          check: (told && check) || (best.check && side === 'a'),
        };
      }
      return best;
    })
    .sort((x, y) => alphabetical(x.field) - alphabetical(y.field));
}

/** A proposal for every field in which the two records differ, in reading order. */
export const suggest = (a: SourceRecord, b: SourceRecord): Suggestion[] =>
  proposals([a, b]).map(({ from, ...said }) => ({ ...said, side: from === 0 ? 'a' : 'b' }));

/** What `mergeRecords(a, b, {}, …)` does to a's fields. */
export function mergeEffect(a: SourceRecord, b: SourceRecord): MergeEffect {
  const differing = suggest(a, b).filter(({ field }) => b[field] !== undefined);
  const where = (test: (s: Suggestion) => boolean) => differing.filter(test).map((s) => s.field);
  return {
    adds: where(({ field }) => a[field] === undefined),
    replaces: where(({ field, side }) => a[field] !== undefined && side === 'b'),
    keeps: where(({ field, side }) => a[field] !== undefined && side === 'a'),
    tags: b.retexa.tags.filter((tag) => !a.retexa.tags.includes(tag)),
    kept: Object.entries(b.retexa.kept).flatMap(([format, fields]) =>
      Object.entries(fields)
        .filter(([field, value]) => value !== AND_OTHERS && a.retexa.kept[format]?.[field] === undefined)
        .map(([field]) => field),
    ),
  };
}

function propose(field: MergeField, a: unknown, b: unknown): Omit<Suggestion, 'field'> {
  const take = (side: Side, why: string, check = false) => ({ side, why, check });
  if (a === undefined) return take('b', 'the only one');
  if (b === undefined) return take('a', 'the only one');
  if (isDateVariable(field)) {
    const [x, y] = [a as CslDate, b as CslDate];
    if (field === 'accessed') return take(laterFirst(x, y), 'the later visit');
    if (datesAgree(x, y)) return take(precisionOf(y) > precisionOf(x) ? 'b' : 'a', 'the fuller one');
    return take('a', 'they disagree', true);
  }
  if (isNameVariable(field)) {
    const [x, y] = [a as CslName[], b as CslName[]];
    const same = x.length === y.length && x.every((n, i) => samePerson(n, y[i]!));
    if (same) return take(nameLength(y) > nameLength(x) ? 'b' : 'a', 'the fuller names');
    return x.length === y.length
      ? take('a', 'they disagree', true)
      : take(y.length > x.length ? 'b' : 'a', 'more names', true);
  }
  const [x, y] = [String(a), String(b)];
  if (field === 'DOI' && doiKey(x) && doiKey(x) === doiKey(y))
    return take(y.length < x.length ? 'b' : 'a', 'the same, bare');
  if (field === 'ISBN') {
    const [mine, theirs] = [isbnKeys(x), isbnKeys(y)];
    if (theirs.length > 0 && theirs.every((isbn) => mine.includes(isbn)) && x.length >= y.length)
      return take('a', mine.length > theirs.length ? 'has the other, too' : 'the same, in thirteen digits');
    if (mine.length > 0 && mine.every((isbn) => theirs.includes(isbn)))
      return take('b', theirs.length > mine.length ? 'has the other, too' : 'the same, in thirteen digits');
  }
  if (field === 'type')
    return take(
      CSL_TYPES.indexOf(x as never) <= 0 || x === 'webpage' || x === 'document' ? 'b' : 'a',
      'the more telling type',
    );
  if (isShouting(x) !== isShouting(y)) return take(isShouting(x) ? 'b' : 'a', 'not in capitals');
  if (fold(x) === fold(y)) return take(x.length >= y.length ? 'a' : 'b', 'alike but for marks');
  if (fold(x).startsWith(fold(y)) || fold(y).startsWith(fold(x)))
    return take(x.length >= y.length ? 'a' : 'b', 'the longer one', field === 'page');
  return take('a', 'they disagree', field !== 'URL');
}

const laterFirst = (x: CslDate, y: CslDate): Side =>
  JSON.stringify(y['date-parts']) > JSON.stringify(x['date-parts']) ? 'b' : 'a';
/** Letters, marks counting once more: `Ó Súilleabháin` is fuller than `O Suilleabhain`. */
const nameLength = (names: CslName[]) =>
  names
    .map((n) => `${n.family ?? ''}${n.given ?? ''}${n.literal ?? ''}`.normalize('NFD'))
    .join('')
    .replace(/[.\s]/g, '').length;

/** What a field of a merged record is: the value of the record at a place, or one that was typed. */
export type Pick = number | { value: unknown };
export type Picks = Partial<Record<MergeField, Pick>>;

/**
 * One record of several. Fields named in `picks` are what is picked, others that differ as proposed. Origins, tags and kept
 * fields of all are in it, and every value that was not picked is among the origins.
 */
export function mergeAll(records: readonly SourceRecord[], picks: Picks, at: string): SourceRecord {
  const merged: Record<string, unknown> = Object.assign({}, ...[...records].reverse());
  const origins: Record<string, Seen[]> = {};
  for (const { retexa } of records)
    for (const [field, seen] of Object.entries(retexa.origins))
      origins[field] = joined(origins[field] ?? [], seen);
  const differing = new Map(proposals(records).map((p) => [p.field, p.from]));
  const picked = FIELDS.filter((field) => picks[field] !== undefined);
  for (const field of new Set([...differing.keys(), ...picked])) {
    const pick = picks[field] ?? differing.get(field)!;
    const value = typeof pick === 'number' ? records[pick]?.[field] : pick.value;
    if (value === undefined) delete merged[field];
    else merged[field] = value;
    for (const seen of [...records.map((r) => r[field]), value])
      if (seen !== undefined && !(origins[field] ?? []).some((s) => sameValue(s.value, seen)))
        origins[field] = [...(origins[field] ?? []), { kind: 'person', value: seen, at }];
  }
  const kept: Own['kept'] = {};
  for (const { retexa } of records)
    for (const [format, fields] of Object.entries(retexa.kept)) kept[format] = { ...fields, ...kept[format] };
  const tags = [...new Set(records.flatMap((r) => r.retexa.tags))];
  // What stands is kept with its value: where another value was taken, it is asked again.
  const sic = records.flatMap((r) => r.retexa.sic ?? []).slice(0, 100);
  const credibility = joinedCredibility(records.map((r) => r.retexa.credibility));
  const whole = {
    ...(merged as SourceRecord),
    retexa: { origins, tags, kept, ...(sic.length ? { sic } : {}), ...(credibility ? { credibility } : {}) },
  };
  // Of one title in one language, that of the first record stands.
  return withTranslations(whole, [...records].reverse().flatMap(translationsOf));
}

/** One record of two: `mergeAll` with the sides named. */
export function mergeRecords(
  a: SourceRecord,
  b: SourceRecord,
  picks: Partial<Record<MergeField, Side>>,
  at: string,
): SourceRecord {
  const places = Object.entries(picks).map(([field, side]) => [field, side === 'a' ? 0 : 1]);
  return mergeAll([a, b], Object.fromEntries(places) as Picks, at);
}

/**
 * The value that text typed for a field stands for, or nothing when it is none: names one a line or between semicolons, a
 * date in any usual spelling, a type by its name. Empty text takes the value away and gives `{ value: undefined }`.
 */
export function typedValue(field: MergeField, text: string): { value: unknown } | undefined {
  const clean = text.trim();
  if (clean === '') return field === 'type' ? undefined : { value: undefined };
  if (field === 'type') return CSL_TYPES.some((type) => type === clean) ? { value: clean } : undefined;
  if (isDateVariable(field)) {
    const date = typedDate(clean);
    return date && { value: date };
  }
  if (isNameVariable(field)) {
    const names = parseNames(clean);
    return names.length > 0 ? { value: names } : undefined;
  }
  return { value: clean };
}

/**
 * The record of a survivor when a merge is taken back: as it was before, and what was edited since the merge as it is now.
 * Gives the fields that stay edited.
 */
export function withoutMerge(
  before: SourceRecord,
  merged: SourceRecord,
  present: SourceRecord,
): { record: SourceRecord; edited: MergeField[] } {
  const edited = FIELDS.filter((f) => !sameValue(merged[f], present[f]));
  const record: Record<string, unknown> = { ...before };
  const origins = { ...before.retexa.origins };
  for (const field of edited) {
    if (present[field] === undefined) delete record[field];
    else record[field] = present[field];
    if (present.retexa.origins[field]) origins[field] = present.retexa.origins[field];
  }
  const added = present.retexa.tags.filter((tag) => !merged.retexa.tags.includes(tag));
  const tags = [
    ...before.retexa.tags.filter(
      (tag) => present.retexa.tags.includes(tag) || !merged.retexa.tags.includes(tag),
    ),
    ...added.filter((tag) => !before.retexa.tags.includes(tag)),
  ];
  const [was, is] = [merged.retexa.credibility, present.retexa.credibility];
  const credibility = sameValue(was, is) ? before.retexa.credibility : is;
  const { credibility: _before, ...retexa } = before.retexa;
  const [told, tells] = [translationsOf(merged), translationsOf(present)];
  return {
    record: withTranslations(
      {
        ...(record as SourceRecord),
        retexa: { ...retexa, origins, tags, ...(credibility ? { credibility } : {}) },
      },
      sameValue(told, tells) ? translationsOf(before) : tells,
    ),
    edited,
  };
}

function joined(a: Seen[], b: Seen[]): Seen[] {
  return [...a, ...b.filter((s) => !a.some((t) => sameValue(s, t)))].slice(0, 40);
}
