import {
  matchContainers,
  matchPages,
  matchPeople,
  matchTitles,
  type ContainerLevel,
  type PagesLevel,
  type PeopleLevel,
  type TitleLevel,
  type TitleMatch,
} from './fields';
import { partOf, RELATION_LABELS, relationOf, type Relation } from './relations';
import type { Signature } from './signature';
import { within } from './strings';

/** What is said of a pair: surely one work, for a person to decide, or two works. */
export type Verdict = 'sure' | 'decide' | 'different';

/** A judgement of a pair, with the reasons a person is shown. */
export interface Judgement {
  verdict: Verdict;
  /** How probable it is that the two are one work, 0 to 1. */
  score: number;
  reasons: string[];
  /** For two works that belong together. */
  relation?: Relation;
}

/** How often values are met among the records that are looked through. */
export interface Commonness {
  /** How many records have a title, by its whole in comparison form; 1 where that is not known. */
  titles(whole: string): number;
  /** How many have a first creator of a family name. */
  families(family: string): number;
}

/** Nothing is known of how often values are met. */
export const UNCOMMON: Commonness = { titles: () => 1, families: () => 1 };

/**
 * Weights of agreement and disagreement, field by field, in bits: how much more often it is met among records of one work
 * than among others that share a key, as a logarithm to base 2, added up as for fields that are independent (Fellegi and
 * Sunter, "A Theory for Record Linkage", 1969: weights log2(m/u)). The values are not counted but set by hand, from what the
 * half of the measuring set that was looked at got wrong (tests/doubles); where fields depend on one another, as volume and
 * year do, they are less than they would be alone.
 */
const WEIGHTS = {
  /** How probable one work is before anything is compared, for two records that share a key. */
  before: -8,
  title: {
    same: 4,
    mistyped: 3.5,
    shortened: 2.5,
    translated: 2.5,
    close: -2,
    different: -11,
    missing: -3,
  } satisfies Record<TitleLevel, number>,
  /** For each telling word of titles that agree, up to `words`. */
  titleWord: 1.5,
  words: 6,
  people: { all: 5, first: 4, some: 1, none: -8, missing: -1 } satisfies Record<PeopleLevel, number>,
  /** For each further person, up to four. */
  morePeople: 1,
  year: { same: 2.5, next: -1, nextReport: -12, apart: -11, missing: 0 },
  container: { same: 2, shortened: 2, close: 1, different: -4, missing: 0 } satisfies Record<
    ContainerLevel,
    number
  >,
  volume: { same: 2.5, different: -10 },
  /** Volumes and parts of a work in several. */
  ofBooks: { same: 1.5, different: -20 },
  issue: { same: 1.5, different: -7 },
  pages: { same: 5, first: 3, inside: -1, different: -12, missing: 0 },
  publisher: { same: 1, different: -1 },
  number: { same: 3, different: -8 },
  edition: { same: 1, different: -12, one: -2 },
  doi: { same: 13, mistyped: 5, different: -10 },
  isbn: { same: 10, different: -2 },
  pmid: { same: 13, different: -12 },
  arxiv: { same: 10, different: -10 },
  address: { same: 9, different: -3 },
  day: { same: 1.5, different: -4 },
  /** A title of one telling word is shared by chance more often than its words say. */
  oneWord: -3,
  numbersInTitle: -18,
  notice: -15,
  oneVolume: -13,
  /** Volume, first page and serial together are the place of one piece. */
  place: 2,
};

/** From where a pair is surely one work, and from where it is for a person to decide; in bits. */
const SURE = 6.5;
const DECIDE = 1;

const PARTS = new Set(['chapter', 'paper']);

/** Titles that many records have tell little: a word of weight less for each doubling over two. */
const commonTitle = (n: number) => Math.max(0, Math.log2(Math.max(1, n / 2)) - 0.5) * 1.3;
/** A family name that few have tells more, one that hundreds have less. */
const commonFamily = (n: number) => Math.min(1.5, Math.max(-1.5, (4 - Math.log2(Math.max(1, n))) / 2));

/** Judges whether two records are of one work. Symmetric: which of them is given first has no effect. */
export const judgePair = (a: Signature, b: Signature, common: Commonness = UNCOMMON): Judgement =>
  comesFirst(a, b) ? judgeInOrder(a, b, common) : judgeInOrder(b, a, common);

/** An order of signatures that goes by what they say: words that are each like several others match as they are met. */
function comesFirst(a: Signature, b: Signature): boolean {
  for (const of of ['doi', 'address', 'firstPage', 'volume', 'issue', 'container', 'number'] as const)
    if (a[of] !== b[of]) return a[of] < b[of];
  if (a.title.whole !== b.title.whole) return a.title.whole < b.title.whole;
  if (a.year !== b.year) return (a.year ?? 0) < (b.year ?? 0);
  return JSON.stringify(a) <= JSON.stringify(b);
}

/** What was found for and against, as it adds up. */
interface Evidence {
  bits: number;
  reasons: string[];
  /** What tells the two apart; a container alone may be given in two ways that nothing knows of. */
  apart: { words: string; telling: boolean }[];
}

/** How the fields of two signatures agree. */
interface Agreement {
  a: Signature;
  b: Signature;
  title: TitleMatch;
  titled: boolean;
  people: PeopleLevel;
  pages: PagesLevel;
  container: ContainerLevel;
  sameSerial: boolean;
  sameDoi: boolean;
  sharedIsbns: number;
  /** How many records have the title, and how many the family name of the first creator. */
  often: number;
  named: number;
}

const W = WEIGHTS;
const agrees = (x: string, y: string) => x !== '' && x === y;
const differs = (x: string, y: string) => x !== '' && y !== '' && x !== y;
const either = ({ a, b }: Agreement, test: (s: Signature) => boolean) => test(a) || test(b);

function judgeInOrder(a: Signature, b: Signature, common: Commonness): Judgement {
  const title = matchTitles(a.title, b.title);
  const people =
    a.authored === b.authored || a.people.length === 0 || b.people.length === 0
      ? matchPeople(a.people, b.people)
      : withEditors(a, b);
  const pages = matchPages(a, b);
  if (title.level === 'different' && pages !== 'same' && pages !== 'first' && !sharesIdentifier(a, b))
    return partOf(a, b)
      ? ofRelation('part')
      : { verdict: 'different', score: 0, reasons: ['different titles'] };
  const relation = relationOf(a, b, title, people);
  if (relation) return ofRelation(relation);
  const container = matchContainers(a, b);
  const found: Agreement = {
    a,
    b,
    title,
    titled: title.level !== 'different' && title.level !== 'missing' && title.level !== 'close',
    people,
    pages,
    container,
    sameSerial: container === 'same' || container === 'shortened' || agrees(a.issn, b.issn),
    sameDoi: agrees(a.doi, b.doi),
    sharedIsbns: a.isbns.filter((isbn) => b.isbns.includes(isbn)).length,
    often: Math.max(common.titles(a.title.whole), common.titles(b.title.whole)),
    named: common.families(a.people[0]?.family ?? ''),
  };
  const evidence: Evidence = { bits: W.before, reasons: [], apart: [] };
  for (const weigh of [byIdentifiers, byTitle, byPeople, byDate, byPlace, byEdition, byKind])
    weigh(found, evidence);
  return judgementOf(found, evidence);
}

const speaksFor = (e: Evidence, bits: number, reason?: string) => {
  e.bits += bits;
  if (reason) e.reasons.push(reason);
};
const tellsApart = (e: Evidence, bits: number, words: string, telling = true) => {
  e.bits += bits;
  e.apart.push({ words, telling });
};

function byIdentifiers(found: Agreement, e: Evidence): void {
  const { a, b, title, pages, sameDoi, sharedIsbns } = found;
  const titlesApart = title.level === 'different';
  if (sameDoi && titlesApart && (pages === 'different' || either(found, (s) => PARTS.has(s.family))))
    tellsApart(e, W.title.different, 'the DOI is that of the whole');
  else if (sameDoi) speaksFor(e, W.doi.same, 'same DOI');
  else if (differs(a.doi, b.doi)) {
    const slip = a.doi.length > 8 && within(a.doi, b.doi, 1);
    if (slip && found.titled && pages !== 'different')
      speaksFor(e, W.doi.mistyped, 'DOIs alike but for one character');
    else tellsApart(e, W.doi.different, 'different DOIs');
  }
  if (sharedIsbns > 0 && !either(found, (s) => PARTS.has(s.family))) speaksFor(e, W.isbn.same, 'same ISBN');
  else if (a.isbns.length > 0 && b.isbns.length > 0 && sharedIsbns === 0)
    tellsApart(e, W.isbn.different, 'different ISBNs');
  for (const [name, x, y, weight] of [
    ['PubMed number', a.pmid, b.pmid, W.pmid],
    ['arXiv number', a.arxiv, b.arxiv, W.arxiv],
  ] as const) {
    if (agrees(x, y)) speaksFor(e, weight.same, `same ${name}`);
    else if (differs(x, y)) tellsApart(e, weight.different, `different ${name}s`);
  }
  const online = a.family === b.family && (a.family === 'page' || a.family === 'news');
  if (agrees(a.address, b.address)) speaksFor(e, W.address.same, 'same address');
  else if (online && differs(a.address, b.address)) tellsApart(e, W.address.different, 'different addresses');
}

function byTitle({ a, b, title, titled, sameDoi, often }: Agreement, e: Evidence): void {
  const { level, numbersDiffer } = title;
  if (titled) {
    const words = Math.min(a.title.words.length, b.title.words.length, W.words);
    const says = W.title[level] + words * W.titleWord + (words < 2 ? W.oneWord : 0);
    // That a title is common takes from what its agreement says, and says nothing against.
    speaksFor(e, Math.max(0, says - commonTitle(often)), TITLE_WORDS[level as keyof typeof TITLE_WORDS]);
  } else if (level === 'different') tellsApart(e, W.title.different, 'different titles');
  else speaksFor(e, W.title[level], level === 'close' ? 'titles alike in most words' : undefined);
  if (sameDoi) return;
  if (numbersDiffer) tellsApart(e, W.numbersInTitle, 'different numbers in the title');
  if (a.title.notice !== b.title.notice) tellsApart(e, W.notice, 'one speaks of the other');
}

function byPeople({ a, b, people, named }: Agreement, e: Evidence): void {
  if (people === 'none') return tellsApart(e, W.people.none, 'different authors');
  if (people !== 'all' && people !== 'first') return speaksFor(e, W.people[people]);
  const more = Math.min(4, Math.min(a.people.length, b.people.length) - 1) * W.morePeople;
  const all = a.people.length > 1 ? 'same authors' : 'same author';
  speaksFor(e, W.people[people] + more + commonFamily(named), people === 'all' ? all : 'same first author');
}

function byDate(found: Agreement, e: Evidence): void {
  const { a, b } = found;
  if (a.year === null || b.year === null) return;
  const years = Math.abs(a.year - b.year);
  // What an institution publishes every year, and what a paper prints every day.
  const serial = either(
    found,
    (s) => s.family === 'report' || s.family === 'news' || s.people[0]?.institution === true,
  );
  if (years === 0) speaksFor(e, W.year.same, 'same year');
  else if (years === 1) speaksFor(e, serial ? W.year.nextReport : W.year.next, 'years next to one another');
  else tellsApart(e, W.year.apart, 'different years');
  if (!a.day || !b.day || !either(found, (s) => s.family === 'news' || s.family === 'page')) return;
  if (a.day === b.day) speaksFor(e, W.day.same);
  else tellsApart(e, W.day.different, 'different days');
}

function byPlace(found: Agreement, e: Evidence): void {
  const { a, b, container, sameSerial, pages, title, often } = found;
  if (sameSerial)
    speaksFor(
      e,
      W.container.same,
      container === 'shortened' ? 'same container, abbreviated' : 'same container',
    );
  else if (!either(found, (s) => s.family === 'page')) {
    if (container === 'different') tellsApart(e, W.container.different, 'different containers', false);
    else speaksFor(e, W.container[container]);
  }
  const books = either(found, (s) => s.family === 'book');
  for (const [name, x, y, weight] of [
    ['volume', a.volume, b.volume, books ? W.ofBooks : W.volume],
    ['issue', a.issue, b.issue, W.issue],
    ['number', a.number, b.number, W.number],
    ['part', a.part, b.part, W.ofBooks],
  ] as const) {
    if (agrees(x, y)) speaksFor(e, weight.same, name === 'number' ? 'same number' : undefined);
    else if (differs(x, y)) tellsApart(e, weight.different, `different ${name}s`);
    else if (x !== y && name === 'volume' && books) tellsApart(e, W.oneVolume, 'one is a volume');
  }
  if (pages === 'different') return tellsApart(e, W.pages.different, 'different pages');
  speaksFor(e, W.pages[pages]);
  if (pages !== 'same' && pages !== 'first') return;
  // A title that many bear tells little; a page does as much again.
  speaksFor(e, Math.min(3, commonTitle(often)), pages === 'same' ? 'same pages' : 'same first page');
  if (agrees(a.volume, b.volume) && sameSerial && title.level !== 'different') speaksFor(e, W.place);
}

function byEdition({ a, b }: Agreement, e: Evidence): void {
  if (agrees(a.edition, b.edition)) speaksFor(e, W.edition.same);
  else if (differs(a.edition, b.edition)) tellsApart(e, W.edition.different, 'different editions');
  else if (a.edition !== b.edition && (a.edition || b.edition) !== '1') speaksFor(e, W.edition.one);
  if (a.publisher.length === 0 || b.publisher.length === 0) return;
  const same =
    a.publisher.join(' ') === b.publisher.join(' ') ||
    a.publisher.some((w) => w.length > 3 && b.publisher.includes(w));
  speaksFor(e, same ? W.publisher.same : W.publisher.different);
}

/** Kinds that are not one another, whatever their titles. */
function byKind({ a, b, container }: Agreement, e: Evidence): void {
  const bits = kindsApart(a, b, container);
  if (bits !== 0) tellsApart(e, bits, 'different kinds of source');
}

/** One names its editors alone: they are held against the other's editors, where it names them. */
function withEditors(a: Signature, b: Signature): PeopleLevel {
  const [one, other] = a.authored ? [b, a] : [a, b];
  const people = matchPeople(one.people, other.people);
  if (people !== 'none') return people;
  return matchPeople(one.people, other.editors) === 'none' ? 'none' : 'missing';
}

const ofRelation = (relation: Relation): Judgement => ({
  verdict: 'different',
  score: 0,
  reasons: [RELATION_LABELS[relation]],
  relation,
});

const sharesIdentifier = (a: Signature, b: Signature): boolean =>
  (a.doi !== '' && a.doi === b.doi) ||
  (a.address !== '' && a.address === b.address) ||
  (a.pmid !== '' && a.pmid === b.pmid) ||
  (a.arxiv !== '' && a.arxiv === b.arxiv) ||
  a.isbns.some((isbn) => b.isbns.includes(isbn));

const TITLE_WORDS = {
  same: 'same title',
  mistyped: 'titles alike but for a slip',
  shortened: 'same title, one without its subtitle',
  translated: 'title and its translation',
} as const;

function kindsApart(a: Signature, b: Signature, container: ContainerLevel): number {
  if (a.family === b.family) return 0;
  const both = (x: string, y: string) =>
    (a.family === x && b.family === y) || (a.family === y && b.family === x);
  if (both('page', 'preprint') || both('page', 'thesis') || both('page', 'data')) return -7;
  if (a.family === 'page' || b.family === 'page') return 0;
  if (both('article', 'paper')) return container === 'missing' || container === 'different' ? -5 : -1;
  if (both('article', 'news')) return -1;
  if (both('chapter', 'paper')) return -0.5;
  if (both('chapter', 'book')) return -3;
  if (both('thesis', 'article') || both('thesis', 'book') || both('thesis', 'report')) return -8;
  if (a.family === 'review' || b.family === 'review') return -5;
  return -4;
}

/**
 * The judgement that evidence adds up to. Surely one work needs three grounds that do not hang on one another (two where one
 * is an identifier): the title, who wrote it, when, where it stands; and nothing that tells the two apart.
 */
function judgementOf(found: Agreement, { bits, reasons, apart }: Evidence): Judgement {
  const { a, b, titled, people, pages, sameSerial, sameDoi, sharedIsbns } = found;
  const written = people === 'all' || people === 'first';
  const placed = (pages === 'same' || pages === 'first') && (sameSerial || agrees(a.volume, b.volume));
  const identified =
    sameDoi ||
    (sharedIsbns > 0 && titled) ||
    agrees(a.address, b.address) ||
    agrees(a.pmid, b.pmid) ||
    agrees(a.arxiv, b.arxiv);
  const dated = a.year !== null && a.year === b.year;
  const shelved = written && sameSerial && Math.min(a.title.words.length, b.title.words.length) > 3;
  const grounds = [titled, placed, identified, written, dated, shelved].filter(Boolean).length;
  const sure =
    bits >= SURE &&
    grounds >= (identified ? 2 : 3) &&
    !apart.some((against) => against.telling) &&
    (titled || sameDoi);
  const against = apart.map(({ words }) => words);
  const said = [...reasons, ...against.map((words) => `but ${words}`)];
  return {
    verdict: sure ? 'sure' : bits >= DECIDE ? 'decide' : 'different',
    score: 1 / (1 + 2 ** -bits),
    reasons: bits < DECIDE && against.length > 0 ? against : said,
  };
}
