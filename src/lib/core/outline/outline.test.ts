import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inOrder, moved, putBefore, spotOf, stepped, within, type Heading, type Step } from './index';

const h = (id: string, parentId: string | null = null): Heading => ({ id, parentId });
/** a, with b (with c) and d under it; then e. */
const OUTLINE = [h('a'), h('e'), h('b', 'a'), h('d', 'a'), h('c', 'b')];
const read = (headings: Heading[]) => inOrder(headings).map(({ id, depth }) => '.'.repeat(depth) + id);

describe('an outline', () => {
  it('is read each before what stands under it', () => {
    expect(read(OUTLINE)).toEqual(['a', '.b', '..c', '.d', 'e']);
    expect([...within(OUTLINE, 'b')]).toEqual(['b', 'c']);
    expect(inOrder([])).toEqual([]);
  });
  it('shows what stands under something that is gone at its top', () => {
    expect(read([h('a'), h('x', 'gone')])).toEqual(['a', 'x']);
  });
  it.each<[Step, string, string[]]>([
    ['up', 'd', ['a', '.d', '.b', '..c', 'e']],
    ['down', 'a', ['e', 'a', '.b', '..c', '.d']],
    ['in', 'e', ['a', '.b', '..c', '.d', '.e']],
    ['out', 'c', ['a', '.b', '.c', '.d', 'e']],
    ['out', 'd', ['a', '.b', '..c', 'd', 'e']],
  ])('is changed by a step %s of %s', (step, id, expected) => {
    expect(read(moved(OUTLINE, id, stepped(OUTLINE, id, step)!))).toEqual(expected);
  });
  it.each<[Step, string]>([
    ['up', 'a'],
    ['down', 'e'],
    ['in', 'b'],
    ['out', 'a'],
    ['up', 'nobody'],
  ])('has no step %s for %s', (step, id) => {
    expect(stepped(OUTLINE, id, step)).toBeUndefined();
  });
  it('refuses what would stand under itself, and places there are none of', () => {
    expect(() => moved(OUTLINE, 'a', { parentId: 'c', before: null })).toThrow('under itself');
    expect(() => moved(OUTLINE, 'a', { parentId: 'x', before: null })).toThrow('no such section');
    expect(() => moved(OUTLINE, 'x', { parentId: null, before: null })).toThrow('no such section');
    expect(() => moved(OUTLINE, 'd', { parentId: null, before: 'c' })).toThrow('no such place');
  });
  it('loses nothing, has no circle and is put back, whatever is moved', () => {
    const outline = fc
      .array(fc.nat(20), { maxLength: 14 })
      .map((parents) => parents.map((p, i) => h(String(i), p % (i + 1) === i ? null : String(p % (i + 1)))));
    fc.assert(
      fc.property(outline, fc.nat(20), fc.option(fc.nat(20)), fc.option(fc.nat(20)), (given, id, to, by) => {
        const [one, parentId, before] = [id, to, by].map((n) => (n === null ? null : String(n)));
        const was = spotOf(given, one!);
        let next: Heading[];
        try {
          next = moved(given, one!, { parentId: parentId!, before: before! });
        } catch (e) {
          expect(e).toBeInstanceOf(RangeError);
          return;
        }
        expect(
          inOrder(next)
            .map((x) => x.id)
            .sort(),
        ).toEqual(given.map((x) => x.id).sort());
        expect(read(moved(next, one!, was!))).toEqual(read(given));
      }),
    );
  });
});

describe('a list', () => {
  it.each([
    [['d'], 'b', 'adbc'],
    [['a', 'c'], 'd', 'bacd'],
    [['a'], null, 'bcda'],
    [['b', 'c'], 'b', 'abcd'],
    [['c', 'b'], 'c', 'abcd'],
    [['a'], 'gone', 'bcda'],
  ])('has %j put before %s', (some, before, expected) => {
    expect(putBefore([...'abcd'], some, before).join('')).toBe(expected);
  });
});
