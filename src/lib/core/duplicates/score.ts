import {
  matchContainers,
  matchPages,
  matchPeople,
  matchTitles,
  type ContainerLevel,
  type PeopleLevel,
  type TitleLevel,
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
 * Weights of agreement and disagreement, field by field: the logarithm to base 2 of how much more often it is met among
 * records of one work than among others that share a key (Fellegi and Sunter, "A Theory for Record Linkage", 1969: weights
 * log2(m/u), added up for fields that are independent). The values are set by hand after counting m and u on the half of
 * the measuring set that is looked at; where fields depend on one another (volume and year, pages and issue) less is given
 * than was counted.
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
  address: { same: 9, different: 0 },
  day: { same: 1.5, different: -4 },
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
  const apart: string[] = [];
  const reasons: string[] = [];
  let bits = WEIGHTS.before;
  const W = WEIGHTS;
  const differs = (x: string, y: string) => x !== '' && y !== '' && x !== y;
  const agrees = (x: string, y: string) => x !== '' && x === y;

  // Identifiers, and what they cannot mean.
  const sameDoi = agrees(a.doi, b.doi);
  const titlesApart = title.level === 'different';
  const container = matchContainers(a, b);
  if (sameDoi && titlesApart && (PARTS.has(a.family) || PARTS.has(b.family) || pages === 'different')) {
    apart.push('the DOI is that of the whole');
    bits += W.title.different;
  } else if (sameDoi) {
    bits += W.doi.same;
    reasons.push('same DOI');
  } else if (differs(a.doi, b.doi)) {
    if (
      a.doi.length > 8 &&
      within(a.doi, b.doi, 1) &&
      !titlesApart &&
      pages !== 'different' &&
      title.level !== 'close'
    ) {
      bits += W.doi.mistyped;
      reasons.push('DOIs alike but for one character');
    } else {
      bits += W.doi.different;
      apart.push('different DOIs');
    }
  }
  const isbns = a.isbns.filter((isbn) => b.isbns.includes(isbn)).length;
  if (isbns > 0 && PARTS.has(a.family) === PARTS.has(b.family) && !PARTS.has(a.family)) {
    bits += W.isbn.same;
    reasons.push('same ISBN');
  } else if (a.isbns.length && b.isbns.length && isbns === 0) {
    bits += W.isbn.different;
    apart.push('different ISBNs');
  }
  for (const [name, x, y, weight] of [
    ['PubMed number', a.pmid, b.pmid, W.pmid],
    ['arXiv number', a.arxiv, b.arxiv, W.arxiv],
  ] as const) {
    if (agrees(x, y)) {
      bits += weight.same;
      reasons.push(`same ${name}`);
    } else if (differs(x, y)) {
      bits += weight.different;
      apart.push(`different ${name}s`);
    }
  }
  if (agrees(a.address, b.address)) {
    bits += W.address.same;
    reasons.push('same address');
  } else if (
    differs(a.address, b.address) &&
    a.family === b.family &&
    (a.family === 'page' || a.family === 'news')
  ) {
    bits += -3;
    apart.push('different addresses');
  }

  // Title.
  const often = Math.max(common.titles(a.title.whole), common.titles(b.title.whole));
  if (title.level !== 'different' && title.level !== 'missing' && title.level !== 'close') {
    const words = Math.min(a.title.words.length, b.title.words.length, W.words);
    const says = W.title[title.level] + words * W.titleWord - (words < 2 ? 3 : 0);
    // That a title is common takes from what its agreement says, and says nothing against.
    bits += Math.max(0, says - commonTitle(often));
    reasons.push(TITLE_WORDS[title.level]);
  } else bits += W.title[title.level];
  if (title.level === 'close') reasons.push('titles alike in most words');
  if (titlesApart) apart.push('different titles');
  if (title.numbersDiffer && !sameDoi) {
    bits -= 18;
    apart.push('different numbers in the title');
  }

  if (a.title.notice !== b.title.notice && !sameDoi) {
    bits -= 15;
    apart.push('one speaks of the other');
  }

  // People.
  bits += W.people[people];
  if (people === 'all' || people === 'first') {
    bits += Math.min(4, Math.min(a.people.length, b.people.length) - 1) * W.morePeople;
    bits += commonFamily(common.families(a.people[0]!.family));
    reasons.push(
      people === 'all' ? (a.people.length > 1 ? 'same authors' : 'same author') : 'same first author',
    );
  } else if (people === 'none') apart.push('different authors');

  // When.
  if (a.year !== null && b.year !== null) {
    const years = Math.abs(a.year - b.year);
    // What an institution publishes every year, and what a paper prints every day.
    const serial = [a, b].some(
      (s) => s.family === 'report' || s.family === 'news' || s.people[0]?.institution,
    );
    bits +=
      years === 0 ? W.year.same : years === 1 ? (serial ? W.year.nextReport : W.year.next) : W.year.apart;
    if (years === 0) reasons.push('same year');
    else if (years === 1) reasons.push('years next to one another');
    else apart.push('different years');
    const dated = a.family === 'news' || b.family === 'news' || a.family === 'page' || b.family === 'page';
    if (dated && a.day && b.day) {
      bits += a.day === b.day ? W.day.same : W.day.different;
      if (a.day !== b.day) apart.push('different days');
    }
  }

  // Where.
  const sameSerial = container === 'same' || container === 'shortened' || agrees(a.issn, b.issn);
  if (sameSerial) {
    bits += W.container.same;
    reasons.push(container === 'shortened' ? 'same container, abbreviated' : 'same container');
  } else if (a.family !== 'page' && b.family !== 'page') {
    bits += W.container[container];
    if (container === 'different') apart.push('different containers');
  }
  const books = a.family === 'book' || b.family === 'book';
  for (const [name, x, y, weight] of [
    ['volume', a.volume, b.volume, books ? W.ofBooks : W.volume],
    ['issue', a.issue, b.issue, W.issue],
    ['number', a.number, b.number, W.number],
    ['part', a.part, b.part, W.ofBooks],
  ] as const) {
    if (agrees(x, y)) {
      bits += weight.same;
      if (name === 'number') reasons.push('same number');
    } else if (differs(x, y)) {
      bits += weight.different;
      apart.push(`different ${name}s`);
    } else if (x !== y && name === 'volume' && books) {
      bits += W.volume.different - 3;
      apart.push('one is a volume');
    }
  }
  bits += W.pages[pages];
  if (pages === 'same' || pages === 'first') {
    reasons.push(pages === 'same' ? 'same pages' : 'same first page');
    // A title that many bear tells little; a page does as much again.
    bits += Math.min(3, commonTitle(often));
    // The three together are the place of one piece in one journal.
    if (agrees(a.volume, b.volume) && sameSerial && title.level !== 'different') bits += 2;
  } else if (pages === 'different') apart.push('different pages');

  // Editions.
  if (agrees(a.edition, b.edition)) bits += W.edition.same;
  else if (differs(a.edition, b.edition)) {
    bits += W.edition.different;
    apart.push('different editions');
  } else if (a.edition !== b.edition && (a.edition || b.edition) !== '1') bits += W.edition.one;
  if (a.publisher.length && b.publisher.length) {
    const same =
      a.publisher.join(' ') === b.publisher.join(' ') ||
      a.publisher.some((w) => w.length > 3 && b.publisher.includes(w));
    bits += same ? W.publisher.same : W.publisher.different;
  }

  // Kinds that are not one another, whatever their titles.
  const kinds = kindsApart(a, b, container);
  if (kinds) {
    bits += kinds;
    apart.push('different kinds of source');
  }
  return {
    ...verdictOf(bits, { a, b, title: title.level, people, pages, sameSerial, sameDoi, isbns, apart }),
    reasons: said(bits, reasons, apart),
  };
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

const said = (bits: number, reasons: string[], apart: string[]): string[] =>
  bits < DECIDE && apart.length > 0 ? apart : [...reasons, ...apart.map((why) => `but ${why}`)];

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

interface Grounds {
  a: Signature;
  b: Signature;
  title: TitleLevel;
  people: PeopleLevel;
  pages: string;
  sameSerial: boolean;
  sameDoi: boolean;
  isbns: number;
  apart: string[];
}

/**
 * The verdict for a sum of weights. Surely one work needs two grounds that do not hang on one another: the title and who
 * wrote it, where it stands, or an identifier; and nothing that tells the two apart.
 */
function verdictOf(bits: number, g: Grounds): Pick<Judgement, 'verdict' | 'score'> {
  const { a, b } = g;
  const titled = g.title !== 'different' && g.title !== 'missing' && g.title !== 'close';
  const placed =
    (g.pages === 'same' || g.pages === 'first') &&
    (g.sameSerial || (a.volume !== '' && a.volume === b.volume));
  const identified =
    g.sameDoi ||
    (g.isbns > 0 && titled) ||
    (a.address !== '' && a.address === b.address) ||
    (a.pmid !== '' && a.pmid === b.pmid) ||
    (a.arxiv !== '' && a.arxiv === b.arxiv);
  const written = g.people === 'all' || g.people === 'first';
  const dated = a.year !== null && a.year === b.year;
  const shelved = written && g.sameSerial && Math.min(a.title.words.length, b.title.words.length) > 3;
  const grounds = [titled, placed, identified, written, dated, shelved].filter(Boolean).length;
  const soft = g.apart.every((why) => why === 'different containers');
  const score = 1 / (1 + 2 ** -bits);
  if (bits >= SURE && grounds >= (identified ? 2 : 3) && soft && (titled || g.sameDoi))
    return { verdict: 'sure', score };
  if (bits >= DECIDE) return { verdict: 'decide', score };
  return { verdict: 'different', score };
}
