import fc from 'fast-check';
import { expect, it } from 'vitest';
import type { CslItem } from '../source';
import { el, text } from '../csl/test-style';
import { createPrinter } from './printer';

const style = el(
  'style',
  { class: 'in-text' },
  el('citation', {}, el('layout', {}, text('citation-number'))),
  el(
    'bibliography',
    { 'second-field-align': 'flush' },
    el('sort', {}, el('key', { variable: 'title' })),
    el('layout', {}, text('citation-number', { suffix: '.' }), text('title')),
  ),
);
const locale = el('locale');

/** A record, another object for each version of it. */
const records = new Map<string, CslItem>();
function record(n: number, version: number): CslItem {
  const key = `${n}.${version}`;
  const known = records.get(key) ?? { id: `w${n}`, type: 'book', title: `Title ${(n * 7 + version) % 12}` };
  records.set(key, known);
  return known;
}

it('a list printed again is the one that is printed anew, and keeps what did not change', () => {
  const state = fc.uniqueArray(fc.tuple(fc.nat(9), fc.nat(2)), { selector: ([n]) => n, maxLength: 10 });
  fc.assert(
    fc.property(fc.array(state, { minLength: 2, maxLength: 6 }), (states) => {
      const printer = createPrinter(style, locale, 'en-US');
      let before: ReturnType<typeof printer.list>['entries'] = [];
      for (const given of states) {
        const items = given.map(([n, version]) => record(n, version));
        const { entries } = printer.list(items);
        expect(entries).toEqual(createPrinter(style, locale, 'en-US').list(items).entries);
        // The same entry is the same object.
        for (const entry of entries) {
          const was = before.find((e) => e.id === entry.id);
          if (was && was.label === entry.label && JSON.stringify(was) === JSON.stringify(entry))
            expect(entry.runs).toBe(was.runs);
        }
        before = entries;
      }
    }),
    { numRuns: 200, seed: 20261129 },
  );
});
