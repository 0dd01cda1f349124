import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { changed, joinedWords, keyOf, OutlineError, splitWords, type Item, type ItemChange } from './index';

const item = (sectionId: string, ref: string, kind: Item['kind'] = 'source', words?: string): Item => ({
  sectionId,
  ref,
  kind,
  ...(words === undefined ? {} : { words }),
});
const ITEMS = [
  item('A', 'mill'),
  item('A', 'quote', 'passage'),
  item('A', 'claim', 'sentence', 'Mills ground with the tide.'),
  item('B', 'mill'),
  item('B', 'why', 'question', 'Why did they close?'),
];
const read = (items: readonly Item[]) =>
  [...new Set(items.map((i) => i.sectionId))].map(
    (s) => `${s}: ${items.filter((i) => i.sectionId === s).map((i) => i.ref).join(' ')}`, // prettier-ignore
  );
const after = (...changes: ItemChange[]) => changed(ITEMS, changes).items;
const a = (ref: string) => ({ sectionId: 'A', ref });

describe('items of an outline', () => {
  it('are moved, also to another section, where what stands there already comes to that place', () => {
    expect(read(after({ act: 'move', items: [a('claim')], sectionId: 'A', before: 'mill' }))).toEqual([
      'A: claim mill quote',
      'B: mill why',
    ]);
    expect(
      read(after({ act: 'move', items: [a('mill'), a('quote')], sectionId: 'B', before: null })),
    ).toEqual(['A: claim', 'B: why mill quote']);
    // Before one of themselves is before the next that stays.
    expect(
      read(after({ act: 'move', items: [a('mill'), a('quote')], sectionId: 'A', before: 'quote' })),
    ).toEqual(['A: mill quote claim', 'B: mill why']);
  });

  it('come in once, and go', () => {
    const put = [
      { ref: 'mill', kind: 'source' as const },
      { ref: 'new', kind: 'source' as const },
    ];
    expect(read(after({ act: 'put', items: put, sectionId: 'A', before: 'quote' }))).toEqual([
      'A: mill new quote claim',
      'B: mill why',
    ]);
    expect(read(after({ act: 'take out', items: [a('quote')] }))).toEqual(['A: mill claim', 'B: mill why']);
  });

  it('are refused where they are not, and writing over what somebody wrote meanwhile is', () => {
    expect(() => after({ act: 'move', items: [a('gone')], sectionId: 'B', before: null })).toThrow(
      OutlineError,
    );
    expect(() => after({ act: 'put', items: [], sectionId: 'A', before: 'gone' })).toThrow(
      'not in this section',
    );
    const write = (was: string): ItemChange => ({ act: 'write', item: a('claim'), kind: 'question', words: 'x', was }); // prettier-ignore
    expect(after(write('Mills ground with the tide.'))[2]).toEqual(item('A', 'claim', 'question', 'x'));
    expect(() => after(write('Other words.'))).toThrow('meanwhile');
    expect(() => after({ act: 'write', item: a('mill'), kind: 'sentence', words: 'x', was: '' })).toThrow(
      'own',
    );
  });

  it('of one’s own are cut in two and joined again', () => {
    const claim = ITEMS[2] as Item & { words: string };
    const { items } = changed(ITEMS, splitWords(claim, 12, 'rest', null));
    const words = items.flatMap((i) => (i.sectionId === 'A' && i.words ? i.words : []));
    expect(words).toEqual(['Mills ground', 'with the tide.']);
    const [first, rest] = items.filter((i) => i.words && i.sectionId === 'A');
    expect(changed(items, joinedWords(first, rest!)!).items).toEqual(ITEMS);
    expect(joinedWords(ITEMS[1], claim)).toBeUndefined();
  });

  it('come back to where they were when a change is taken back, and what others did since stays', () => {
    const moved = changed(ITEMS, [{ act: 'move', items: [a('quote')], sectionId: 'B', before: 'mill' }]);
    // Meanwhile somebody puts a sentence first in A.
    const since = changed(moved.items, [
      { act: 'put', items: [{ ref: 'new', kind: 'sentence', words: 'First.' }], sectionId: 'A', before: 'mill' },
    ]).items; // prettier-ignore
    expect(read(changed(since, [moved.back]).items)).toEqual(['A: new mill quote claim', 'B: mill why']);
    // Meanwhile what it stood behind has gone.
    const without = changed(moved.items, [{ act: 'take out', items: [a('mill')] }]).items;
    expect(read(changed(without, [moved.back]).items)).toEqual(['A: claim quote', 'B: mill why']);
    // Meanwhile what was moved was written anew.
    const { items, back } = changed(ITEMS, [
      { act: 'move', items: [a('claim')], sectionId: 'B', before: null },
    ]);
    const anew = changed(items, [
      { act: 'write', item: { sectionId: 'B', ref: 'claim' }, kind: 'sentence', words: 'Better.', was: 'Mills ground with the tide.' },
    ]).items; // prettier-ignore
    expect(changed(anew, [back]).items.find((i) => i.ref === 'claim')).toEqual(item('A', 'claim', 'sentence', 'Better.')); // prettier-ignore
  });

  const ref = fc.constantFrom('mill', 'quote', 'claim', 'why', 'gone', 'n1', 'n2');
  const section = fc.constantFrom('A', 'B', 'C');
  const key = fc.record({ sectionId: section, ref });
  const change: fc.Arbitrary<ItemChange> = fc.oneof(
    fc.record({ act: fc.constant('move' as const), items: fc.array(key, { minLength: 1, maxLength: 3 }), sectionId: section, before: fc.option(ref) }),
    fc.record({ act: fc.constant('put' as const), items: fc.array(fc.record({ ref, kind: fc.constant('source' as const) }), { maxLength: 3 }), sectionId: section, before: fc.option(ref) }),
    fc.record({ act: fc.constant('take out' as const), items: fc.uniqueArray(key, { selector: keyOf, minLength: 1, maxLength: 2 }) }),
    fc.record({ act: fc.constant('write' as const), item: key, kind: fc.constantFrom('sentence' as const, 'question' as const), words: fc.string(), was: fc.constantFrom('Mills ground with the tide.', 'Why did they close?') }),
  ); // prettier-ignore
  const inSections = (items: readonly Item[]) =>
    Object.fromEntries(['A', 'B', 'C'].map((s) => [s, items.filter((i) => i.sectionId === s)]));

  it('are as they were once all changes are taken back, and stand in a section once', () => {
    fc.assert(
      fc.property(fc.array(fc.array(change, { minLength: 1, maxLength: 3 }), { maxLength: 8 }), (steps) => {
        let now: Item[] = ITEMS;
        const backs: ItemChange[] = [];
        for (const step of steps) {
          try {
            const made = changed(now, step);
            // What is moved is lost nowhere: no ref goes that was not taken out.
            if (step.every((s) => s.act === 'move'))
              expect(new Set(made.items.map((i) => i.ref))).toEqual(new Set(now.map((i) => i.ref)));
            expect(new Set(made.items.map(keyOf)).size).toBe(made.items.length);
            // Done again after it was taken back, it is as it was.
            const undone = changed(made.items, [made.back]);
            expect(inSections(changed(undone.items, [undone.back]).items)).toEqual(inSections(made.items));
            now = made.items;
            backs.push(made.back);
          } catch (error) {
            if (!(error instanceof OutlineError)) throw error;
          }
        }
        for (const back of backs.reverse()) now = changed(now, [back]).items;
        expect(inSections(now)).toEqual(inSections(ITEMS));
      }),
    );
  });
});
