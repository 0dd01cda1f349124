import { blocksOf, holdings } from './blocks';
import { groupsOf, type Group, type JudgedPair } from './groups';
import { judgePair, type Commonness } from './score';
import type { Signature } from './signature';

/**
 * What a key that two records share counts towards comparing them, in eighths: one that few share is enough, of those that
 * hundreds share it takes several. So the pairs that are compared do not grow with the square of the records that are all
 * about one thing.
 */
export function weightOfKey(records: number): number {
  if (records <= 8) return ENOUGH;
  if (records <= 32) return 4;
  if (records <= 128) return 2;
  return records <= MOST_OF_ONE_KEY ? 1 : 0;
}
/** From where two records are compared. */
export const ENOUGH = 8;
/** A key that more records share than this counts nothing. */
export const MOST_OF_ONE_KEY = 1_000;

/** What was found among records. */
export interface Found {
  /** Pairs that are one work, surely or to decide. */
  doubles: JudgedPair[];
  /** Pairs of works that belong together. */
  related: JudgedPair[];
  /** How many pairs were compared. */
  compared: number;
}

/** Counts how often titles and family names are met among records. */
export function commonnessOf(signatures: Iterable<Signature>): Commonness {
  const titles = new Map<string, number>();
  const families = new Map<string, number>();
  for (const { title, people } of signatures) {
    titles.set(title.whole, (titles.get(title.whole) ?? 0) + 1);
    const family = people[0]?.family;
    if (family) families.set(family, (families.get(family) ?? 0) + 1);
  }
  // Beyond what a key is looked up by, nobody counts on.
  const met = (n = 1) => Math.min(n, MOST_OF_ONE_KEY);
  return { titles: (whole) => met(titles.get(whole)), families: (family) => met(families.get(family)) };
}

/** Records and keys in one number each, so that they sort as numbers: at most two million records. */
const PLACE = 2 ** 21;

/** Pairs of places that share a key, each given once. */
function* candidates(signatures: readonly Signature[]): Generator<[number, number]> {
  // The keys of all records one after another, and where those of each begin.
  const begin = new Uint32Array(signatures.length + 1);
  let keys = new Uint32Array(signatures.length * 24);
  let n = 0;
  for (const [place, signature] of signatures.entries()) {
    const own = blocksOf(signature);
    if (n + own.length > keys.length) {
      const larger = new Uint32Array(2 * (n + own.length));
      larger.set(keys);
      keys = larger;
    }
    keys.set(own, n);
    begin[place + 1] = n += own.length;
  }
  const all = new Float64Array(n);
  for (let place = 0; place < signatures.length; place++)
    for (let i = begin[place]!; i < begin[place + 1]!; i++) all[i] = keys[i]! * PLACE + place;
  all.sort();
  // Where the records of a key begin and end, for keys that several share.
  const blocks = new Map<number, [from: number, to: number]>();
  for (let from = 0; from < all.length;) {
    const key = Math.floor(all[from]! / PLACE);
    let to = from + 1;
    while (to < all.length && all[to]! < (key + 1) * PLACE) to++;
    if (to - from > 1 && weightOfKey(to - from) > 0) blocks.set(key, [from, to]);
    from = to;
  }
  // For each record the others it shares keys with: no pair is remembered longer than its record is looked at.
  const shared = new Int32Array(signatures.length);
  for (let place = 0; place < signatures.length; place++) {
    const touched: number[] = [];
    for (let k = begin[place]!; k < begin[place + 1]!; k++) {
      const key = keys[k]!;
      const block = blocks.get(key);
      if (!block) continue;
      const weight = weightOfKey(block[1] - block[0]);
      for (let i = block[0]; i < block[1]; i++) {
        const other = all[i]! - key * PLACE;
        if (other >= place) break;
        const before = shared[other]!;
        if (before === 0) touched.push(other);
        if (before < ENOUGH && before + weight >= ENOUGH) yield [other, place];
        shared[other] = before + weight;
      }
    }
    for (const other of touched) shared[other] = 0;
  }
}

/** Pairs of a part and a whole that may hold it. */
function* partsAndWholes(signatures: readonly Signature[]): Generator<[number, number]> {
  const found = new Map<number, number[]>();
  for (const [place, signature] of signatures.entries())
    if (signature.family === 'book')
      for (const key of holdings(signature).found) found.set(key, [...(found.get(key) ?? []), place]);
  for (const [place, signature] of signatures.entries()) {
    if (signature.family === 'book') continue;
    for (const whole of new Set(holdings(signature).seeks.flatMap((key) => found.get(key) ?? [])))
      yield whole < place ? [whole, place] : [place, whole];
  }
}

/**
 * Looks through records for those of one work. `ids` and `signatures` go together. `told` is called every few thousand
 * records with how many were looked at, and ends the search by throwing.
 */
export function findPairs(
  ids: readonly string[],
  signatures: readonly Signature[],
  told: (done: number) => void = () => undefined,
): Found {
  const common = commonnessOf(signatures);
  const doubles: JudgedPair[] = [];
  const related: JudgedPair[] = [];
  let compared = 0;
  let last = 0;
  const judge = ([x, y]: [number, number]) => {
    compared++;
    const judgement = judgePair(signatures[x]!, signatures[y]!, common);
    const [a, b] = ids[x]! < ids[y]! ? [ids[x]!, ids[y]!] : [ids[y]!, ids[x]!];
    if (judgement.verdict !== 'different') doubles.push({ a, b, ...judgement });
    else if (judgement.relation) related.push({ a, b, ...judgement });
  };
  for (const pair of candidates(signatures)) {
    judge(pair);
    if (pair[1] - last >= 2_000) told((last = pair[1]));
  }
  const linked = new Set(related.map((p) => `${p.a} ${p.b}`));
  for (const [x, y] of partsAndWholes(signatures)) {
    const [a, b] = ids[x]! < ids[y]! ? [ids[x]!, ids[y]!] : [ids[y]!, ids[x]!];
    if (!linked.has(`${a} ${b}`)) judge([x, y]);
  }
  return { doubles, related, compared };
}

/** Looks through records for groups of one work. `sure` leaves out pairs that are for a person to decide. */
export function findGroups(ids: readonly string[], signatures: readonly Signature[], sure = false): Group[] {
  const { doubles } = findPairs(ids, signatures);
  const at = new Map(ids.map((id, i) => [id, signatures[i]!]));
  const common = commonnessOf(signatures);
  return groupsOf(sure ? doubles.filter((p) => p.verdict === 'sure') : doubles, (a, b) =>
    judgePair(at.get(a)!, at.get(b)!, common),
  ).filter((group) => !sure || group.verdict === 'sure');
}
