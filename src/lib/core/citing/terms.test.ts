import { describe, expect, it } from 'vitest';
import { annotated, listTerms, openTree, placeIn } from './index';

/** A locale in the forms CSL 1.0.2 allows: a term with one form for both numbers, one without a short form, an empty one. */
const TERMS = listTerms(
  openTree({
    n: 'locale',
    c: [
      {
        n: 'terms',
        c: [
          { n: 'term', a: { name: 'open-quote' }, c: ['„'] },
          { n: 'term', a: { name: 'close-quote' }, c: ['“'] },
          { n: 'term', a: { name: 'page', form: 'short' }, c: [{ n: 'single', c: ['p.'] }, { n: 'multiple', c: ['pp.'] }] },
          { n: 'term', a: { name: 'page' }, c: [{ n: 'single', c: ['page'] }, { n: 'multiple', c: ['pages'] }] },
          { n: 'term', a: { name: 'chapter', form: 'short' }, c: ['Kap.'] },
          { n: 'term', a: { name: 'verse' }, c: [{ n: 'single', c: ['Vers'] }, { n: 'multiple', c: ['Verse'] }] },
          { n: 'term', a: { name: 'verse', form: 'symbol' }, c: ['V'] },
          { n: 'term', a: { name: 'timestamp' }, c: [{ n: 'single' }, { n: 'multiple' }] },
        ],
      },
    ],
  }),
); // prettier-ignore

describe('the terms of a language', () => {
  it.each([
    [{ label: 'page', value: '7' }, 'p. 7'],
    [{ label: 'page', value: '7–9' }, 'pp. 7–9'],
    [{ label: 'page', value: 'xi, 4 & 12' }, 'pp. xi, 4 & 12'],
    [{ label: 'chapter', value: '2-3' }, 'Kap. 2-3'],
    [{ label: 'verse', value: '3' }, 'Vers 3'],
    [{ label: 'timestamp', value: '0:12' }, 'timestamp 0:12'],
    [{ label: 'figure', value: '4' }, 'figure 4'],
  ] as const)('name the place %o', (locator, said) => {
    expect(placeIn(TERMS, locator)).toBe(said);
  });
  it('set remarks in their quotation marks', () => {
    const list = { entries: [{ id: 'a', runs: [] }], hangingIndent: true, hasList: true };
    const remarks = new Map([
      ['a', [{ kind: 'quotation' as const, text: 'ebb', locator: { label: 'page' as const, value: '1-2' } }]],
    ]);
    expect(annotated(list, remarks, TERMS).entries[0]!.annotations).toEqual([
      { kind: 'quotation', text: '„ebb“ (pp. 1-2)' },
    ]);
  });
  it('have quotation marks even where a locale has none', () => {
    expect(listTerms(openTree({ n: 'locale' })).quotes).toEqual(['“', '”']);
  });
});
