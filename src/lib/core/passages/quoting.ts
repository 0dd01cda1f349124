import { lettersOf } from './letters';

/** What differs between the words of a work and a quotation of them, in the order of the quotation. */
export type QuotingChange =
  /** Words of the work left out, said to be by an ellipsis in brackets. */
  | { kind: 'left out'; words: string }
  /** Words put in, in brackets; `instead` are those of the work they stand for, if any. */
  | { kind: 'put in'; words: string; instead: string }
  /** Words that stand otherwise in the work, with nothing to say so. */
  | { kind: 'unmarked'; words: string };

/** What an omission is written as. */
export const OMISSION = '[…]';

const isOmission = (within: string): boolean => /^(?:\.\s?){3,4}$|^…\.?$/.test(within.trim());

/** A quotation taken apart: what it takes from the work, and what it has in brackets. */
const partsOf = (wording: string): { text: string; bracket: boolean }[] =>
  wording
    .split(/(\[[^[\]]*\])/u)
    .filter(Boolean)
    .map((part) => {
      const bracket = part.startsWith('[') && part.endsWith(']');
      return { text: bracket ? part.slice(1, -1) : part, bracket };
    });

/**
 * Compares a quotation as it is to be printed with the words of the work. Omissions are written `[…]` or `[...]`, and what
 * is put in or stands for something else in `[ ]` (`[T]he`, `[the miller]`); marks, capitals and blanks may differ. Words
 * left out before or after the whole need no ellipsis. Source: common practice of scholarly quotation.
 */
export function quotingChanges(exact: string, wording: string): QuotingChange[] {
  const { text: letters, at } = lettersOf(exact);
  const changes: QuotingChange[] = [];
  let done = 0;
  let begun = false;
  let brackets: string[] = [];
  const between = (from: number, to: number) =>
    from >= to ? '' : exact.slice(at[from]!, to < at.length ? at[to]! : exact.length);
  /** Of what stands before the whole only the beginning of its first word is quoted: the `t` of `[T]he`. */
  const begunWord = (gap: string) => /[\p{L}\p{N}]*$/u.exec(gap.slice(-40))![0];
  const settle = (gap: string, last: boolean) => {
    const put = brackets.filter((within) => !isOmission(within) && within.trim());
    const left = put.length < brackets.length;
    for (const words of put) {
      changes.push({ kind: 'put in', words: words.trim(), instead: left || last ? '' : gap });
      if (!left) gap = '';
    }
    if (left && gap) changes.push({ kind: 'left out', words: gap });
    else if (gap && begun && !last && put.length === 0) changes.push({ kind: 'unmarked', words: gap });
    brackets = [];
  };
  for (const { text, bracket } of partsOf(wording)) {
    if (bracket) {
      brackets.push(text);
      continue;
    }
    const wanted = lettersOf(text).text;
    if (!wanted) continue;
    const found = letters.indexOf(wanted, done);
    if (found === -1) {
      changes.push({ kind: 'unmarked', words: text.trim() });
      begun = true;
      continue;
    }
    const gap = between(done, found);
    settle(begun ? gap.trim() : begunWord(gap), false);
    done = found + wanted.length;
    begun = true;
  }
  settle('', true);
  return changes;
}
