import { describe, expect, it } from 'vitest';
import type { OutlineItem, OutlineSection } from '$lib/server/projects';
import { linesOf, seenOf, spotAfter, spotStepped, yearsOf, type ItemStep } from './lines';

const section = (id: string, parentId: string | null = null) =>
  ({ id, parentId, name: id, projectId: 'p', depth: 0, sources: 0 }) as OutlineSection;
const item = (sectionId: string, ref: string): OutlineItem => ({
  sectionId,
  ref,
  kind: 'sentence',
  words: ref,
});
/** A with a and b, under it A1 with c; B with d; C with nothing in it. */
const SECTIONS = [section('A'), section('B'), section('C'), section('A1', 'A')];
const ITEMS = [item('A', 'a'), item('A', 'b'), item('A1', 'c'), item('B', 'd')];
const read = (lines: ReturnType<typeof linesOf>) =>
  lines.map((l) => '.'.repeat(l.depth) + (l.kind === 'section' ? l.key : l.item.ref));

describe('the lines of an outline', () => {
  it('are each section, what stands in it, and then the sections under it', () => {
    const lines = linesOf(SECTIONS, ITEMS);
    expect(read(lines)).toEqual(['A', '.a', '.b', '.A1', '..c', 'B', '.d', 'C']);
    expect(lines.flatMap((l) => (l.kind === 'section' && l.holds ? [l.key] : []))).toEqual(['A', 'A1', 'B']);
    expect(read(seenOf(lines, (id) => id === 'A'))).toEqual(['A', 'B', '.d', 'C']);
    expect(read(seenOf(lines, (id) => id === 'A1'))).toEqual(['A', '.a', '.b', '.A1', 'B', '.d', 'C']);
  });

  it('say where something put in at one goes', () => {
    const [a, first, second] = linesOf(SECTIONS, ITEMS);
    expect(spotAfter(a!, ITEMS)).toEqual({ sectionId: 'A', before: 'a' });
    expect(spotAfter(first!, ITEMS)).toEqual({ sectionId: 'A', before: 'b' });
    expect(spotAfter(second!, ITEMS)).toEqual({ sectionId: 'A', before: null });
  });

  it.each<[string, ItemStep, { sectionId: string; before: string | null } | undefined]>([
    ['b', 'up', { sectionId: 'A', before: 'a' }],
    ['a', 'up', undefined],
    ['a', 'down', { sectionId: 'A', before: null }],
    // Beyond the end of a section is the next as the outline is read.
    ['b', 'down', { sectionId: 'A1', before: 'c' }],
    ['c', 'up', { sectionId: 'A', before: null }],
    ['d', 'down', { sectionId: 'C', before: null }],
    ['a', 'after', { sectionId: 'A1', before: 'c' }],
    ['d', 'before', { sectionId: 'A1', before: null }],
  ])('say where a step takes %s: %s', (ref, step, to) => {
    const moving = ITEMS.filter((i) => i.ref === ref);
    expect(spotStepped(moving, step, SECTIONS, ITEMS)).toEqual(to);
  });

  it('tell the years of works, each once', () => {
    const of = (id: string, year?: number): OutlineItem => ({ ...item('A', id), source: { id, label: '', title: '', type: 'book', ...(year === undefined ? {} : { year }) } }); // prettier-ignore
    const items = [of('x', 2004), of('y', 1999), of('x', 2004), of('z'), of('w', 2004)];
    expect(yearsOf(items)).toEqual([
      { year: 1999, n: 1 },
      { year: 2004, n: 2 },
    ]);
  });

  it('take several of one section a step together, and none of several sections', () => {
    const five = ['a', 'b', 'x', 'y'].map((ref) => item('A', ref));
    expect(spotStepped([five[1]!, five[2]!], 'up', SECTIONS, five)).toEqual({ sectionId: 'A', before: 'a' });
    expect(spotStepped([five[0]!, five[1]!], 'down', SECTIONS, five)).toEqual({
      sectionId: 'A',
      before: 'y',
    });
    expect(spotStepped([ITEMS[0]!, ITEMS[3]!], 'down', SECTIONS, ITEMS)).toBeUndefined();
  });
});
