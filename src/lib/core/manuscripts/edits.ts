/** A stretch of a text that is replaced. */
export interface Edit {
  from: number;
  to: number;
  by: string;
}

/** A text with stretches of it replaced; they do not overlap. Where two begin at one place, the one given first comes first. */
export function edited(text: string, edits: readonly Edit[]): string {
  let out = '';
  let at = 0;
  for (const { from, to, by } of [...edits].sort((a, b) => a.from - b.from || a.to - b.to)) {
    out += text.slice(at, Math.max(at, from)) + by;
    at = Math.max(at, to);
  }
  return out + text.slice(at);
}
