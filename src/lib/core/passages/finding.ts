/** A stretch of a text, UTF-16 offsets, end exclusive. */
export interface Stretch {
  start: number;
  end: number;
}

/** Most hits that are told of one search. */
export const MOST_HITS = 5_000;

const MARKS = /\p{M}/gu;
const SINGLE: [RegExp, string][] = [
  [/[‘’‚‛ʼ`´]/g, "'"],
  [/[“”„‟«»]/g, '"'],
  [/[‐‑‒–—―−]/g, '-'],
];

function foldedOf(character: string): string {
  let folded = character.normalize('NFKD').replace(MARKS, '').toLowerCase();
  for (const [from, to] of SINGLE) folded = folded.replace(from, to);
  return folded;
}

/** A text as it is searched, each of its units with where the character it came of begins and ends. */
function searched(text: string): { folded: string; from: Uint32Array; to: Uint32Array } {
  const parts: string[] = [];
  let [from, to] = [new Uint32Array(text.length + 16), new Uint32Array(text.length + 16)];
  let n = 0;
  const known = new Map<string, string>();
  const push = (part: string, start: number, end: number) => {
    parts.push(part);
    if (n + part.length > from.length) {
      const [moreFrom, moreTo] = [
        new Uint32Array(2 * (n + part.length)),
        new Uint32Array(2 * (n + part.length)),
      ];
      moreFrom.set(from);
      moreTo.set(to);
      [from, to] = [moreFrom, moreTo];
    }
    for (let k = 0; k < part.length; k++) {
      from[n] = start;
      to[n++] = end;
    }
  };
  let blank = true;
  for (let i = 0; i < text.length;) {
    const character = String.fromCodePoint(text.codePointAt(i)!);
    const end = i + character.length;
    if (/\s/.test(character)) {
      if (!blank) push(' ', i, end);
      blank = true;
    } else if (character !== '\u00ad') {
      let folded = known.get(character);
      if (folded === undefined) known.set(character, (folded = foldedOf(character)));
      if (folded) push(folded, i, end);
      blank &&= !folded;
    }
    i = end;
  }
  return { folded: parts.join(''), from, to };
}

/**
 * Makes a text ready for being searched and gives what finds every place of some words in it, in order, at most `MOST_HITS`.
 * Case, accents, kinds of quotation marks and dashes, soft hyphens and how blank words are apart make no difference.
 */
export function finder(text: string): (words: string) => Stretch[] {
  const { folded, from, to } = searched(text);
  return (words) => {
    const wanted = searched(words).folded.trimEnd();
    const hits: Stretch[] = [];
    if (!wanted) return hits;
    for (let at = folded.indexOf(wanted); at !== -1 && hits.length < MOST_HITS;) {
      hits.push({ start: from[at]!, end: to[at + wanted.length - 1]! });
      at = folded.indexOf(wanted, at + wanted.length);
    }
    return hits;
  };
}
