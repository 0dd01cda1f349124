import { nfc, squash } from '../text';

/** Longest reference that is read, in characters; a longer text is a text. */
export const LONGEST = 1_500;
/** What a reference is numbered or marked with in a list. */
export const MARKER = /^\s*(?:\[\d{1,3}\]|\(\d{1,3}\)|\d{1,3}[.)](?=\s)|[-*•–])\s*/;

/** Whether a text reads as a bibliographic reference: a year and either a name before it, a quoted title, or numbers after it. */
export function looksLikeReference(text: string): boolean {
  if (text.length > 20 * LONGEST) return false;
  const line = squash(text.replace(MARKER, ''));
  if (line.length < 25 || line.length > LONGEST) return false;
  const year = /\b(?:1[5-9]|20)\d\d[a-z]?\b|\bn\.\s?d\.|\bin press\b|\bforthcoming\b/i.test(line);
  const names =
    /^[\p{Lu}][\p{L}’'-]+(?:\s[\p{Lu}][\p{L}’'-]+)?,?\s+(?:\p{Lu}\.?[\s-]?)+|^[\p{L}’' -]+,\s+\p{Lu}/u.test(
      line,
    );
  const numbers = /\b\d+\s*\(\d+\)|\bpp?\.\s*\d|\bvol\.\s*\d|\d\s*:\s*\d+\s*[–-]\s*\d+|\(\d{4}[a-z]?\)/i.test(
    line,
  );
  const quoted = /[“"„«][^”"“»]{8,}[”"“»]/.test(line);
  return year && (names || quoted) && (numbers || quoted || /\.\s+\p{Lu}/u.test(line));
}

/**
 * A pasted list cut into references: numbered or bulleted lines, lines apart by blank ones, or one a line. Lines that
 * a paragraph was broken into are joined when the next does not begin as a reference does.
 */
export function splitReferences(text: string): string[] {
  const clean = nfc(text).replace(/\r\n?/g, '\n').trim();
  if (!clean) return [];
  const lines = clean.split('\n');
  const marked = lines.filter((l) => MARKER.test(l) && !/^\s*[-–]\s*\d/.test(l)).length;
  const blocks = clean.split(/\n\s*\n/);
  let parts: string[];
  if (marked >= 2 && MARKER.test(lines[0]!)) {
    parts = [];
    for (const line of lines) {
      if (MARKER.test(line) || parts.length === 0) parts.push(line);
      else parts[parts.length - 1] += ` ${line.trim()}`;
    }
  } else if (blocks.length > 1) parts = blocks.map((b) => b.replace(/\n/g, ' '));
  else {
    parts = [];
    const begins = (line: string) =>
      /^(?:\p{Lu}[\p{L}’'-]+|(?:van|von|de|den|der)\s)/u.test(line) &&
      /,|\(\d{4}|\b(?:1[5-9]|20)\d\d\b/.test(line.slice(0, 120));
    let last = '';
    for (const line of lines.map((l) => l.trim())) {
      const before = parts[parts.length - 1];
      const ended = before !== undefined && /[.)\d/]$/.test(last);
      // What is longer than any reference need not be looked at again with every line.
      const whole = ended && /[.)]$/.test(last) && before.length <= 2 * LONGEST && looksLikeReference(before);
      if (before === undefined || (begins(line) && ended) || whole) parts.push(line);
      else parts[parts.length - 1] = `${before} ${line}`;
      if (line) last = line;
    }
  }
  return parts.map((p) => squash(p.replace(MARKER, ''))).filter((p) => p.length > 3);
}
