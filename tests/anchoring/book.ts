/**
 * A book, passages of it, and the book as it reads later: made from a seed, the same each time, for holding finding again
 * against what is known.
 *
 * The book is of invented words whose frequencies fall off as those of a language do (Zipf), in sentences of four to thirty
 * words and paragraphs of one to nine; of its sentences every twentieth is said again somewhere. Passages are parts of
 * sentences, sentences and runs of up to three, every eighth of them a sentence that is there more than once.
 *
 * Later, sentences are put in and left out all over the book. Of the passages every tenth is left out, with the whole of its
 * sentences; of the others a third is as it was, and the rest is changed in one way each: typography (quotation marks,
 * dashes, ligatures), hyphens and line ends within words, blanks lost, a word put in, left out or replaced, or noise as a
 * poor scan has it: up to a tenth of the letters put in, left out or replaced.
 */
import { describe, type Selectors } from '../../src/lib/core/passages';
import { numbers } from '../hostile/mutate';

/** A passage as it was kept, and where it stands later; nothing where it was left out. */
export interface Kept {
  id: string;
  selectors: Selectors;
  change: string;
  later: { start: number; end: number } | null;
}
export interface Book {
  before: string;
  later: string;
  passages: Kept[];
}

const CHANGES = ['typography', 'hyphens', 'blanks', 'word put in', 'word left out', 'word replaced', 'noise'];

interface Token {
  text: string;
  /** What stands behind it. */
  gap: string;
  sentence: number;
}

/** Makes a book of about so many characters, with so many passages. */
export function book(seed: number, characters: number, passages: number): Book {
  const next = numbers(seed);
  const upTo = (n: number) => Math.floor(next() * n);
  const one = <T>(of: readonly T[]): T => of[upTo(of.length)]!;

  const syllables =
    'ba be bi bo da de di do fa fi ga ge ka ke ki ko la le li lo ma me mi mo na ne ni no pa pe po ra re ri ro sa se si so ta te ti to va ve ffi tru sto pli gra ner tal mund'.split(
      ' ',
    );
  const words = Array.from({ length: 4_000 }, (_, i) =>
    Array.from({ length: 1 + (i > 40 ? 1 : 0) + upTo(3) }, () => one(syllables)).join(''),
  );
  const word = () =>
    words[Math.min(words.length - 1, Math.floor(Math.exp(next() * Math.log(words.length)) - 1))]!;
  const sentence = (): string[] => {
    const some = Array.from({ length: 4 + upTo(27) }, word);
    some[0] = some[0]![0]!.toUpperCase() + some[0]!.slice(1);
    if (next() < 0.1 && some.length > 8) some[4] = `“${some[4]}”`;
    if (next() < 0.1 && some.length > 8) some.splice(6, 0, '–');
    if (next() < 0.2) some[2] += ',';
    some[some.length - 1] += '.';
    return some;
  };

  const tokens: Token[] = [];
  const sentences: { from: number; to: number; again: boolean }[] = [];
  const said: string[][] = [];
  for (let length = 0, left = 3; length < characters; left--) {
    const again = said.length > 50 && next() < 0.05;
    const some = again ? one(said) : sentence();
    said.push(some);
    const from = tokens.length;
    for (const text of some) tokens.push({ text, gap: ' ', sentence: sentences.length });
    if (left === 0) {
      tokens.at(-1)!.gap = '\n';
      left = 1 + upTo(9);
    }
    sentences.push({ from, to: tokens.length, again });
    length += some.join(' ').length + 1;
  }

  const starts: number[] = [];
  let before = '';
  for (const { text, gap } of tokens) {
    starts.push(before.length);
    before += text + gap;
  }

  // Passages far enough from one another that what happens to one is not done to another.
  const chosen: { from: number; to: number; change: string }[] = [];
  const every = Math.floor(sentences.length / passages);
  for (let i = 0; i < passages; i++) {
    const stretch = sentences.slice(i * every, (i + 1) * every - 3);
    const repeated = stretch.find((s) => s.again);
    const at =
      i % 8 === 0 && repeated ? sentences.indexOf(repeated) : i * every + upTo(Math.max(1, every - 4));
    let { from, to } = sentences[at]!;
    const kind = upTo(4);
    const gone = i % 10 === 3;
    if (kind === 0 && !gone && to - from > 10) [from, to] = [from + 1, to - 2];
    else if (kind === 1 && i % 8 !== 0) to = sentences[Math.min(sentences.length - 1, at + 1 + upTo(2))]!.to;
    chosen.push({ from, to, change: gone ? 'left out' : i % 3 === 0 ? 'none' : one(CHANGES) });
  }

  const changed = tokens.map(({ text, gap }) => text + gap);
  const inPassage = new Uint8Array(tokens.length);
  for (const { from, to } of chosen) inPassage.fill(1, from, to);
  for (const { from, to } of sentences) {
    if (inPassage.subarray(from, to).some((n) => n === 1)) continue;
    if (next() < 0.03) changed.fill('', from, to);
    else if (next() < 0.05) changed[to - 1] += `${sentence().join(' ')} `;
  }
  const letters = 'abcdefghijklmnopqrstuvwxyz';
  for (const { from, to, change } of chosen) {
    const at = from + 1 + upTo(Math.max(1, to - from - 2));
    if (change === 'left out') changed.fill('', from, to);
    if (change === 'word put in') changed[at] = `${word()} ${changed[at]}`;
    if (change === 'word left out' && to - from > 4) changed[at] = '';
    if (change === 'word replaced') changed[at] = `${word()} `;
    if (change === 'blanks') for (let i = from; i < to - 1; i += 3) changed[i] = changed[i]!.trimEnd();
    if (change === 'hyphens')
      for (let i = from + 1; i < to; i += 4) {
        const { text, gap } = tokens[i]!;
        if (text.length > 5) changed[i] = `${text.slice(0, 3)}-\n${text.slice(3)}${gap}`;
      }
    if (change === 'typography')
      for (let i = from; i < to; i++)
        changed[i] = changed[i]!.replace(/[“”]/g, '"')
          .replace('–', '--')
          .replace('ffi', 'ﬃ')
          .replace(',', ' ,');
    if (change === 'noise') {
      const share = 0.02 + next() * 0.08;
      for (let i = from; i < to; i++)
        changed[i] = [...changed[i]!]
          .map((c) => {
            if (/\s/.test(c) || next() > share) return c;
            const what = upTo(3);
            return what === 0 ? '' : what === 1 ? one([...letters]) : c + one([...letters]);
          })
          .join('');
    }
  }

  let later = '';
  const now: { start: number; end: number }[] = [];
  for (const text of changed) {
    const start = later.length;
    later += text;
    now.push({ start, end: start + text.trimEnd().length });
  }
  return {
    before,
    later,
    passages: chosen.map(({ from, to, change }, i) => ({
      id: `p${i}`,
      selectors: describe(before, starts[from]!, starts[to - 1]! + tokens[to - 1]!.text.length),
      change,
      later: change === 'left out' ? null : { start: now[from]!.start, end: now[to - 1]!.end },
    })),
  };
}

/** How finding them again came out: those in the right place, wrongly placed or lost, and those left out and yet "found". */
export function outcome({ passages }: Book, found: readonly { state: string; start: number; end: number }[]) {
  const wrong: string[] = [];
  let [there, right, gone, raised] = [0, 0, 0, 0];
  passages.forEach(({ id, change, later }, i) => {
    const { state, start, end } = found[i]!;
    if (!later) {
      gone++;
      if (state === 'lost') return;
      raised++;
      wrong.push(`${id} ${change}: ${state}`);
      return;
    }
    there++;
    const shared = Math.min(end, later.end) - Math.max(start, later.start);
    const all = Math.max(end, later.end) - Math.min(start, later.start);
    if (state !== 'lost' && shared / all >= 0.8) right++;
    else wrong.push(`${id} ${change}: ${state} ${start}–${end} for ${later.start}–${later.end}`);
  });
  return { there, right, gone, raised, wrong };
}
