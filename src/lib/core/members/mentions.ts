import { fold } from '../text';

/**
 * Who of some is named in a text: `@` and their whole name, or the first word of it where it is nobody else’s too. Letters and accents
 * are compared as the search does, and a name ends where a word ends. The usual way of naming somebody in a message (common practice).
 */
export function mentionedIn<P extends { id: string; name: string }>(
  text: string,
  people: readonly P[],
): string[] {
  if (!text.includes('@')) return [];
  const words = (name: string) => fold(name).split(' ').filter(Boolean);
  const said = text
    .split(/(?<![\p{L}\p{N}])@/u)
    .slice(1)
    .filter((after) => /^\S/.test(after))
    // Longer than any name is not looked at.
    .map((after) => words(after.slice(0, 200)));
  const firsts = people.map(({ name }) => words(name)[0] ?? '');
  return people
    .filter(({ name }, i) => {
      const whole = words(name);
      const alone = firsts.filter((first) => first === firsts[i]).length === 1;
      return said.some(
        (after) =>
          whole.length > 0 &&
          (whole.every((word, j) => after[j] === word) || (alone && after[0] === whole[0])),
      );
    })
    .map(({ id }) => id);
}
