import { describe, expect, it } from 'vitest';
import type { Context } from './context';
import { listen, type LiveEvent } from './events';
import { looksAt, STAYS } from './here';

const as = (personId: string, libraryId = 'l') => ({ personId, libraryId }) as Context;

describe('who looks at a source', () => {
  it('is told to all pages of the library when somebody comes or goes, and not again meanwhile', () => {
    const heard: LiveEvent[] = [];
    const stop = listen('l', (event) => heard.push(event));
    expect(looksAt(as('a'), 'p', 's', 0)).toEqual(['a']);
    expect(looksAt(as('a'), 'p', 's', 1_000)).toEqual(['a']);
    // Two pages of one person are one person.
    expect(looksAt(as('a'), 'q', 's', 1_000)).toEqual(['a']);
    expect(looksAt(as('b'), 'p', 's', 2_000)).toEqual(['a', 'b']);
    expect(looksAt(as('b'), 'p', 't', 3_000)).toEqual(['b']);
    expect(heard).toEqual([
      { kind: 'here', source: 's', people: ['a'] },
      { kind: 'here', source: 's', people: ['a', 'b'] },
      { kind: 'here', source: 's', people: ['a'] },
      { kind: 'here', source: 't', people: ['b'] },
    ]);
    stop();
    for (const [person, page] of ['a p', 'a q', 'b p'].map((one) => one.split(' ')))
      expect(looksAt(as(person!), page!, null, 3_000)).toEqual([]);
  });

  it('is forgotten of a page that says nothing any more, and is of its library', () => {
    looksAt(as('a'), 'p', 's', 0);
    expect(looksAt(as('c', 'other'), 'p', 's', 1_000)).toEqual(['c']);
    expect(looksAt(as('b'), 'p', 's', STAYS + 1)).toEqual(['b']);
    looksAt(as('b'), 'p', null, STAYS + 2);
    looksAt(as('c', 'other'), 'p', null, STAYS + 2);
  });

  it('holds no more than some pages of one person', () => {
    for (let i = 0; i < 60; i++) looksAt(as('a'), String(i), `s${i}`, 0);
    expect(looksAt(as('b'), 'p', 's0', 0)).toEqual(['b']);
    expect(looksAt(as('b'), 'p', 's59', 0)).toEqual(['a', 'b']);
    for (let i = 0; i < 60; i++) looksAt(as('a'), String(i), null, 0);
    looksAt(as('b'), 'p', null, 0);
  });
});
