import { fold, foldWords, isShouting, squash, withoutTrailing } from '../text';
import {
  creatorsOf,
  datesAgree,
  emptyRecord,
  nameText,
  ORIGIN_LABELS,
  precisionOf,
  samePerson,
  sameValue,
  yearOf,
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
  'linked',
  'highwire',
  'prism',
  'json-ld',
  'microdata',
  'rdfa',
  'coins',
  'dublin-core',
  'document',
  'reference',
  'open-graph',
  'html',
];

/** Fields for which another order holds: the page knows its own address and language better than a registry does. */
const TRUST_FOR: Record<string, OriginKind[]> = {
  URL: [
    'html',
    'highwire',
    'json-ld',
    'microdata',
    'rdfa',
    'prism',
    'open-graph',
    'dublin-core',
    'coins',
    'linked',
    'registry',
    'document',
  ],
  abstract: [
    'highwire',
    'dublin-core',
    'registry',
    'linked',
    'json-ld',
    'microdata',
    'rdfa',
    'open-graph',
    'document',
    'html',
  ],
  'container-title': [
    'registry',
    'linked',
    'highwire',
    'prism',
    'json-ld',
    'microdata',
    'rdfa',
    'coins',
    'document',
    'dublin-core',
    'open-graph',
    'html',
  ],
};

/** Types of works that live on a site and nowhere else: the site's name is where they appeared. */
const OF_A_SITE = new Set<CslType>([
  'webpage',
  'post-weblog',
  'post',
  'article-newspaper',
  'article-magazine',
  'entry-encyclopedia',
  'entry-dictionary',
  'document',
]);
/** Types that appear in nothing else: what names a container for them names an archive or a series. */
const ALONE = new Set<CslType>([
  'thesis',
  'book',
  'report',
  'dataset',
  'software',
  'motion_picture',
  'map',
  'manuscript',
  'patent',
  'standard',
  'legislation',
]);

/** What all candidates of a page say together, for rules that look beyond one field. */
interface Setting {
  type: CslType;
  address: string | undefined;
  /** Folded names of the site and of its publisher. */
  siteNames: Set<string>;
}

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
const ofSite = (c: Candidate) => c.kind === 'open-graph' || c.kind === 'html';
const isSite = (names: CslName[], setting: Setting) =>
  names.length === 1 &&
  setting.siteNames.has(
    fold(names[0]!.literal ?? [names[0]!.given, names[0]!.family].filter(Boolean).join(' ')),
  );

/** Why a candidate can never be the value of its field, or nothing. It stays to be seen as an alternative. */
function unfit(c: Candidate, setting: Setting): string | undefined {
  const { type, address } = setting;
  if (c.field === 'container-title') {
    if (ofSite(c) && !OF_A_SITE.has(type)) return 'names the site, not where the work appeared';
    if (ALONE.has(type) && c.kind !== 'registry' && c.kind !== 'linked')
      return 'names what keeps it, not where it appeared';
  }
  if (c.field === 'event-title' && type !== 'paper-conference' && type !== 'speech') return 'no conference';
  if (c.field === 'abstract' && c.kind === 'open-graph' && type === 'webpage') return 'a teaser';
  if (c.field === 'URL' && typeof c.value === 'string') {
    if (!URL.canParse(c.value)) return 'not an address';
    const url = new URL(c.value);
    if (/\.pdf$/i.test(url.pathname) && address && !/\.pdf$/i.test(new URL(address).pathname))
      return 'leads to the PDF';
    if (url.pathname === '/' && !url.search && address && new URL(address).pathname !== '/')
      return 'leads to the front page';
    if (/doi\.(?:org|example)$/.test(url.host)) return 'the DOI says it';
  }
  if (isNameVariable(c.field) && type === 'article-newspaper' && isSite(c.value as CslName[], setting))
    return 'the paper, not a person';
  if (c.field === 'title' && typeof c.value === 'string' && setting.siteNames.has(fold(c.value)) && ofSite(c))
    return 'the site’s name';
  return undefined;
}

/** Reasons to prefer a less trusted value that says the same thing better. */
function better(field: string, top: Candidate, other: Candidate, setting: Setting): string | undefined {
  const [a, b] = [top.value, other.value];
  if (field === 'type')
    return a === 'article-journal' && (b === 'review-book' || b === 'review')
      ? 'an article, and more exactly a review'
      : undefined;
  if (field === 'title' && typeof a === 'string' && typeof b === 'string') {
    if (isShouting(a) && !isShouting(b) && fold(a) === fold(b)) return 'the same title, not in capitals';
    const cut = /(?:…|\.\.\.)$/.test(a) ? withoutTrailing(a, '…. ') : a;
    if (cut !== a && cut.length > 8 && fold(b).startsWith(fold(cut)) && b.length > cut.length)
      return 'the whole of a shortened title';
    const tail = b.slice(a.length);
    if (
      b.startsWith(a) &&
      a.includes(' ') &&
      /^\s*[:–—]\s+\S+\s+\S/.test(tail) &&
      !setting.siteNames.has(fold(tail))
    )
      return 'the same title with its subtitle';
    return undefined;
  }
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
    if (top.kind !== 'registry' && y.length > x.length && x.every((n, i) => samePerson(n, y[i]!)))
      return 'the same people and those left out';
    if (isSite(x, setting) && !isSite(y, setting)) return 'a person, not the site';
  }
  return undefined;
}

/** Chooses one value for a field from its candidates, which must not be empty. */
function choose(field: string, candidates: Candidate[], setting: Setting): Choice {
  const ordered = [...candidates].sort((a, b) => rank(field, a.kind) - rank(field, b.kind));
  let top = ordered[0]!;
  let why =
    ordered.length === 1
      ? 'the only one'
      : ordered.every((c) => sameValue(c.value, top.value))
        ? 'all agree'
        : `${ORIGIN_LABELS[top.kind]} comes first`;
  for (const other of ordered.slice(1)) {
    const reason = better(field, top, other, setting);
    if (reason) [top, why] = [other, reason];
  }
  return { value: top.value, why };
}

/** Creators of a page of a site without the site itself, which templates add to the people who wrote it. */
function withoutTheSite(candidates: Candidate[], { siteNames, type }: Setting): Candidate[] {
  if (!OF_A_SITE.has(type)) return candidates;
  return candidates.map((c) => {
    if (!isNameVariable(c.field)) return c;
    const names = c.value as CslName[];
    const people = names.filter((n) => !n.literal || !siteNames.has(fold(n.literal)));
    return people.length > 0 && people.length < names.length
      ? { ...c, value: people, note: `${c.note ?? c.field}, without the site itself` }
      : c;
  });
}

/** Longest title in which the name of a site is looked for, in characters. */
const LONGEST_TITLE = 1_000;

/** Titles without the name of the site at their end, where the page itself says what the site is called. */
function withoutSiteNames(candidates: Candidate[], siteNames: Set<string>): Candidate[] {
  return candidates.map((c) => {
    if (c.field !== 'title' || typeof c.value !== 'string' || c.value.length > LONGEST_TITLE) return c;
    const m = /^(.+?)\s*(?:\||\s[-–—·»:•])\s+([^|]+)$/u.exec(squash(c.value));
    if (!m || !siteNames.has(fold(m[2]!)) || foldWords(m[1]!).length < 2) return c;
    return { ...c, value: m[1]!, note: `${c.note ?? 'title'}, without the site’s name` };
  });
}

function siteNamesOf(candidates: Candidate[]): Set<string> {
  const names = candidates.filter(
    (c) => (c.field === 'container-title' || c.field === 'publisher') && c.kind !== 'registry',
  );
  return new Set(names.map((c) => fold(String(c.value))).filter(Boolean));
}

/** Days of handling that pages put where the day of publication belongs: a later one gives way to an earlier year. */
function uploadDates(candidates: Candidate[], type: CslType): Set<Candidate> {
  const late = new Set<Candidate>();
  const dates = candidates.filter((c) => c.field === 'issued');
  const sure = dates
    .filter((c) => ['registry', 'linked', 'highwire', 'prism', 'coins'].includes(c.kind))
    .map((c) => yearOf(c.value as CslDate));
  if (OF_A_SITE.has(type) || sure.length === 0) return late;
  const earliest = Math.min(...sure.filter((y) => y !== undefined));
  for (const c of dates) {
    const year = yearOf(c.value as CslDate);
    if (year !== undefined && year > earliest + 1 && !['registry', 'linked'].includes(c.kind)) late.add(c);
  }
  return late;
}

/** ORCIDs that came with names the record has, whichever origin gave them. */
function orcidsIn(record: SourceRecord, candidates: Candidate[]): Record<string, string> {
  const given = new Map(candidates.flatMap(({ orcids = {} }) => Object.entries(orcids)));
  const names = creatorsOf(record).flatMap((creator) => creator.names.map(nameText));
  return Object.fromEntries(
    names.flatMap((name) => (given.has(name) ? [[name, given.get(name)!] as const] : [])),
  );
}

/**
 * One record from all candidates. Every candidate becomes an origin of its field; the chosen one says why.
 * `web page`, which every page claims, is taken as the type only when nothing says more.
 */
export function reconcile(given: Candidate[], address: string | undefined, at: string): SourceRecord {
  const siteNames = siteNamesOf(given);
  const titled = withoutSiteNames(given, siteNames);
  const types = titled.filter((c) => c.field === 'type');
  const telling = types.filter((c) => c.value !== 'webpage' && c.value !== 'document');
  const offered = telling.length ? telling : types.length ? types : [UNKNOWN_TYPE];
  const blank: Setting = { type: 'document', address, siteNames };
  const type = choose('type', offered, blank);
  const setting: Setting = { ...blank, type: type.value as CslType };
  const candidates = withoutTheSite(titled, setting);
  const record: Record<string, unknown> = emptyRecord(setting.type);
  const origins: Record<string, Seen[]> = {};
  const late = uploadDates(candidates, setting.type);
  const fields = new Map<string, Candidate[]>();
  for (const c of candidates) {
    if (c.field === 'type' && telling.length && !telling.includes(c)) continue;
    fields.set(c.field, [...(fields.get(c.field) ?? []), c]);
  }
  for (const [field, list] of fields) {
    const reasons = new Map(list.map((c) => [c, late.has(c) ? 'a day of upload' : unfit(c, setting)]));
    const fit = list.filter((c) => !reasons.get(c));
    const choice = field === 'type' ? type : fit.length ? choose(field, fit, setting) : undefined;
    if (choice) record[field] = choice.value;
    let noted = false;
    origins[field] = list.slice(0, 40).map((c) => {
      const chosen = choice !== undefined && !noted && !reasons.get(c) && sameValue(c.value, choice.value);
      noted ||= chosen;
      const reason = reasons.get(c);
      const why = [c.note, chosen ? choice.why : reason && `not taken, ${reason}`].filter(Boolean).join(': ');
      return {
        kind: c.kind,
        value: c.value,
        at,
        ...(address ? { address } : {}),
        ...(why ? { why: why.slice(0, 400) } : {}),
      };
    });
  }
  const orcids = orcidsIn(record as SourceRecord, candidates);
  return {
    ...(record as SourceRecord),
    retexa: { origins, tags: [], kept: {}, ...(Object.keys(orcids).length ? { orcids } : {}) },
  };
}

const UNKNOWN_TYPE: Candidate = { field: 'type', value: 'document', kind: 'html' };
