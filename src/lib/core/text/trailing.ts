/**
 * A text without the given characters at its end. A pattern such as `/[.,]+$/` looks at every run of them in the text again
 * and again; this looks at the end alone.
 */
export function withoutTrailing(text: string, characters: string): string {
  let end = text.length;
  while (end > 0 && characters.includes(text[end - 1]!)) end--;
  return text.slice(0, end);
}

/** A text of several lines in one, its lines trimmed and a blank between them. */
export const inOneLine = (text: string): string =>
  /[\r\n]/.test(text)
    ? text
        .split(/[\r\n]+/)
        .map((line) => line.trim())
        .filter(Boolean)
        .join(' ')
    : text;
