import { fold, isShouting } from '../text';
import {
  derive,
  doiKey,
  firstIsbnKey,
  samePerson,
  creatorsOf,
  type SourceRecord,
  type Variable,
} from '../source';

/** A judgement of a pair, with the reasons a person is shown. */
export interface Judgement {
  verdict: 'same' | 'likely' | 'different';
  reasons: string[];
}

/** Fields that tell two works apart when both have them and they differ. */
const TELLS_APART: [Variable, string][] = [
  ['edition', 'different editions'],
  ['volume', 'different volumes'],
  ['issue', 'different issues'],
  ['part-number', 'different parts'],
  ['chapter-number', 'different chapters'],
  ['number', 'different numbers'],
  ['version', 'different versions'],
];

/** Types of which a part and the whole carry the same ISBN. */
const PARTS = new Set(['chapter', 'paper-conference', 'entry', 'entry-encyclopedia', 'entry-dictionary']);

/** Numbers compare by their digits where they have any (`3rd ed.` is `3`). */
const numberKey = (value: unknown) =>
  /\d+/.exec(String(value))?.[0]?.replace(/^0+/, '') ?? fold(String(value));

const firstPage = (record: SourceRecord) => /^\s*\w+/.exec(record['page-first'] ?? record.page ?? '')?.[0];

/** The keys a record is looked up by; two records of one work share at least one. */
export function keysOf(record: SourceRecord): string[] {
  const d = derive(record);
  const keys: string[] = [];
  if (d.doi) keys.push(`doi ${d.doi}`);
  if (d.isbn && d.titleKey) keys.push(`isbn ${d.isbn} ${d.titleKey}`);
  if (d.addressKey) keys.push(`address ${d.addressKey}`);
  if (d.titleKey) keys.push(`title ${d.titleKey}`);
  return keys;
}

/** What tells two records apart, or nothing. */
function apartBecause(a: SourceRecord, b: SourceRecord): string[] {
  return TELLS_APART.filter(([f]) => a[f] && b[f] && numberKey(a[f]) !== numberKey(b[f])).map(
    ([, why]) => why,
  );
}

/** Judges whether two records are of one work. Symmetric. */
export function compare(a: SourceRecord, b: SourceRecord): Judgement {
  const [x, y] = [derive(a), derive(b)];
  const titlesAlike = x.titleKey !== '' && x.titleKey === y.titleKey;
  const reasons: string[] = [];
  const apart = apartBecause(a, b);

  if (x.doi && y.doi) {
    if (x.doi === y.doi) {
      const spelt = a.DOI !== b.DOI && (doiKey(a.DOI) === a.DOI) !== (doiKey(b.DOI) === b.DOI);
      reasons.push(spelt ? 'same DOI in two spellings' : 'same DOI');
      if (titlesAlike) reasons.push(titleReason(a, b));
      reasons.push(...whoAndWhen(a, b));
      return { verdict: 'same', reasons };
    }
    if (titlesAlike) apart.push('different DOIs');
  }
  const [isbnA, isbnB] = [firstIsbnKey(a.ISBN), firstIsbnKey(b.ISBN)];
  if (
    isbnA &&
    isbnA === isbnB &&
    titlesAlike &&
    apart.length === 0 &&
    PARTS.has(a.type) === PARTS.has(b.type)
  )
    return { verdict: 'same', reasons: ['same ISBN', titleReason(a, b), ...whoAndWhen(a, b)] };
  if (!titlesAlike) return { verdict: 'different', reasons: [] };

  const [pageA, pageB] = [firstPage(a), firstPage(b)];
  if (pageA && pageB && numberKey(pageA) !== numberKey(pageB)) apart.push('different pages');
  if (isbnA && isbnB && isbnA !== isbnB) apart.push('different ISBNs');
  const sameAddress = x.addressKey !== null && x.addressKey === y.addressKey;
  const undated = x.year === null && y.year === null;
  const nobody = x.creatorKey === '' && y.creatorKey === '';
  if (apart.length > 0) return { verdict: 'different', reasons: apart };
  if (sameAddress)
    return { verdict: 'same', reasons: ['same address', titleReason(a, b), ...whoAndWhen(a, b)] };
  if (x.year !== y.year || x.creatorKey !== y.creatorKey)
    return {
      verdict: 'different',
      reasons: [x.year !== y.year ? 'different years' : 'different first authors'],
    };
  // Two notices with a title alone ("Notice to mariners") say nothing of being the same.
  if (undated && nobody) return { verdict: 'different', reasons: ['nothing but the title in common'] };
  if (nobody && fold(a['container-title'] ?? '') !== fold(b['container-title'] ?? ''))
    return { verdict: 'different', reasons: ['appeared in different places'] };
  return { verdict: 'likely', reasons: [titleReason(a, b), ...whoAndWhen(a, b)] };
}

function titleReason(a: SourceRecord, b: SourceRecord): string {
  if (a.title === b.title) return 'same title';
  return isShouting(a.title ?? '') !== isShouting(b.title ?? '')
    ? 'titles alike but for case'
    : 'titles alike';
}

function whoAndWhen(a: SourceRecord, b: SourceRecord): string[] {
  const [p, q] = [creatorsOf(a)[0]?.names[0], creatorsOf(b)[0]?.names[0]];
  const author = p && q && samePerson(p, q);
  const [x, y] = [derive(a).year, derive(b).year];
  const year = x !== null && x === y;
  if (author && year) return ['same first author and year'];
  return author ? ['same first author'] : year ? ['same year'] : [];
}
