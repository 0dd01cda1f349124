import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { marked, RICH_MARKS, type RichMark, type Selected } from './rich';

/** A text with what is selected between square brackets. */
const read = (text: string): Selected => ({
  text: text.replace(/[[\]]/g, ''),
  from: text.indexOf('['),
  to: text.indexOf(']') - 1,
});
const shown = ({ text, from, to }: Selected) =>
  `${text.slice(0, from)}[${text.slice(from, to)}]${text.slice(to)}`;

describe('a mark on words', () => {
  it.each<[RichMark, string, string]>([
    ['italic', 'What [Zostera] left', 'What <i>[Zostera]</i> left'],
    ['italic', 'What <i>[Zostera]</i> left', 'What [Zostera] left'],
    ['italic', 'What [<i>Zostera</i>] left', 'What [Zostera] left'],
    ['subscript', 'CO[2] rise', 'CO<sub>[2]</sub> rise'],
    ['keep capitals', 'the[ Skerry ]shore', 'the <span class="nocase">[Skerry]</span> shore'],
    ['superscript', '[<i>a</i> and <i>b</i>]', '<sup>[<i>a</i> and <i>b</i>]</sup>'],
    ['italic', '[<i>a</i> and <i>b</i>]', '<i>[<i>a</i> and <i>b</i>]</i>'],
    ['italic', 'a <s[up>b</sup> c]', 'a <sup><i>[b</sup> c]</i>'],
    ['italic', 'nothing [] here', 'nothing [] here'],
    ['small capitals', 'in [BCE] years', 'in <span style="font-variant:small-caps;">[BCE]</span> years'],
  ])('%s: %s', (mark, before, after) => {
    expect(shown(marked(read(before), mark))).toBe(after);
  });
  it('is taken off again by the same key, of any text without marks', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: fc.constantFrom(...'ab é潮 '), maxLength: 12 }),
        fc.nat(12),
        fc.nat(12),
        fc.constantFrom(...(Object.keys(RICH_MARKS) as RichMark[])),
        (text, a, b, mark) => {
          const given = { text, from: Math.min(a, text.length), to: Math.min(b, text.length) };
          const once = marked(given, mark);
          if (once.text === text) return;
          expect(marked(once, mark).text).toBe(text);
          expect(once.text.slice(once.from, once.to).trim()).toBe(once.text.slice(once.from, once.to));
        },
      ),
    );
  });
});
