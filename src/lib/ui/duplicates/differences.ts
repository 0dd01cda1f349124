/** A stretch of a text, and whether the other text lacks it. */
export interface Part {
  text: string;
  differs: boolean;
}

const MOST = 400;

/**
 * The parts of `mine` that are and are not in `other`, by the longest common subsequence of characters. Texts too
 * long for that are compared as wholes.
 */
export function parts(mine: string, other: string): Part[] {
  if (mine === other || other === '') return [{ text: mine, differs: false }];
  if (mine.length > MOST || other.length > MOST) return [{ text: mine, differs: true }];
  const [a, b] = [[...mine], [...other]];
  const table = Array.from({ length: a.length + 1 }, () => new Uint16Array(b.length + 1));
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      table[i]![j] =
        a[i] === b[j] ? table[i + 1]![j + 1]! + 1 : Math.max(table[i + 1]![j]!, table[i]![j + 1]!);
  const out: Part[] = [];
  const put = (text: string, differs: boolean) => {
    const last = out[out.length - 1];
    if (last && last.differs === differs) last.text += text;
    else out.push({ text, differs });
  };
  let [i, j] = [0, 0];
  while (i < a.length) {
    if (j < b.length && a[i] === b[j]) {
      put(a[i]!, false);
      i++;
      j++;
    } else if (j < b.length && table[i]![j + 1]! >= table[i + 1]![j]!) j++;
    else put(a[i++]!, true);
  }
  return out;
}
