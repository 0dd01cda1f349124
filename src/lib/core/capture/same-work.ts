import { findDoi, isbnKey, shortName, type CslName } from '../source';
import { fold, similarity } from '../text';
import type { Candidate } from './candidate';

const of = (list: Candidate[], field: string) => list.filter((c) => c.field === field).map((c) => c.value);
const titlesOf = (list: Candidate[]) => of(list, 'title').map((t) => fold(String(t)));
const familiesOf = (list: Candidate[]) =>
  new Set(of(list, 'author').flatMap((names) => (names as CslName[]).map((n) => fold(shortName(n)))));

/**
 * Whether two readings are of the same work: their titles are alike or one begins the other, or they share a creator
 * and their titles are not far apart. A page that gives the DOI of a work it only cites is found out so.
 */
export function sameWork(page: Candidate[], registry: Candidate[]): boolean {
  const [ours, theirs] = [titlesOf(page), titlesOf(registry)];
  if (ours.length === 0 || theirs.length === 0) return true;
  const alike = (a: string, b: string) =>
    similarity(a, b) > 0.72 || (a.length > 12 && b.startsWith(a)) || (b.length > 12 && a.startsWith(b));
  if (ours.some((a) => theirs.some((b) => alike(a, b)))) return true;
  const people = familiesOf(registry);
  const shared = [...familiesOf(page)].some((p) => people.has(p));
  return shared && ours.some((a) => theirs.some((b) => similarity(a, b) > 0.3));
}

const keyOf = (field: 'DOI' | 'ISBN', value: unknown) =>
  field === 'DOI' ? findDoi(String(value))?.toLowerCase() : isbnKey(String(value));

/**
 * A page's candidates with a registry's record for an identifier the page gives. When the record is of another work, it
 * is left out and so is the identifier; `otherTitle` names that work.
 */
export function joinRegistry(
  page: Candidate[],
  registry: Candidate[],
  field: 'DOI' | 'ISBN',
): { candidates: Candidate[]; joined: Candidate[]; own: Candidate[]; otherTitle?: string } {
  if (sameWork(page, registry)) return { candidates: [...registry, ...page], joined: registry, own: page };
  const wrong = new Set(of(registry, field).map((v) => keyOf(field, v)));
  const first = keyOf(field, of(page, field)[0]);
  const own = page.filter(
    (c) => c.field !== field || (keyOf(field, c.value) !== first && !wrong.has(keyOf(field, c.value))),
  );
  return { candidates: own, joined: [], own, otherTitle: String(of(registry, 'title')[0] ?? '') };
}
