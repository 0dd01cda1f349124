/**
 * A text as its letters and digits alone, in lower case and without marks, each with where it stands: hyphens at line ends,
 * ligatures, lost blanks, quotation marks and dashes make no difference in it.
 */
export interface Letters {
  text: string;
  codes: Uint16Array;
  /** Where in the text (UTF-16 offset) each letter begins. */
  at: Uint32Array;
}

const LETTER = /[\p{L}\p{N}]/gu;
/** What a character that is not ASCII has of letters: `ﬁ` has two, `é` one, a dash none. */
const known = new Map<string, string>();
/** How many characters are remembered: more than any text has of its own. */
const MOST_KNOWN = 20_000;

function foldedOf(character: string): string {
  const before = known.get(character);
  if (before !== undefined) return before;
  const folded = (character.normalize('NFKD').toLowerCase().match(LETTER) ?? []).join('');
  if (known.size >= MOST_KNOWN) known.clear();
  known.set(character, folded);
  return folded;
}

/** The letters of a text. */
export function lettersOf(text: string): Letters {
  let codes = new Uint16Array(text.length + 16);
  let at = new Uint32Array(text.length + 16);
  let n = 0;
  const push = (code: number, offset: number) => {
    if (n === codes.length) {
      const [moreCodes, moreAt] = [new Uint16Array(2 * n), new Uint32Array(2 * n)];
      moreCodes.set(codes);
      moreAt.set(at);
      [codes, at] = [moreCodes, moreAt];
    }
    codes[n] = code;
    at[n++] = offset;
  };
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code < 128) {
      if (code >= 97 && code <= 122) push(code, i);
      else if (code >= 65 && code <= 90) push(code + 32, i);
      else if (code >= 48 && code <= 57) push(code, i);
      continue;
    }
    const character = String.fromCodePoint(text.codePointAt(i)!);
    const folded = foldedOf(character);
    for (let k = 0; k < folded.length; k++) push(folded.charCodeAt(k), i);
    i += character.length - 1;
  }
  codes = codes.slice(0, n);
  at = at.slice(0, n);
  const parts: string[] = [];
  for (let from = 0; from < n; from += 8_192)
    parts.push(String.fromCharCode(...codes.subarray(from, from + 8_192)));
  return { text: parts.join(''), codes, at };
}

/** Length of the letters that stand together as a key, for finding where a changed text may stand. */
const GRAM = 6;
const BUCKETS = 1 << 18;
/** A key that stands in more places says nothing of where. */
const MOST_PLACES = 100;

/** A place with so many times fewer votes than the best is none. */
const FEWER = 3;

/** How wide a stretch of beginnings is that votes are gathered in, in letters, as a power of two. */
const WIDTH = 5;

/** Where each run of six letters stands, by a hash of it. */
export interface Grams {
  /** Places of the runs with hash `h`, from `begin[h]` to `begin[h + 1]`. */
  begin: Uint32Array;
  places: Uint32Array;
  /** Where votes are counted, stretch by stretch; nothing but zeros between two questions. */
  votes: Uint32Array;
}

function hashAt(codes: Uint16Array, i: number): number {
  let hash = 0;
  for (let k = 0; k < GRAM; k++) hash = (Math.imul(hash, 0x01000193) ^ codes[i + k]!) >>> 0;
  return (hash ^ (hash >>> 15)) & (BUCKETS - 1);
}

/** Looks up every run of six letters of a text, in time that grows with it. */
export function gramsOf({ codes }: Letters): Grams {
  const count = Math.max(0, codes.length - GRAM + 1);
  const hashes = new Uint32Array(count);
  const begin = new Uint32Array(BUCKETS + 1);
  for (let i = 0; i < count; i++) begin[(hashes[i] = hashAt(codes, i)) + 1]!++;
  for (let h = 0; h < BUCKETS; h++) begin[h + 1]! += begin[h]!;
  const next = begin.slice(0, BUCKETS);
  const places = new Uint32Array(count);
  for (let i = 0; i < count; i++) places[next[hashes[i]!]!++] = i;
  return { begin, places, votes: new Uint32Array((codes.length >> WIDTH) + 2) };
}

/**
 * Where a pattern may begin in a text that has most of its runs of six letters: the places with most of them, at most `most`,
 * each with how many.
 */
export function likelyPlaces(
  grams: Grams,
  pattern: Uint16Array,
  most: number,
): { begin: number; votes: number }[] {
  const { votes } = grams;
  // Beginnings before the text are counted with its first.
  const touched: number[] = [];
  for (let i = 0; i + GRAM <= pattern.length; i++) {
    const hash = hashAt(pattern, i);
    const [from, to] = [grams.begin[hash]!, grams.begin[hash + 1]!];
    if (to - from > MOST_PLACES) continue;
    for (let p = from; p < to; p++) {
      const stretch = Math.max(0, grams.places[p]! - i) >> WIDTH;
      if (votes[stretch]!++ === 0) touched.push(stretch);
    }
  }
  const likely = touched
    .map((stretch) => ({ begin: stretch << WIDTH, votes: votes[stretch]! + votes[stretch + 1]! }))
    .sort((a, b) => b.votes - a.votes || a.begin - b.begin)
    .slice(0, most);
  for (const stretch of touched) votes[stretch] = 0;
  return likely.filter((place) => place.votes * FEWER >= likely[0]!.votes);
}

/** Every place where letters stand as they are, in order, at most `most`: those of the rarest run of six in them are looked at. */
export function placesOf(grams: Grams, { codes }: Letters, pattern: Uint16Array, most: number): number[] {
  const found: number[] = [];
  const n = pattern.length;
  const standsAtPlace = (start: number): boolean => {
    if (start < 0 || start + n > codes.length) return false;
    for (let k = 0; k < n; k++) if (codes[start + k] !== pattern[k]) return false;
    return true;
  };
  if (n < GRAM) {
    for (let i = 0; i + n <= codes.length && found.length < most; i++) if (standsAtPlace(i)) found.push(i);
    return found;
  }
  let [rarest, from, to] = [0, 0, Infinity];
  for (let i = 0; i + GRAM <= n && to - from > 0; i++) {
    const hash = hashAt(pattern, i);
    const [first, end] = [grams.begin[hash]!, grams.begin[hash + 1]!];
    if (end - first < to - from) [rarest, from, to] = [i, first, end];
  }
  for (let p = from; p < to && found.length < most; p++) {
    const start = grams.places[p]! - rarest;
    if (standsAtPlace(start)) found.push(start);
  }
  return found;
}

/** 0, 1, 2 … n. */
function upFromNone(n: number): Int32Array {
  const all = new Int32Array(n + 1);
  for (let i = 1; i <= n; i++) all[i] = i;
  return all;
}

/** Where a pattern stands best in a stretch of text, and by how many letters it differs there. */
export interface Nearest {
  start: number;
  end: number;
  distance: number;
}

/** Letters of a pattern that are compared at once: as many as a number has bits here. */
const WORD = 32;

/**
 * The fewest letters by which a pattern differs from a stretch that ends between `from` and `to`, and where the first of those
 * ends; nothing where it is more than `most`. Thirty-two letters of the pattern are compared at once. Source: G. Myers, "A fast
 * bit-vector algorithm for approximate string matching based on dynamic programming", 1999, sections 3 and 4.
 */
function nearestEnd(
  pattern: Uint16Array,
  codes: Uint16Array,
  from: number,
  to: number,
  most: number,
): { end: number; distance: number } | undefined {
  const n = pattern.length;
  const blocks = Math.ceil(n / WORD);
  const none = new Int32Array(blocks);
  // Where each letter stands in the pattern, a bit for each place.
  const standing = new Map<number, Int32Array>();
  for (let i = 0; i < n; i++) {
    let bits = standing.get(pattern[i]!);
    if (!bits) standing.set(pattern[i]!, (bits = new Int32Array(blocks)));
    bits[i >> 5]! |= 1 << (i & 31);
  }
  // Where a longer beginning of the pattern differs by one more, or one less, than the one before it.
  const more = new Int32Array(blocks).fill(-1);
  const less = new Int32Array(blocks);
  const lastBit = 1 << ((n - 1) & 31);
  const top = 1 << 31;
  let distance = n;
  let best: { end: number; distance: number } | undefined;
  let bound = most;
  for (let j = from; j < to; j++) {
    const here = standing.get(codes[j]!) ?? none;
    let carry = 0;
    for (let b = 0; b < blocks; b++) {
      const up = more[b]!;
      const down = less[b]!;
      let same = here[b]!;
      const across = same | down;
      if (carry < 0) same |= 1;
      const along = (((same & up) + up) ^ up) | same;
      let rises = down | ~(along | up);
      let falls = up & along;
      const high = b === blocks - 1 ? lastBit : top;
      const out = rises & high ? 1 : falls & high ? -1 : 0;
      rises <<= 1;
      falls <<= 1;
      if (carry < 0) falls |= 1;
      else if (carry > 0) rises |= 1;
      more[b] = falls | ~(across | rises);
      less[b] = rises & across;
      carry = out;
    }
    distance += carry;
    if (distance <= bound) {
      best = { end: j + 1, distance };
      bound = distance - 1;
      if (bound < 0) break;
    }
  }
  return best;
}

/**
 * Finds the stretch between `from` and `to` that differs from a pattern by the fewest letters put in, left out or replaced, the
 * first of several; where none differs by `most` or fewer, an empty one that differs by all of them.
 */
export function nearest(
  pattern: Uint16Array,
  codes: Uint16Array,
  from: number,
  to: number,
  most = pattern.length - 1,
): Nearest {
  const n = pattern.length;
  const found = nearestEnd(pattern, codes, from, Math.max(from, to), Math.min(most, n - 1));
  if (!found) return { start: from, end: from, distance: n };
  // What differs by so few letters is no longer than the pattern and those: where it begins is found in that stretch alone.
  return aligned(pattern, codes, Math.max(from, found.end - n - found.distance), found.end, found.distance);
}

/**
 * What `nearest` finds, by the whole table of distances. Sources: P. H. Sellers, "The theory and computation of evolutionary
 * distances: pattern recognition", 1980; E. Ukkonen, "Finding approximate patterns in strings", 1985, for leaving out what can
 * only be worse.
 */
export function aligned(
  pattern: Uint16Array,
  codes: Uint16Array,
  from: number,
  to: number,
  most = pattern.length - 1,
): Nearest {
  const n = pattern.length;
  const width = Math.max(0, to - from);
  // Distances of the pattern's beginning of each length to what ends at a place, and where that begins.
  let cost: Int32Array = upFromNone(n);
  let origin: Int32Array = new Int32Array(n + 1).fill(from);
  let nextCost: Int32Array = new Int32Array(n + 1);
  let nextOrigin: Int32Array = new Int32Array(n + 1);
  let best: Nearest = { start: from, end: from, distance: n };
  let bound = Math.min(most, n - 1);
  // The longest beginning that is within bounds; no longer one can be, but for one letter more.
  let last = Math.min(n, bound);
  for (let j = 1; j <= width && bound >= 0; j++) {
    const code = codes[from + j - 1]!;
    nextCost[0] = 0;
    nextOrigin[0] = from + j;
    const limit = Math.min(n, last + 1);
    for (let i = 1; i <= limit; i++) {
      const replaced = cost[i - 1]! + (pattern[i - 1] === code ? 0 : 1);
      const left = i <= last ? cost[i]! + 1 : n + 1;
      const put = nextCost[i - 1]! + 1;
      if (replaced <= left && replaced <= put) {
        nextCost[i] = replaced;
        nextOrigin[i] = origin[i - 1]!;
      } else if (left <= put) {
        nextCost[i] = left;
        nextOrigin[i] = origin[i]!;
      } else {
        nextCost[i] = put;
        nextOrigin[i] = nextOrigin[i - 1]!;
      }
    }
    last = limit;
    if (last === n && nextCost[n]! <= bound) {
      best = { start: nextOrigin[n]!, end: from + j, distance: nextCost[n]! };
      bound = nextCost[n]! - 1;
    }
    while (last > 0 && nextCost[last]! > bound) last--;
    [cost, nextCost] = [nextCost, cost];
    [origin, nextOrigin] = [nextOrigin, origin];
  }
  return best;
}

/** How much of a pattern stands right before `end` (or right behind `start`, read from there), 0 to 1. */
export function standsAt(
  pattern: Uint16Array,
  codes: Uint16Array,
  place: number,
  side: 'before' | 'behind',
): number {
  const n = pattern.length;
  if (n === 0) return 0;
  const step = side === 'behind' ? 1 : -1;
  const first = side === 'behind' ? place : place - 1;
  const letter = (i: number) => pattern[side === 'behind' ? i : n - 1 - i]!;
  let run = 0;
  while (run < n && codes[first + step * run] === letter(run)) run++;
  if (run === n) return 1;
  // A few letters may be put in or left out: what begins right here and ends where it fits best.
  const width = n + 6;
  let cost: Int32Array = upFromNone(n);
  let next: Int32Array = new Int32Array(n + 1);
  let best = n;
  for (let j = 1; j <= width; j++) {
    const code = codes[first + step * (j - 1)];
    if (code === undefined) break;
    next[0] = j;
    for (let i = 1; i <= n; i++)
      next[i] = Math.min(cost[i - 1]! + (letter(i - 1) === code ? 0 : 1), cost[i]! + 1, next[i - 1]! + 1);
    best = Math.min(best, next[n]!);
    [cost, next] = [next, cost];
  }
  return 1 - best / n;
}
