/** Lines of print in one, a word that was parted at the end of a line joined again. */
export const joinedLines = (lines: readonly string[]): string => {
  const parts: string[] = [];
  for (const [i, line] of lines.entries()) {
    const parted = /\p{Ll}[-\u00ad]$/u.test(line) && /^\p{Ll}/u.test(lines[i + 1] ?? '');
    parts.push(parted ? line.slice(0, -1) : i < lines.length - 1 ? `${line} ` : line);
  }
  return parts.join('');
};
