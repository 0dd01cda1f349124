/**
 * The rich text a field of CSL can hold: italics, subscript, superscript, small capitals, and words whose capitals stay as they
 * are (CSL-JSON input format, “HTML-like formatting tags”).
 */
export const RICH_MARKS = {
  italic: ['<i>', '</i>'],
  subscript: ['<sub>', '</sub>'],
  superscript: ['<sup>', '</sup>'],
  'small capitals': ['<span style="font-variant:small-caps;">', '</span>'],
  'keep capitals': ['<span class="nocase">', '</span>'],
} as const;
export type RichMark = keyof typeof RICH_MARKS;

/** A text with a selection in it, from and up to a character (in UTF-16 units, as fields of a form count). */
export interface Selected {
  text: string;
  from: number;
  to: number;
}

/** A selection without the blanks at its ends, and without a half of a tag at either. */
function tightened({ text, from, to }: Selected): Selected {
  const inTag = (at: number) => {
    const open = at === 0 ? -1 : text.lastIndexOf('<', at - 1);
    const close = open === -1 ? -1 : text.indexOf('>', open);
    return open !== -1 && close >= at && /^<\/?[a-z]/i.test(text.slice(open, open + 3))
      ? { open, close: close + 1 }
      : undefined;
  };
  let [a, b] = [Math.min(from, to), Math.max(from, to)];
  a = inTag(a)?.close ?? a;
  b = inTag(b)?.open ?? b;
  while (a < b && /\s/.test(text[a]!)) a++;
  while (b > a && /\s/.test(text[b - 1]!)) b--;
  return { text, from: a, to: Math.max(a, b) };
}

/**
 * A text with a mark put round what is selected, or taken off where it is round it already; what was selected stays so. Where
 * nothing is selected, nothing changes.
 */
export function marked(given: Selected, mark: RichMark): Selected {
  const { text, from, to } = tightened(given);
  const [open, close] = RICH_MARKS[mark];
  if (from >= to) return given;
  const before = text.slice(0, from);
  const inside = text.slice(from, to);
  const after = text.slice(to);
  if (before.endsWith(open) && after.startsWith(close))
    return {
      text: before.slice(0, -open.length) + inside + after.slice(close.length),
      from: from - open.length,
      to: to - open.length,
    };
  const within = inside.slice(open.length, -close.length);
  if (inside.startsWith(open) && inside.endsWith(close) && !within.includes(open))
    return { text: before + within + after, from, to: from + within.length };
  return { text: before + open + inside + close + after, from: from + open.length, to: to + open.length };
}
