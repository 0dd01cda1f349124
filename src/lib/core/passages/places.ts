import { foldWords } from '../text';
import {
  gramsOf,
  lettersOf,
  likelyPlaces,
  nearest,
  placesOf,
  standsAt,
  type Grams,
  type Letters,
} from './letters';

/** Letters of the surroundings that are looked at on each side, and fewer than tell anything. */
export const AROUND = 48;
export const TELLING = 6;
/** How much of the surroundings must stand right beside a place. */
const BESIDE = 0.75;
/** Most letters of a quotation that may differ, as a share: with its surroundings on one side, on both, and with none; between others. */
const DIFFERS = { one: 0.4, both: 0.5, none: 0.2, between: 0.25 };
/** From where what stood before and behind is taken to stand together, of 2. */
const CLOSED = 1.4;
/** What most that changed differs by at most, as a share of its letters. */
const A_LITTLE = 0.1;
/** Places of the same words, and likely places of changed ones, that are looked at. */
export const MOST_SAME = 1_000;
const MOST_LIKELY = 5;
/** A longer stretch between two passages, in letters, is not gone through for one. */
const LONGEST_BETWEEN = 30_000;
/** A longer quotation that changed is found by its beginning and its end, in letters. */
const LONG = 1_200;
/** Fewer letters that changed are found by their surroundings alone. */
const SHORT = 20;

interface Place {
  /** In letters. */
  start: number;
  end: number;
  /** Letters that differ, as a share of the quotation. */
  differs: number;
  before: number;
  behind: number;
}

const beside = (p: Place): number => Math.max(p.before, p.behind);
const surroundings = (p: Place): number => p.before + p.behind;

/** How much of the words of a quotation stands in another text, in their order, by their letters: 0 to 1. */
export function wordsKept(quotation: string, now: string): number {
  const [a, b] = [foldWords(quotation), foldWords(now)];
  const letters = (words: readonly string[]) => words.reduce((sum, word) => sum + word.length, 0);
  if (a.length === 0 || a.length * b.length > 1_000_000) return 0;
  // The longest common subsequence, weighed by letters.
  let row = new Int32Array(b.length + 1);
  for (const word of a) {
    const next = new Int32Array(b.length + 1);
    for (let j = 1; j <= b.length; j++)
      next[j] = Math.max(row[j]!, next[j - 1]!, word === b[j - 1] ? row[j - 1]! + word.length : 0);
    row = next;
  }
  return row[b.length]! / letters(a);
}

/** A text made ready for finding passages in it: what is made of it once serves all of them. */
export class Ground {
  private own: Letters | undefined;
  private keys: Grams | undefined;
  private readonly flat: boolean;
  private points: Uint32Array | undefined;

  constructor(readonly text: string) {
    this.flat = !/[\uD800-\uDBFF]/.test(text);
  }

  get letters(): Letters {
    return (this.own ??= lettersOf(this.text));
  }

  get grams(): Grams {
    return (this.keys ??= gramsOf(this.letters));
  }

  /** The UTF-16 offset of a code point; the end of the text for one beyond it. */
  unitOf(point: number): number {
    if (this.flat) return Math.min(point, this.text.length);
    if (!this.points) {
      const points = new Uint32Array(this.text.length + 1);
      let n = 0;
      for (let i = 0; i < this.text.length; i += this.text.codePointAt(i)! > 0xffff ? 2 : 1) points[n++] = i;
      points[n] = this.text.length;
      this.points = points.subarray(0, n + 1);
    }
    return this.points[Math.min(point, this.points.length - 1)]!;
  }

  /** The first letter that begins at a UTF-16 offset or behind it. */
  letterAt(unit: number): number {
    const { at } = this.letters;
    let [low, high] = [0, at.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (at[middle]! < unit) low = middle + 1;
      else high = middle;
    }
    return low;
  }

  /** Where letters stand in the text, with the marks and punctuation at their ends that the quotation has there. */
  unitsOf(place: { start: number; end: number }, exact: string): { start: number; end: number } {
    const { at } = this.letters;
    const lead = exact.search(/[\p{L}\p{N}]/u);
    const wholly = at[place.start]! - Math.max(0, lead);
    if (this.text.startsWith(exact, wholly) && wholly >= 0)
      return { start: wholly, end: wholly + exact.length };
    let start = at[place.start]!;
    // Behind the last letter, and on over what hangs on it and what the quotation ends with.
    const last = at[place.end - 1]!;
    let end = last + (this.text.codePointAt(last)! > 0xffff ? 2 : 1);
    while (end < this.text.length && /\p{M}/u.test(this.text[end]!)) end++;
    const trail = /[^\p{L}\p{N}\p{M}\s]+$/u.exec(exact)?.[0].length ?? 0;
    for (let n = 0; n < trail && end < this.text.length && PUNCTUATION.test(this.text[end]!); n++) end++;
    for (let n = 0; n < lead && start > 0 && PUNCTUATION.test(this.text[start - 1]!); n++) start--;
    return { start, end };
  }
}

const PUNCTUATION = /[^\p{L}\p{N}\p{M}\s]/u;

/** What is looked for: the quotation and its surroundings as letters, and about where it was, in letters. */
export interface Wanted {
  quote: Letters;
  before: Uint16Array;
  behind: Uint16Array;
  /** The surroundings say something. */
  told: boolean;
  about: number;
}

function placed(ground: Ground, wanted: Wanted, start: number, end: number, differs: number): Place {
  const { codes } = ground.letters;
  return {
    start,
    end,
    differs,
    before: standsAt(wanted.before, codes, start, 'before'),
    behind: standsAt(wanted.behind, codes, end, 'behind'),
  };
}

/** Every place with the letters of the quotation. */
function samePlaces(ground: Ground, wanted: Wanted): Place[] {
  const { codes } = wanted.quote;
  if (codes.length === 0) return [];
  return placesOf(ground.grams, ground.letters, codes, MOST_SAME).map((start) =>
    placed(ground, wanted, start, start + codes.length, 0),
  );
}

/** Where a quotation stands best in a stretch; a long one by its beginning and its end. */
function bestIn(ground: Ground, { codes: pattern }: Letters, from: number, to: number) {
  const { codes } = ground.letters;
  const [low, high] = [Math.max(0, from), Math.min(codes.length, to)];
  if (pattern.length <= LONG) {
    // Most that changed did so a little, and that is looked for in a fraction of the time.
    const near = nearest(pattern, codes, low, high, Math.ceil(pattern.length * A_LITTLE));
    if (near.end > near.start) return near;
    return nearest(pattern, codes, low, high, Math.floor(DIFFERS.both * pattern.length));
  }
  const half = LONG / 2;
  const first = nearest(pattern.subarray(0, half), codes, low, Math.min(high, low + 3 * half));
  const last = nearest(pattern.subarray(-half), codes, Math.max(first.end, high - 3 * half), high);
  const length = last.end - first.start;
  return {
    start: first.start,
    end: last.end,
    distance:
      first.distance + last.distance + Math.max(0, Math.abs(length - pattern.length) - pattern.length / 4),
  };
}

/** Places of the letters right behind the words before, or right before the words behind, at most a few. */
function edges(ground: Ground, context: Uint16Array, side: 'before' | 'behind'): number[] {
  const some = side === 'before' ? context.slice(-12) : context.slice(0, 12);
  if (some.length < TELLING) return [];
  return placesOf(ground.grams, ground.letters, some, 6).map((start) =>
    side === 'before' ? start + some.length : start,
  );
}

/** Places where most of the letters of the quotation stand. */
function changedPlaces(ground: Ground, wanted: Wanted): Place[] {
  const n = wanted.quote.codes.length;
  const slack = Math.min(400, Math.ceil(n / 4) + 16);
  const found = new Map<number, Place>();
  const look = (from: number, to: number): Place | undefined => {
    const best = bestIn(ground, wanted.quote, from, to);
    if (best.end <= best.start || found.has(best.start)) return undefined;
    const place = placed(ground, wanted, best.start, best.end, best.distance / n);
    found.set(best.start, place);
    return place;
  };
  // Sentences that are much alike are told apart by what is beside them: it is looked for along with the quotation.
  const lead = wanted.before.length;
  const whole = joined(wanted.before, wanted.quote.codes.slice(0, LONG), wanted.behind);
  for (const { begin } of likelyPlaces(ground.grams, whole, MOST_LIKELY)) {
    const place = look(begin + lead - slack, begin + lead + n + 64 + slack);
    // With all that was beside it, there is no better one.
    if (place && place.differs <= DIFFERS.none && Math.min(place.before, place.behind) >= BESIDE)
      return [place];
  }
  if (n >= SHORT)
    for (const { begin, votes } of likelyPlaces(ground.grams, wanted.quote.codes, 3))
      if (votes >= 2) look(begin - slack, begin + n + 64 + slack);
  if (heldByItsSurroundings([...found.values()], wanted.about)) return [...found.values()];
  for (const edge of edges(ground, wanted.before, 'before')) look(edge, edge + n + slack);
  for (const edge of edges(ground, wanted.behind, 'behind')) look(edge - n - slack, edge);
  return [...found.values()];
}

function joined(...parts: Uint16Array[]): Uint16Array {
  const all = new Uint16Array(parts.reduce((sum, part) => sum + part.length, 0));
  let n = 0;
  for (const part of parts) {
    all.set(part, n);
    n += part.length;
  }
  return all;
}

/** How well the words before and the words behind stand together, with nothing between, where they do so best: 0 to 2. */
function closedUp(ground: Ground, { before, behind }: Wanted): number {
  if (before.length < TELLING || behind.length < TELLING) return 0;
  const pattern = joined(before, behind);
  const { codes } = ground.letters;
  let best = pattern.length;
  for (const { begin } of likelyPlaces(ground.grams, pattern, MOST_LIKELY)) {
    const [from, to] = [Math.max(0, begin - 16), Math.min(codes.length, begin + pattern.length + 64)];
    // What is no better than the best so far, or says that nothing was left out, is not wanted.
    const most = Math.min(best, Math.floor(pattern.length * (1 - CLOSED / 2)));
    best = Math.min(best, nearest(pattern, codes, from, to, most).distance);
  }
  return 2 * (1 - best / pattern.length);
}

/** The stretch between the words that were before and those that were behind, if they are not far apart. */
export function between(ground: Ground, wanted: Wanted): { start: number; end: number } | undefined {
  const most = 3 * wanted.quote.codes.length + 200;
  const behind = edges(ground, wanted.behind, 'behind');
  const stretches = edges(ground, wanted.before, 'before').flatMap((start) =>
    behind.filter((end) => end >= start && end - start <= most).map((end) => ({ start, end })),
  );
  const far = (s: { start: number }) => Math.abs(s.start - wanted.about);
  const { codes } = ground.letters;
  const beyondDoubt = stretches.filter(
    ({ start, end }) =>
      standsAt(wanted.before, codes, start, 'before') >= BESIDE &&
      standsAt(wanted.behind, codes, end, 'behind') >= BESIDE,
  );
  return beyondDoubt.sort((x, y) => x.end - x.start - (y.end - y.start) || far(x) - far(y))[0];
}

/** The place that is meant among several, or none: surroundings first, then the letters, then where it was. */
function meant(places: Place[], about: number): Place | undefined {
  const worth = (p: Place) => surroundings(p) - 2 * p.differs;
  return places.sort(
    (x, y) => worth(y) - worth(x) || Math.abs(x.start - about) - Math.abs(y.start - about),
  )[0];
}

/** A place that is the quotation's by what stands beside it; of changed ones, only where little has changed. */
function heldByItsSurroundings(places: Place[], about: number): Place | undefined {
  return meant(
    places.filter((p) => {
      if (beside(p) < BESIDE) return false;
      const both = Math.min(p.before, p.behind) >= BESIDE;
      return p.differs <= (both ? DIFFERS.both : DIFFERS.one);
    }),
    about,
  );
}

/** A changed place whose surroundings stand on one side: up to where those of the other side stand, if they are near. */
function fitted(ground: Ground, { before, behind, quote }: Wanted, place: Place): Place {
  const { codes } = ground.letters;
  // No further than what the place is shorter by than the quotation, and a word.
  const reach = Math.max(0, quote.codes.length - (place.end - place.start)) + 16;
  const fits = (context: Uint16Array, at: { distance: number }) =>
    context.length > 0 && at.distance <= context.length * (1 - BESIDE);
  if (place.behind < BESIDE) {
    const at = nearest(behind, codes, place.start, Math.min(codes.length, place.end + reach + behind.length));
    if (fits(behind, at) && at.start > place.start) return { ...place, end: at.start };
  }
  if (place.before < BESIDE) {
    const at = nearest(before, codes, Math.max(0, place.start - reach - before.length), place.end);
    if (fits(before, at) && at.end < place.end) return { ...place, start: at.end };
  }
  return place;
}

/** The place of a passage in letters, by the same words and then by changed ones; nothing when it is gone. */
export function placeOfQuote(ground: Ground, wanted: Wanted, was: number | undefined): Place | undefined {
  const same = samePlaces(ground, wanted);
  const held = heldByItsSurroundings(same, wanted.about);
  if (held && Math.min(held.before, held.behind) >= BESIDE) return held;
  // The same words may stand elsewhere with a little of what was beside them, and changed ones here with all of it.
  const changed = wanted.quote.codes.length < TELLING ? [] : changedPlaces(ground, wanted);
  const here = heldByItsSurroundings([...(held ? [held] : []), ...changed], wanted.about);
  // What stood beside it may stand together now, better than beside any place that is like it: it was left out.
  const plain = here && here.differs <= DIFFERS.none && Math.min(here.before, here.behind) >= BESIDE;
  const together = plain ? 0 : closedUp(ground, wanted);
  if (here && !(together > CLOSED && together > surroundings(here) + 0.2))
    return here.differs > 0 ? fitted(ground, wanted, here) : here;
  const inPlace = same.find((p) => p.start === was);
  if (inPlace) return inPlace;
  if (together > CLOSED) return undefined;
  // Of the same words in two places, none beside what was beside them, nobody knows which is meant.
  if (same.length > 0) return same.length === 1 || !wanted.told ? meant(same, wanted.about) : undefined;
  const [first, second] = changed
    .filter((p) => p.differs <= DIFFERS.none && wanted.quote.codes.length >= SHORT)
    .sort((x, y) => x.differs - y.differs);
  return first && (!second || second.differs > first.differs + 0.1) ? first : undefined;
}

/** The place of a passage between two others that it stood between, in letters: little of it differs, and it was not left out. */
export function placeBetween(ground: Ground, wanted: Wanted, from: number, to: number): Place | undefined {
  const n = wanted.quote.codes.length;
  if (to - from > LONGEST_BETWEEN || to - from < n / 2 || n < SHORT || n > LONG) return undefined;
  const { codes } = ground.letters;
  const best = nearest(wanted.quote.codes, codes, from, to, Math.floor(DIFFERS.between * n));
  if (best.end <= best.start) return undefined;
  const place = placed(ground, wanted, best.start, best.end, best.distance / n);
  if (place.differs > (beside(place) >= BESIDE ? DIFFERS.between : DIFFERS.between / 2)) return undefined;
  const around = joined(wanted.before, wanted.behind);
  const closed = 1 - nearest(around, codes, Math.max(0, from - AROUND), to + AROUND).distance / around.length;
  return 2 * closed > CLOSED && 2 * closed > surroundings(place) ? undefined : fitted(ground, wanted, place);
}
