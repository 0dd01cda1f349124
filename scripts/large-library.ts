/**
 * A library as libraries are: what the benchmarks fill a data folder with. The same seed gives the same records.
 *
 * - Kinds as they are met: six in ten are articles, then chapters, books, theses, reports, pages and news.
 * - Titles that repeat: one in twelve is called "Editorial", "Book reviews", "Notices to mariners" or the like, so that in
 *   ten thousand hundreds have one title; they differ by volume, year and page, and are not doubles.
 * - One in twenty is captured a second time: by its DOI in another spelling, with its title in capitals, or by title, first
 *   author and year alone.
 * - Six languages with their own words and names, Greek, Cyrillic and Japanese among them.
 * - One in nine lacks a field that its kind prints, so that there are findings.
 */
import { sourceRecord, type SourceRecord } from '../src/lib/core/source/index';

/** Numbers that look random and are the same each time: Mulberry32, in the public domain. */
export function random(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296;
  };
}

interface Language {
  tag: string;
  share: number;
  words: string[];
  families: string[];
  given: string[];
  journals: string[];
}

const split = (text: string) => text.split(' ');
const LANGUAGES: Language[] = [
  {
    tag: 'en',
    share: 0.62,
    words: split(
      'tide mill pond marsh gate sluice grain toll dam wheel survey coast salt harbour ledger lease estuary silt breach recovery sediment ownership labour custom record restored closing spring neap channel',
    ),
    families: split(
      'Ferreira Barrow Brandt Lindqvist Osei Sato Haverkamp Raman Oakes Pell Quill Tully Byrne Menon Arless Adeyemi Oduya Marsh Whitlow Crane',
    ),
    given: split('Ana Edith Hugo Maja Kofi Yuki Lotte Priya Tessa Ivo Nora Cian Folake Tolu June Peter'),
    journals: ['Marsh Letters', 'Estuary and Shore', 'Journal of Coastal Economic History', 'Shore Life'],
  },
  {
    tag: 'de',
    share: 0.12,
    words: split(
      'Gezeiten Mühle Deich Küste Schleuse Salz Wiese Pacht Verlandung Hafen Korn Müller Recht Flut',
    ),
    families: split('Brenner Hülsmann Petersen Lüders Voß Thomsen Jürgens'),
    given: split('Anke Jürgen Sönke Wiebke Malte Friederike'),
    journals: ['Küste und Watt', 'Zeitschrift für Deichwesen'],
  },
  {
    tag: 'fr',
    share: 0.1,
    words: split('moulin marée étang écluse digue sel grain côte meunier bail estuaire vase péage ruine'),
    families: split('Lefèvre Kervella Bréhat Rozé Gaudin Ménard'),
    given: split('Anne Yann Soizic Éloi Maëlle Hervé'),
    journals: ['Cahiers du littoral', 'Revue des moulins'],
  },
  {
    tag: 'pt',
    share: 0.08,
    words: split('moinho maré sapal comporta sal rio foral moleiro esteiro dique barra'),
    families: split('Conceição Queirós Magalhães Antunes Brandão'),
    given: split('Inês João Conceição Rui Leonor'),
    journals: ['Estudos do Estuário'],
  },
  {
    tag: 'el',
    share: 0.03,
    words: split('παλίρροια μύλος ακτή αλάτι λιμάνι δίκαιο'),
    families: split('Παπαδάκης Νικολάου Σταύρου'),
    given: split('Ελένη Γιώργος Μαρία'),
    journals: ['Ακτές'],
  },
  {
    tag: 'ru',
    share: 0.03,
    words: split('прилив мельница берег соль плотина залив устье'),
    families: split('Соколов Ильина Морозова'),
    given: split('Анна Пётр Ольга'),
    journals: ['Берега'],
  },
  {
    tag: 'ja',
    share: 0.02,
    words: split('潮汐 水車 海岸 塩田 水門 記録'),
    families: split('佐藤 鈴木 高橋'),
    given: split('雪 健 真理'),
    journals: ['海岸研究'],
  },
];

const REPEATED = [
  'Editorial',
  'Book reviews',
  'Notices to mariners',
  'Obituary',
  'Introduction',
  'Letters to the editor',
  'Annual report',
];
const TYPES = [
  ['article-journal', 0.6],
  ['chapter', 0.72],
  ['book', 0.84],
  ['thesis', 0.88],
  ['report', 0.92],
  ['webpage', 0.96],
  ['article-newspaper', 1],
] as const;
const TAGS = split('methods theory ponds law labour maps read-again chapter-2 chapter-3 sound archive marsh');

/** The records of a library of a size, one after another. */
export function* largeLibrary(size: number, seed = 20_261_126): Generator<SourceRecord> {
  const next = random(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;
  const recent: SourceRecord[] = [];
  for (let n = 0; n < size; n++) {
    const earlier = recent.length > 50 && next() < 0.05 ? pick(recent) : undefined;
    const record = earlier ? capturedAgain(earlier, next()) : made(n, next, pick);
    yield record;
    if (recent.length < 2_000) recent.push(record);
    else recent[n % 2_000] = record;
  }
}

function capturedAgain(earlier: SourceRecord, how: number): SourceRecord {
  const { DOI, ...rest } = earlier;
  if (how < 0.4 && DOI) return sourceRecord.parse({ ...rest, DOI: `https://doi.org/${DOI.toUpperCase()}` });
  if (how < 0.7) return sourceRecord.parse({ ...earlier, title: earlier.title?.toUpperCase() });
  return sourceRecord.parse(rest);
}

function made(n: number, next: () => number, pick: <T>(list: readonly T[]) => T): SourceRecord {
  const chance = next();
  let sum = 0;
  const language = LANGUAGES.find((l) => (sum += l.share) > chance) ?? LANGUAGES[0]!;
  const kind = next();
  const [type] = TYPES.find(([, upTo]) => kind < upTo)!;
  const repeated = type === 'article-journal' && next() < 0.14;
  const words = Array.from({ length: 4 + Math.floor(next() * 8) }, () => pick(language.words)).join(' ');
  const title = repeated ? pick(REPEATED) : words.charAt(0).toUpperCase() + words.slice(1);
  const year = 1880 + Math.floor(Math.sqrt(next()) * 146);
  const page = 1 + Math.floor(next() * 600);
  const authors = repeated && next() < 0.6 ? 0 : 1 + Math.floor(next() * next() * 6);
  return sourceRecord.parse({
    type,
    title,
    language: language.tag,
    ...(authors
      ? {
          author: Array.from({ length: authors }, () => ({
            family: pick(language.families),
            given: pick(language.given),
          })),
        }
      : {}),
    ...(next() < 0.95 ? { issued: { 'date-parts': [[year, 1 + (n % 12)]] } } : {}),
    ...(['article-journal', 'article-newspaper', 'chapter'].includes(type)
      ? { 'container-title': pick(language.journals) }
      : {}),
    ...(type === 'article-journal'
      ? {
          volume: String(1 + (year % 90)),
          issue: String(1 + (n % 6)),
          page: `${page}-${page + 1 + (n % 30)}`,
        }
      : {}),
    ...(['book', 'chapter', 'report'].includes(type) && next() < 0.9
      ? { publisher: 'Strand University Press' }
      : {}),
    ...(type === 'article-journal' && next() < 0.8 ? { DOI: `10.5555/large.${n}` } : {}),
    ...(type === 'webpage' ? { URL: `https://pages.example/${n}` } : {}),
    ...(next() < 0.3 ? { abstract: Array.from({ length: 90 }, () => pick(language.words)).join(' ') } : {}),
    retexa: { tags: next() < 0.25 ? [pick(TAGS)] : [], origins: {} },
  });
}
