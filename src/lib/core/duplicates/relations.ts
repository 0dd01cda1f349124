import type { PeopleLevel, TitleMatch } from './fields';
import { samePersonSign } from './fields';
import type { Signature } from './signature';

/** How two works that are not one belong together. */
export const RELATIONS = [
  'edition',
  'preprint',
  'translation',
  'reprint',
  'part',
  'review',
  'correction',
  'dataset',
] as const;
export type Relation = (typeof RELATIONS)[number];

/** What each is called where two works are shown to belong together. */
export const RELATION_LABELS: Record<Relation, string> = {
  edition: 'another edition',
  preprint: 'preprint and version of record',
  translation: 'translation',
  reprint: 'reprint',
  part: 'part and whole',
  review: 'review and what it reviews',
  correction: 'correction and what it corrects',
  dataset: 'dataset and its paper',
};

/** What tells of a relation, or nothing. Symmetric. */
export function relationOf(
  a: Signature,
  b: Signature,
  title: TitleMatch,
  people: PeopleLevel,
): Relation | undefined {
  const sameDoi = a.doi !== '' && a.doi === b.doi;
  if (sameDoi && a.title.notice === b.title.notice) return partOf(a, b) ? 'part' : undefined;
  const alike = title.level !== 'different' && title.level !== 'missing' && title.level !== 'close';
  const whose = people === 'all' || people === 'first' || people === 'some';
  const either = (test: (x: Signature, y: Signature) => boolean) => test(a, b) || test(b, a);
  if (a.title.notice !== b.title.notice && alike) {
    const notice = a.title.notice ?? b.title.notice;
    if (notice === 'correction') return 'correction';
    if (notice === 'review') return 'review';
  }
  if (partOf(a, b)) return 'part';
  if (!alike || title.numbersDiffer) return undefined;
  if (either((x, y) => x.family === 'data' && y.family !== 'data' && y.family !== 'page') && whose)
    return 'dataset';
  if (
    either((x, y) => x.family === 'review' && y.family !== 'review') ||
    either((x, y) => x.family === 'article' && y.family === 'book' && people === 'none')
  )
    return 'review';
  if (
    either((x, y) => x.family === 'preprint' && ['article', 'paper', 'chapter'].includes(y.family)) &&
    whose
  )
    return 'preprint';
  const bothBooks = a.family === 'book' && b.family === 'book';
  if (whose && bothBooks) {
    if (a.edition && b.edition && a.edition !== b.edition) return 'edition';
    const shared = a.isbns.some((isbn) => b.isbns.includes(isbn));
    const volumes = a.volume !== '' && b.volume !== '' && a.volume !== b.volume;
    const years = a.year !== null && b.year !== null ? Math.abs(a.year - b.year) : 0;
    if (!shared && !volumes && years > 1) return a.edition !== b.edition ? 'edition' : 'reprint';
    if (!shared && !volumes && years === 1 && a.edition !== b.edition) return 'edition';
  }
  if (
    whose &&
    a.language &&
    b.language &&
    a.language !== b.language &&
    either((x, y) => x.translated && !y.translated)
  )
    return 'translation';
  return undefined;
}

/** Whether one is a chapter or paper of the book that the other is. */
export function partOf(a: Signature, b: Signature): boolean {
  for (const [part, whole] of [
    [a, b],
    [b, a],
  ] as const) {
    if (whole.family !== 'book' || (part.family !== 'chapter' && part.family !== 'paper')) continue;
    if (part.container === '' || whole.title.whole === '') continue;
    const names = part.container === whole.title.whole || part.container === whole.title.main;
    if (!names) continue;
    if (part.title.whole === whole.title.whole) continue;
    if (part.isbns.some((isbn) => whole.isbns.includes(isbn))) return true;
    if (part.edition && whole.edition && part.edition !== whole.edition) continue;
    const editors = part.editors.length > 0 ? part.editors : part.people;
    const theirs = [...whole.people, ...whole.editors];
    const who = editors.some((p) => theirs.some((q) => samePersonSign(p, q)));
    const when = part.year !== null && part.year === whole.year;
    if (when && (who || editors.length === 0 || theirs.length === 0)) return true;
  }
  return false;
}
