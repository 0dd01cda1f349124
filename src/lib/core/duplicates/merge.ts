import { isShouting, fold } from '../text';
import {
  AND_OTHERS,
  CSL_TYPES,
  DATE_VARIABLES,
  datesAgree,
  isDateVariable,
  isNameVariable,
  NAME_VARIABLES,
  NUMBER_VARIABLES,
  precisionOf,
  samePerson,
  sameValue,
  TEXT_VARIABLES,
  type CslDate,
  type CslName,
  type Seen,
  type SourceRecord,
  type Variable,
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

/** Fields both records have with the same value. */
export function agreeing(a: SourceRecord, b: SourceRecord): MergeField[] {
  return FIELDS.filter((f) => a[f] !== undefined && sameValue(a[f], b[f]));
}

/** A proposal for every field in which the two records differ, in reading order. */
export function suggest(a: SourceRecord, b: SourceRecord): Suggestion[] {
  return FIELDS.filter((f) => !sameValue(a[f], b[f]))
    .map((field) => ({ field, ...propose(field, a[field], b[field]) }))
    .sort((x, y) => alphabetical(x.field) - alphabetical(y.field));
}

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

/**
 * One record of two. Fields named in `picks` come from the side picked, others that differ from the side proposed.
 * Origins, tags and kept fields of both are in it, and every value that was not picked is among the origins.
 */
export function mergeRecords(
  a: SourceRecord,
  b: SourceRecord,
  picks: Partial<Record<MergeField, Side>>,
  at: string,
): SourceRecord {
  const merged: Record<string, unknown> = { ...b, ...a };
  const origins: Record<string, Seen[]> = {};
  for (const field of new Set([...Object.keys(a.retexa.origins), ...Object.keys(b.retexa.origins)]))
    origins[field] = joined(a.retexa.origins[field] ?? [], b.retexa.origins[field] ?? []);
  for (const { field, side } of suggest(a, b)) {
    const [kept, other] = (picks[field] ?? side) === 'a' ? [a, b] : [b, a];
    if (kept[field] === undefined) delete merged[field];
    else merged[field] = kept[field];
    for (const value of [other[field], kept[field]])
      if (value !== undefined && !(origins[field] ?? []).some((s) => sameValue(s.value, value)))
        origins[field] = [...(origins[field] ?? []), { kind: 'person', value, at }];
  }
  const kept = { ...b.retexa.kept };
  for (const [format, fields] of Object.entries(a.retexa.kept)) kept[format] = { ...kept[format], ...fields };
  return {
    ...(merged as SourceRecord),
    retexa: { origins, tags: [...new Set([...a.retexa.tags, ...b.retexa.tags])], kept },
  };
}

function joined(a: Seen[], b: Seen[]): Seen[] {
  return [...a, ...b.filter((s) => !a.some((t) => sameValue(s, t)))].slice(0, 40);
}
