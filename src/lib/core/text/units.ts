/** Length of a text in Unicode code points. */
export function codePointLength(text: string): number {
  return toCodePoint(text, text.length);
}

/** Code points before a UTF-16 offset. An offset inside a surrogate pair counts the pair as passed. */
export function toCodePoint(text: string, unit: number): number {
  // Most texts have no pair at all, and that is seen at once.
  if (!/[\uD800-\uDBFF]/.test(text.slice(0, unit))) return Math.min(unit, text.length);
  let points = 0;
  for (let i = 0; i < unit && i < text.length; points++) i += (text.codePointAt(i) ?? 0) > 0xffff ? 2 : 1;
  return points;
}

/** UTF-16 offset of the code point with the given index; the text's length when it lies past the end. */
export function toCodeUnit(text: string, point: number): number {
  let unit = 0;
  for (let left = point; left > 0 && unit < text.length; left--)
    unit += (text.codePointAt(unit) ?? 0) > 0xffff ? 2 : 1;
  return unit;
}

/** The part of a text between two code point indexes. */
export function sliceCodePoints(text: string, start: number, end: number): string {
  return text.slice(toCodeUnit(text, start), toCodeUnit(text, end));
}
