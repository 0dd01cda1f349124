/**
 * Whether a title shouts: at least two words of four or more letters, and none of them has a lower-case letter.
 * A common practice, not a published rule: shorter words may be abbreviations (`DNA`, `USA`).
 */
export function isShouting(title: string): boolean {
  const long = title.match(/\p{L}{4,}/gu) ?? [];
  const cased = long.filter((w) => w.toLowerCase() !== w.toUpperCase());
  return cased.length >= 2 && cased.every((w) => w === w.toUpperCase());
}

/**
 * A guess at sentence case: the first letter of the title and of what follows `:`, `?`, `!`, `.` or an opening
 * dash is a capital. In a shouting title everything else goes to lower case, so proper names must be checked
 * by the person; otherwise words in mixed case or in capitals are left as they are.
 */
export function sentenceCase(title: string): string {
  const shouting = isShouting(title);
  let start = true;
  return title.replace(/<[^<>]*>|[\p{L}\p{N}][\p{L}\p{N}\p{M}’'-]*|[:?!.–—]/gu, (token) => {
    if (token.startsWith('<')) return token;
    if (/^[:?!.–—]$/u.test(token)) {
      start = true;
      return token;
    }
    const first = start;
    start = false;
    const plainWord = /^\p{Lu}\p{Ll}*$/u.test(token);
    const lower = shouting || plainWord ? token.toLowerCase() : token;
    return first ? lower.charAt(0).toUpperCase() + lower.slice(1) : lower;
  });
}
