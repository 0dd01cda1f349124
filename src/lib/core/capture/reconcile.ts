import { fold, isShouting } from '../text';
import {
  datesAgree,
  emptyRecord,
  ORIGIN_LABELS,
  precisionOf,
  samePerson,
  sameValue,
  type CslDate,
  type CslName,
  type CslType,
  type OriginKind,
  type Seen,
  type SourceRecord,
  isDateVariable,
  isNameVariable,
} from '../source';
import type { Candidate } from './candidate';

/** Origins from the most trusted to the least, for every field not named in `TRUST_FOR`. Our own practice. */
const TRUST: OriginKind[] = [
  'person',
  'file',
  'registry',
  'highwire',
  'json-ld',
  'dublin-core',
  'open-graph',
  'html',
];

/** Fields for which another order holds: the page knows its own address and language better than a registry does. */
const TRUST_FOR: Record<string, OriginKind[]> = {
  URL: ['html', 'highwire', 'json-ld', 'open-graph', 'dublin-core', 'registry'],
  abstract: ['highwire', 'dublin-core', 'registry', 'json-ld', 'open-graph', 'html'],
};

interface Choice {
  value: unknown;
  why: string;
}

const rank = (field: string, kind: OriginKind) => {
  const at = (TRUST_FOR[field] ?? TRUST).indexOf(kind);
  return at === -1 ? 99 : at;
};

const givenLength = (names: CslName[]) =>
  names.reduce((n, name) => n + (name.given?.replace(/\./g, '').length ?? 0), 0);
const shouted = (names: CslName[]) => names.some((n) => isShouting(`${n.family ?? ''} ${n.given ?? ''}`));

/** Reasons to prefer a less trusted value that says the same thing better. */
function better(field: string, top: Candidate, other: Candidate): string | undefined {
  const [a, b] = [top.value, other.value];
  if (field === 'title' && typeof a === 'string' && typeof b === 'string')
    return isShouting(a) && !isShouting(b) && fold(a) === fold(b)
      ? 'the same title, not in capitals'
      : undefined;
  if (field === 'abstract' && typeof a === 'string' && typeof b === 'string') {
    const start = fold(a.replace(/(?:…|\.\.\.)$/, ''));
    return b.length > a.length && start.length > 20 && fold(b).startsWith(start)
      ? 'the whole of a shortened abstract'
      : undefined;
  }
  if (isDateVariable(field)) {
    const [x, y] = [a as CslDate, b as CslDate];
    return precisionOf(y) > precisionOf(x) && datesAgree(x, y) ? 'the fuller date' : undefined;
  }
  if (isNameVariable(field)) {
    const [x, y] = [a as CslName[], b as CslName[]];
    const same = x.length === y.length && x.every((n, i) => samePerson(n, y[i]!));
    if (same && shouted(x) && !shouted(y)) return 'the same names, not in capitals';
    if (same && givenLength(y) > givenLength(x) && !shouted(y))
      return 'the same people with fuller given names';
  }
  return undefined;
}

/** Chooses one value for a field from its candidates, which must not be empty. */
function choose(field: string, candidates: Candidate[]): Choice {
  const ordered = [...candidates].sort((a, b) => rank(field, a.kind) - rank(field, b.kind));
  let top = ordered[0]!;
  let why =
    ordered.length === 1
      ? 'the only one'
      : ordered.every((c) => sameValue(c.value, top.value))
        ? 'all agree'
        : `${ORIGIN_LABELS[top.kind]} comes first`;
  for (const other of ordered.slice(1)) {
    const reason = better(field, top, other);
    if (reason) [top, why] = [other, reason];
  }
  return { value: top.value, why };
}

/**
 * One record from all candidates. Every candidate becomes an origin of its field; the chosen one says why.
 * `web page`, which every page claims, is taken as the type only when nothing says more.
 */
export function reconcile(candidates: Candidate[], address: string | undefined, at: string): SourceRecord {
  const types = candidates.filter((c) => c.field === 'type');
  const telling = types.filter((c) => c.kind !== 'html' && c.value !== 'webpage' && c.value !== 'document');
  const type = choose('type', telling.length ? telling : types.length ? types : [UNKNOWN_TYPE]);
  const record: Record<string, unknown> = emptyRecord(type.value as CslType);
  const origins: Record<string, Seen[]> = {};
  const fields = new Map<string, Candidate[]>();
  for (const c of candidates) {
    if (c.field === 'type' && telling.length && !telling.includes(c)) continue;
    fields.set(c.field, [...(fields.get(c.field) ?? []), c]);
  }
  for (const [field, list] of fields) {
    const choice = field === 'type' ? type : choose(field, list);
    record[field] = choice.value;
    let noted = false;
    origins[field] = list.slice(0, 40).map((c) => {
      const chosen = !noted && sameValue(c.value, choice.value);
      noted ||= chosen;
      return {
        kind: c.kind,
        value: c.value,
        at,
        ...(address ? { address } : {}),
        ...(chosen
          ? { why: c.note ? `${c.note}: ${choice.why}` : choice.why }
          : c.note
            ? { why: c.note }
            : {}),
      };
    });
  }
  return { ...(record as SourceRecord), retexa: { origins, tags: [], kept: {} } };
}

const UNKNOWN_TYPE: Candidate = { field: 'type', value: 'document', kind: 'html' };
