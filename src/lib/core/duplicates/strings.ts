/** How far apart two words may be and still be one mistyped. Words are in comparison form. */

/**
 * Jaro's similarity of two strings with Winkler's bonus for a common beginning of up to four letters, 0 to 1.
 * Source: W. E. Winkler, "String Comparator Metrics and Enhanced Decision Rules in the Fellegi–Sunter Model of Record
 * Linkage", 1990 (scaling 0.1).
 */
export function jaroWinkler(a: string, b: string): number {
  if (a === b) return 1;
  if (a === '' || b === '') return 0;
  const window = Math.max(0, Math.floor(Math.max(a.length, b.length) / 2) - 1);
  const taken = new Uint8Array(b.length);
  const inA: number[] = [];
  for (let i = 0; i < a.length; i++)
    for (let j = Math.max(0, i - window); j < Math.min(b.length, i + window + 1); j++)
      if (!taken[j] && a.charCodeAt(i) === b.charCodeAt(j)) {
        taken[j] = 1;
        inA.push(i);
        break;
      }
  if (inA.length === 0) return 0;
  let at = 0;
  let swapped = 0;
  for (const i of inA) {
    while (!taken[at]) at++;
    if (a.charCodeAt(i) !== b.charCodeAt(at++)) swapped++;
  }
  const m = inA.length;
  const jaro = (m / a.length + m / b.length + (m - swapped / 2) / m) / 3;
  let begin = 0;
  while (begin < 4 && begin < a.length && begin < b.length && a[begin] === b[begin]) begin++;
  return jaro + begin * 0.1 * (1 - jaro);
}

/**
 * Whether at most `most` letters were left out, put in, changed, or swapped with their neighbour (restricted
 * Damerau–Levenshtein distance). Strings of more than a few hundred characters are not asked about.
 */
export function within(a: string, b: string, most: number): boolean {
  if (Math.abs(a.length - b.length) > most) return false;
  let [x, y] = [a.length, b.length];
  while (x > 0 && y > 0 && a[x - 1] === b[y - 1]) {
    x--;
    y--;
  }
  return from(a, b, 0, 0, x, y, most);
}

/** The same for what stands between places of both: tried step by step, since `most` is small. */
function from(a: string, b: string, i: number, j: number, x: number, y: number, most: number): boolean {
  while (i < x && j < y && a[i] === b[j]) {
    i++;
    j++;
  }
  if (i === x || j === y) return x - i + (y - j) <= most;
  if (most === 0) return false;
  return (
    from(a, b, i + 1, j + 1, x, y, most - 1) ||
    from(a, b, i + 1, j, x, y, most - 1) ||
    from(a, b, i, j + 1, x, y, most - 1) ||
    (i + 1 < x &&
      j + 1 < y &&
      a[i] === b[j + 1] &&
      a[i + 1] === b[j] &&
      from(a, b, i + 2, j + 2, x, y, most - 1))
  );
}

/** Whether two words are one, or one of them mistyped: one slip in a word of five letters, two in one of nine. */
export function sameWord(a: string, b: string): boolean {
  if (a === b) return true;
  const length = Math.min(a.length, b.length);
  if (length < 5 || /\d/.test(a) || /\d/.test(b)) return false;
  return within(a, b, length < 9 ? 1 : 2);
}

/** A 32-bit hash of a string (FNV-1a; its authors' constants). */
export function hash32(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash >>> 0;
}
