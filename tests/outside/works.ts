/**
 * Works to print in every style: one rich and one poor record of each CSL type, the odd cases records bring, and some put
 * together at random from a fixed seed. All are invented.
 */
import { CSL_TYPES } from '../../src/lib/core/source';

export interface Work {
  id: string;
  type: string;
  [variable: string]: unknown;
}

/** A generator of numbers from 0 to 1 that gives the same every time (a linear congruential generator). */
function numbers(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 2 ** 32;
  };
}

const NAMES = {
  ng: { family: 'Ng', given: 'Tai Heng' },
  ferreira: { family: 'Ferreira', given: 'Ana' },
  suil: { family: 'Ó Súilleabháin', given: 'Ciarán' },
  ferreiraB: { family: 'Ferreira', given: 'Bento' },
  ngTwin: { family: 'Ng', given: 'Thomas' },
  beek: { family: 'Beek', given: 'Joost', 'non-dropping-particle': 'van der' },
  aubin: { family: 'Aubin', given: 'Émile', 'dropping-particle': 'd’' },
  king: { family: 'Kingsley', given: 'Martin Lee', suffix: 'Jr.' },
  duke: { family: 'Duke', given: 'Ann', suffix: 'III', 'comma-suffix': true },
  jean: { family: 'Moreau', given: 'Jean-Luc Paul' },
  body: { literal: 'Institute of Tidal Research' },
  office: { literal: 'Harbour Office, Northsound' },
  tanaka: { family: '田中', given: '太郎' },
  only: { family: 'Meridian' },
  chekh: { family: 'Орлов', given: 'Иван Петрович' },
};

const EVERY = {
  title: 'Salt marsh recovery behind breached dams: a record of ten years',
  'title-short': 'Salt marsh recovery',
  author: [NAMES.ferreira, NAMES.ng, NAMES.suil],
  issued: { 'date-parts': [[2021, 3, 14]] },
  accessed: { 'date-parts': [[2026, 1, 5]] },
  'container-title': 'Marsh Letters',
  'container-title-short': 'Marsh Lett.',
  'collection-title': 'Studies in Coastal Change',
  'collection-number': '12',
  editor: [NAMES.beek, NAMES.king],
  translator: [NAMES.aubin],
  publisher: 'Harbour Press',
  'publisher-place': 'Northsound',
  volume: '3',
  issue: '1-2',
  page: '107-124',
  edition: '2',
  'number-of-pages': '312',
  'number-of-volumes': '4',
  number: '17',
  'chapter-number': '5',
  genre: 'field report',
  medium: 'sound disc',
  URL: 'https://example.org/marsh/3/7',
  DOI: '10.5555/marsh.3.7',
  ISBN: '978-0-00-000000-2',
  ISSN: '1234-5679',
  archive: 'Northsound Archive',
  archive_location: 'Box 4, folder 2',
  'archive-place': 'Northsound',
  'call-number': 'QH541',
  'event-title': 'Conference on Estuaries',
  'event-place': 'Gull Bay',
  'event-date': {
    'date-parts': [
      [2020, 9, 1],
      [2020, 9, 4],
    ],
  },
  abstract: 'What grew back.',
  note: 'Kept in two copies',
  status: 'in press',
  version: '1.4',
  section: 'B',
  language: 'en-US',
  authority: 'High Court of Northsound',

  'original-date': { 'date-parts': [[1987]] },
  'original-publisher': 'Old Quay Books',
  'original-publisher-place': 'Old Quay',
  'original-title': 'Salzwiesen',
  director: [NAMES.jean],
  composer: [NAMES.duke],
  interviewer: [NAMES.suil],
  recipient: [NAMES.ngTwin],
  illustrator: [NAMES.ferreiraB],
  'container-author': [NAMES.ngTwin],
  'collection-editor': [NAMES.office],
  'reviewed-author': [NAMES.jean],
  'reviewed-title': 'The Lower Shore',
  'original-author': [NAMES.jean],
  scale: '1:25000',
  dimensions: '40 min',
  references: 'Cf. no. 3',
  source: 'Northsound catalogue',
  annote: 'Read twice.',
};

const d = (...parts: (number | string)[][]) => ({ 'date-parts': parts });
const journal = (rest: object) => ({
  type: 'article-journal',
  'container-title': 'Marsh Letters',
  author: [NAMES.ferreira],
  title: 'A note',
  issued: d([2001]),
  volume: '4',
  page: '1-9',
  ...rest,
});
const book = (rest: object) => ({
  type: 'book',
  author: [NAMES.ng],
  title: 'Tide mills',
  publisher: 'Harbour Press',
  'publisher-place': 'Northsound',
  issued: d([1998]),
  ...rest,
});

/** What records bring that styles trip over. */
const ODD: Omit<Work, 'id'>[] = [
  journal({ title: 'Does the tide <i>Zostera marina</i> need? On H<sub>2</sub>O and “quiet” water' }),
  journal({ title: 'The “new” harbour: what ‘rest’ means', page: '1023-1029' }),
  journal({ title: 'Was it drowned?', page: '101-8' }),
  journal({ title: 'It was!', page: 'e1234' }),
  journal({ title: 'Ends in a stop.', page: '12' }),
  journal({ title: '“All quoted”', page: '12, 15-17' }),
  journal({ title: 'UPPER CASE TITLE OF A PAPER', page: 'iv-ix' }),
  journal({ title: 'On the <span class="nocase">ESR</span> of iPhones and the river Tay', page: 'S12-S19' }),
  journal({ title: 'Les dunes de l\'île d\'Oléron', language: 'fr-FR' }),
  journal({ title: 'Über die Watten: eine Studie', language: 'de-DE' }),
  journal({ title: '潮汐と湿地', author: [NAMES.tanaka], language: 'ja-JP' }),
  journal({ title: 'Приливы и болота', author: [NAMES.chekh], language: 'ru-RU' }),
  journal({ author: [NAMES.ferreiraB], title: 'A second note' }),
  journal({ author: [NAMES.ferreira, NAMES.ngTwin], title: 'Two hands' }),
  journal({ author: [NAMES.ferreira, NAMES.ng, NAMES.suil, NAMES.beek], title: 'Four hands' }),
  journal({ author: [NAMES.ferreira, NAMES.ng, NAMES.suil, NAMES.king], title: 'Four others' }),
  journal({ author: [NAMES.ferreira, NAMES.ng, NAMES.suil, NAMES.beek, NAMES.king, NAMES.duke, NAMES.jean], title: 'Seven hands' }),
  journal({ author: [NAMES.ferreira, NAMES.ng, NAMES.suil, NAMES.beek, NAMES.king, NAMES.aubin, NAMES.jean, NAMES.ngTwin, NAMES.duke, NAMES.body, NAMES.chekh, NAMES.only], title: 'Twelve hands', issued: d([2002]) }),
  journal({ title: 'First of the year', issued: d([2003]) }),
  journal({ title: 'Second of the year', issued: d([2003]) }),
  journal({ title: 'Third of the year', issued: d([2003]) }),
  journal({ author: [], title: 'By nobody', issued: d([2003]) }),
  journal({ author: undefined, editor: [NAMES.beek], title: 'Only an editor' }),
  journal({ issued: undefined, title: 'Without a date' }),
  journal({ issued: d([2010, 21]), title: 'In spring' }),
  journal({ issued: { 'date-parts': [[2010]], season: 3 }, title: 'In autumn' }),
  journal({ issued: d([2004, 6], [2004, 8]), title: 'Over two months' }),
  journal({ issued: d([2004, 12], [2005, 1]), title: 'Over the new year' }),
  journal({ issued: d([1999, 1, 2], [1999, 1, 4]), title: 'Over three days' }),
  journal({ issued: { ...d([1850]), circa: true }, title: 'About then' }),
  journal({ issued: d([-44, 3, 15]), title: 'Before the era' }),
  journal({ issued: d([79]), title: 'Early in the era' }),
  journal({ issued: { literal: 'forthcoming' }, title: 'Not yet' }),
  journal({ volume: undefined, issue: undefined, page: undefined, DOI: '10.5555/early', title: 'Ahead of print' }),
  journal({ volume: 'XII', issue: 'Supplement 2', title: 'With a supplement' }),
  journal({ 'container-title': 'Journal of <i>E. coli</i> & Other Things', title: 'An ampersand & more' }),
  journal({ 'container-title-short': 'Mar. Lett.', title: 'Shortened' }),
  journal({ URL: 'https://example.org/a_(b)?c=d&e=f', accessed: d([2024, 2, 29]), title: 'With an address' }),
  book({ edition: '3' }),
  book({ edition: 'Revised edition', title: 'Tide mills revised' }),
  book({ edition: '1', volume: '2', 'number-of-volumes': '3', title: 'Tide mills of the world' }),
  book({ author: [NAMES.body], title: 'Annual tables' }),
  book({ author: [NAMES.body, NAMES.office], title: 'Joint tables' }),
  book({ author: [NAMES.king], title: 'A sermon on water' }),
  book({ author: [NAMES.duke], title: 'Letters' }),
  book({ author: [NAMES.beek], title: 'De dijk' }),
  book({ author: [NAMES.aubin], title: 'La digue' }),
  book({ author: [NAMES.jean], title: 'Le marais' }),
  book({ author: [NAMES.only], title: 'One name' }),
  book({ author: [{ family: 'de la Cruz', given: 'María' }], title: 'Particle in the name' }),
  book({ author: [{ family: 'Humboldt', given: 'Alexander von' }], title: 'Particle behind the given name' }),
  book({ author: undefined, editor: [NAMES.ng], title: 'Edited alone' }),
  book({ author: undefined, editor: [NAMES.ng, NAMES.ferreira], title: 'Edited by two' }),
  book({ author: undefined, editor: [NAMES.ng], translator: [NAMES.ng], title: 'Edited and translated' }),
  book({ author: undefined, translator: [NAMES.ng], title: 'Translated alone' }),
  book({ author: undefined, editor: undefined, title: 'Nobody at all' }),
  book({ translator: [NAMES.aubin, NAMES.suil], title: 'Translated by two' }),
  book({ 'original-date': d([1887]), title: 'An old book' }),
  book({ 'collection-title': 'Quay Classics', 'collection-number': '7', title: 'In a series' }),
  book({ 'publisher-place': undefined, title: 'No place' }),
  book({ publisher: undefined, 'publisher-place': undefined, title: 'Self-made' }),
  book({ title: 'The Sea, the sea: A History of “Low Water”' }),
  book({ title: 'Short', 'title-short': 'S.' }),
  book({ title: 'Why?', issued: d([1998]), author: [NAMES.ng] }),
  { type: 'chapter', title: 'Mud', author: [NAMES.suil], editor: [NAMES.ng, NAMES.beek], 'container-title': 'A Book of Shores', publisher: 'Harbour Press', 'publisher-place': 'Northsound', issued: d([2011]), page: '33-58' },
  { type: 'chapter', title: 'Sand', author: [NAMES.suil], 'container-author': [NAMES.suil], 'container-title': 'My Shores', publisher: 'Harbour Press', issued: d([2011]), page: '5' },
  { type: 'chapter', title: 'No editor', author: [NAMES.suil], 'container-title': 'Shores', issued: d([2012]), volume: '2', edition: '4' },
  { type: 'paper-conference', title: 'Talk of eels', author: [NAMES.ng], 'container-title': 'Proceedings of the Eel Conference', 'event-title': 'Eel Conference', 'event-place': 'Gull Bay', issued: d([2014, 7]), page: '1-4', publisher: 'Eel Society' },
  { type: 'thesis', title: 'Eelgrass', author: [NAMES.suil], genre: 'PhD thesis', publisher: 'University of Northsound', 'publisher-place': 'Northsound', issued: d([2016]) },
  { type: 'webpage', title: 'Tide tables', URL: 'https://example.org/tides', accessed: d([2025, 11, 30]), 'container-title': 'Harbour Office' },
  { type: 'webpage', title: 'Undated page', author: [NAMES.body], URL: 'https://example.org/undated' },
  { type: 'report', title: 'Dam survey', author: [NAMES.office], number: '12-A', genre: 'Technical report', publisher: 'Harbour Office', issued: d([2009]) },
  { type: 'dataset', title: 'Readings', author: [NAMES.ng], publisher: 'Data Quay', version: '2.1', DOI: '10.5555/data', issued: d([2022]) },
  { type: 'legal_case', title: 'Harbour v. Gull', 'container-title': 'N.L.R.', volume: '12', page: '345', authority: 'N.C.', issued: d([1977]), number: '77-12' },
  { type: 'article-newspaper', title: 'Dam breaks', 'container-title': 'The Northsound Post', author: [NAMES.only], issued: d([1953, 2, 1]), page: 'A1', edition: 'late' },
  { type: 'article-magazine', title: 'Mud days', 'container-title': 'Shore', issued: d([2002, 5]), author: [NAMES.jean], page: '4-6' },
  { type: 'motion_picture', title: 'Ebb', director: [NAMES.jean], publisher: 'Low Films', issued: d([1971]) },
  { type: 'personal_communication', author: [NAMES.ng], recipient: [NAMES.suil], genre: 'letter', issued: d([1999, 9, 9]) },
  { type: 'manuscript', title: 'Log', author: [NAMES.king], archive: 'Northsound Archive', archive_location: 'MS 12', issued: d([1820]) },
  { type: 'patent', title: 'Sluice', author: [NAMES.duke], number: '123,456', authority: 'Patent Office', issued: d([1931]) },
  { type: 'entry-encyclopedia', title: 'Tide', 'container-title': 'Encyclopedia of Water', author: [NAMES.ng], volume: '4', page: '12-13', issued: d([1990]), edition: '5' },
  { type: 'review-book', title: 'Review of A Book of Shores', author: [NAMES.beek], 'reviewed-title': 'A Book of Shores', 'reviewed-author': [NAMES.ng], 'container-title': 'Marsh Letters', volume: '9', issued: d([2012]), page: '88' },
  { type: 'speech', title: 'At the dam', author: [NAMES.king], 'event-title': 'Dam Day', 'event-place': 'Northsound', issued: d([1963, 8, 28]) },
  { type: 'song', title: 'Low tide', composer: [NAMES.jean], publisher: 'Quay Records', medium: 'CD', issued: d([1984]) },
]; // prettier-ignore

/** All works, in a fixed order. */
export function works(): Work[] {
  const rich = CSL_TYPES.map((type): Work => ({ ...EVERY, id: `every-${type}`, type }));
  const poor = CSL_TYPES.map((type): Work => ({
    id: `poor-${type}`,
    type,
    title: `Plain ${type.replace(/_/g, ' ')}`,
    author: [NAMES.ngTwin],
    issued: d([1990]),
  }));
  const odd = ODD.map((o, i): Work => ({
    ...(JSON.parse(JSON.stringify(o)) as Omit<Work, 'id' | 'type'> & { type: string }),
    id: `odd-${i}`,
  }));
  const next = numbers(20_261_127);
  const keys = Object.keys(EVERY).filter((k) => k !== 'title');
  const random = Array.from({ length: 40 }, (_, i): Work => {
    const type = CSL_TYPES[Math.floor(next() * CSL_TYPES.length)]!;
    const some = keys.filter(() => next() < 0.35).map((k) => [k, EVERY[k as 'title']]);
    return {
      ...(Object.fromEntries(some) as object),
      id: `random-${i}`,
      type,
      title: `Chance ${i}`,
      ...(next() < 0.6 ? { author: [NAMES.ng, NAMES.ferreira].slice(0, 1 + Math.floor(next() * 2)) } : {}),
    };
  });
  return [...rich, ...poor, ...odd, ...random].map((w) =>
    w['event-title'] ? { ...w, event: w['event-title'] } : w,
  );
}

interface Cited {
  id: string;
  locator?: string;
  label?: string;
  prefix?: string;
  suffix?: string;
  'suppress-author'?: boolean;
}

/** Citations of the works as a text has them: alone and together, again at once and later, with places, words before and behind. */
export function citations(all: Work[]): Cited[][] {
  const get = (n: number) => all[n % all.length]!.id;
  const every: Cited[][] = [];
  for (let i = 0; i < all.length; i += 9) every.push([{ id: get(i) }]);
  return [
    ...every,
    [{ id: get(3) }, { id: get(60) }],
    [{ id: get(95) }, { id: get(96) }, { id: get(97) }],
    [{ id: 'odd-18' }, { id: 'odd-19' }, { id: 'odd-20' }],
    [{ id: get(0), locator: '12' }],
    [{ id: get(0) }],
    [{ id: get(0), locator: '12-14' }],
    [{ id: get(0), locator: '12-14' }],
    [{ id: get(1), locator: '3', label: 'chapter' }],
    [{ id: get(2), prefix: 'see ', suffix: ', at the end' }],
    [{ id: 'odd-18' }, { id: 'odd-20' }],
    [
      { id: get(3), locator: '4', label: 'section' },
      { id: get(60), locator: '9' },
    ],
    [{ id: 'odd-38' }],
    [{ id: 'odd-38' }],
    [{ id: 'odd-0' }],
    [{ id: 'odd-12' }],
    [{ id: 'odd-14' }, { id: 'odd-15' }],
    [{ id: 'odd-16' }],
    [{ id: 'odd-17' }],
    [{ id: 'odd-17', locator: '5' }],
    [{ id: get(9), 'suppress-author': true }],
  ];
}
