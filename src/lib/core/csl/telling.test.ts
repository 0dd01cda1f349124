import { describe, expect, it } from 'vitest';
import { citationNodes } from './citations';
import { listNodes } from './bibliography';
import type { Item } from './item';
import { leavesOf, textOfLeaves } from './leaves';
import { LATER_PLACE, placesOf, type Cluster } from './positions';
import { openRegistry, setItems, type Registry } from './registry';
import { FIRST, IBID, IBID_WITH_LOCATOR, SUBSEQUENT, type Cite } from './scope';
import { compileStyle } from './style';
import { tellingsOf } from './telling';
import type { Tree } from './tree';
import { el } from './test-style';

const entry = [
  el('names', { variable: 'author' }, el('name', { 'name-as-sort-order': 'all' })),
  el('date', { variable: 'issued', prefix: ' (', suffix: ') ' }, el('date-part', { name: 'year' })),
  el('text', { variable: 'title' }),
];

/** Author and year, as `citation` asks; the list by author and title. */
function registryOf(
  citation: Record<string, string>,
  items: Item[],
  layout: Record<string, string> = { delimiter: '; ' },
): Registry {
  const style = el(
    'style',
    { class: 'in-text' },
    el(
      'citation',
      { 'et-al-min': '3', 'et-al-use-first': '1', ...citation },
      el('layout', layout, el('group', { delimiter: ' ' }, el('names', { variable: 'author' }, el('name', { form: 'short', 'initialize-with': '. ' })), el('date', { variable: 'issued' }, el('date-part', { name: 'year' })))),
    ),
    el('bibliography', { 'subsequent-author-substitute': '———' }, el('sort', {}, el('key', { variable: 'author' }), el('key', { variable: 'title' })), el('layout', {}, ...entry)),
  ); // prettier-ignore
  const registry = openRegistry(compileStyle(style, 'en-US', [terms]));
  setItems(registry, items);
  return registry;
}
const terms = el('locale', {}, { name: 'term', attrs: { name: 'et-al' }, children: ['et al.'] });
const work = (id: string, people: string, year = 2001, title = id): Item => ({
  id,
  type: 'book',
  title,
  author: people.split(', ').map((p) => ({ given: p.split(' ')[0], family: p.split(' ')[1] })),
  issued: { 'date-parts': [[year]] },
});
const cite = (registry: Registry, ...ids: string[]) =>
  textOfLeaves(leavesOf(citationNodes(registry, ids.map((id) => ({ id }))), registry.style.locale)); // prettier-ignore

describe('works are told apart', () => {
  it('by more names, as few as do', () => {
    const items = [work('a', 'A Smith, B Brown, C Jones'), work('b', 'A Smith, D Benson, C Jones')];
    const registry = registryOf({ 'disambiguate-add-names': 'true' }, items);
    expect([cite(registry, 'a'), cite(registry, 'b')]).toEqual([
      'Smith, Brown, et al. 2001',
      'Smith, Benson, et al. 2001',
    ]);
  });
  it('by all their names, where the last tells them apart', () => {
    const same = 'A Smith, B Brown, C Jones, D Reed';
    const items = [work('a', `${same}, E Ashe`), work('b', `${same}, F Bird`)];
    const registry = registryOf({ 'disambiguate-add-names': 'true' }, items);
    expect([cite(registry, 'a'), cite(registry, 'b')]).toEqual([
      'Smith, Brown, Jones, Reed, Ashe 2001',
      'Smith, Brown, Jones, Reed, Bird 2001',
    ]);
  });
  it('by initials, and by whole given names where those are the same', () => {
    const rule = { 'disambiguate-add-givenname': 'true', 'givenname-disambiguation-rule': 'all-names' };
    const initialsDo = registryOf(rule, [work('a', 'Ann Smith'), work('b', 'Ben Smith')]);
    expect([cite(initialsDo, 'a'), cite(initialsDo, 'b')]).toEqual(['A. Smith 2001', 'B. Smith 2001']);
    const sameInitials = registryOf(rule, [work('a', 'Ann Smith'), work('b', 'Amy Smith')]);
    expect([cite(sameInitials, 'a'), cite(sameInitials, 'b')]).toEqual(['Ann Smith 2001', 'Amy Smith 2001']);
  });
  it('by letters behind the year, in the order of the list, after z by two', () => {
    const items = Array.from({ length: 28 }, (_, i) =>
      work(`w${i}`, 'Ann Smith', 2001, `Title ${String(i).padStart(2, '0')}`),
    );
    const registry = registryOf({ 'disambiguate-add-year-suffix': 'true' }, items);
    expect(cite(registry, 'w0', 'w25', 'w26', 'w27')).toBe(
      'Smith 2001a; Smith 2001z; Smith 2001aa; Smith 2001ab',
    );
  });
  // CSL 1.0.2, “Disambiguation”, method 1: names that would be hidden at a mention of either kind.
  it('by names that a first mention hides and a later one does not', () => {
    const items = [work('a', 'A Smith, B Brown, C Jones'), work('b', 'A Smith, D Benson, C Jones')];
    const later = { 'et-al-subsequent-min': '4', 'et-al-subsequent-use-first': '1' };
    const registry = registryOf({ 'disambiguate-add-names': 'true', ...later }, items);
    expect(cite(registry, 'a', 'b')).toBe('Smith, Brown, et al. 2001; Smith, Benson, et al. 2001');
  });
  // Common practice, which citeproc-js and pandoc share: a date in words has no place for a letter.
  it('not by letters behind a date in words', () => {
    const soon = (id: string): Item => ({ ...work(id, 'Ann Smith'), issued: { literal: 'forthcoming' } });
    const registry = registryOf({ 'disambiguate-add-year-suffix': 'true' }, [soon('a'), soon('b')]);
    expect(cite(registry, 'a', 'b')).toBe('Smith forthcoming; Smith forthcoming');
    const ranged = { 'disambiguate-add-year-suffix': 'true', collapse: 'year-suffix-ranged' };
    expect(cite(registryOf(ranged, [soon('a'), soon('b'), soon('c')]), 'a', 'b', 'c')).not.toContain('–');
  });
  // Common practice, which pandoc shares: a first mention and the list are as the style has them, where its title tells a
  // work from the others.
  it('in later mentions by names that its first mention and the list need not show', () => {
    const author = el('names', { variable: 'author' }, el('name', { form: 'short' }));
    const title = el('text', { variable: 'title', prefix: ' ' });
    const few = { 'et-al-min': '3', 'et-al-use-first': '1' };
    const style = el(
      'style',
      { class: 'note' },
      el('citation', { ...few, 'disambiguate-add-names': 'true' }, el('layout', { delimiter: '; ' }, author, el('choose', {}, el('if', { position: 'first' }, title)))),
      el('bibliography', few, el('layout', {}, author, title)),
    ); // prettier-ignore
    const printed = (...works: Item[]) => {
      const registry = openRegistry(compileStyle(style, 'en-US', [terms]));
      setItems(registry, works);
      const text = (nodes: Parameters<typeof leavesOf>[0]) =>
        textOfLeaves(leavesOf(nodes, registry.style.locale));
      return {
        first: works.map(({ id }) => text(citationNodes(registry, [{ id }]))),
        later: works.map(({ id }) => text(citationNodes(registry, [{ id }], [LATER_PLACE]))),
        list: listNodes(registry).map(({ nodes }) => text(nodes)),
      };
    };
    const [a, b] = ['A Smith, B Brown, C Jones', 'A Smith, D Benson, C Jones'];
    expect(printed(work('a', a!, 2001, 'Mud'), work('b', b!, 2001, 'Sand'))).toEqual({
      first: ['Smith et al. Mud', 'Smith et al. Sand'],
      later: ['Smith, Brown, et al.', 'Smith, Benson, et al.'],
      list: ['Smith et al. Mud', 'Smith et al. Sand'],
    });
    expect(
      printed(work('a', a!, 2001, 'Mud'), work('b', b!, 2001, 'Mud'), work('c', a!, 2001, 'Silt')),
    ).toEqual({
      first: ['Smith, Brown, et al. Mud', 'Smith, Benson, et al. Mud', 'Smith et al. Silt'],
      later: ['Smith, Brown, et al.', 'Smith, Benson, et al.', 'Smith, Brown, et al.'],
      list: ['Smith, Brown, et al. Mud', 'Smith, Benson, et al. Mud', 'Smith et al. Silt'],
    });
  });
  it('and those that differ in the text stay as they are', () => {
    const registry = registryOf({ 'disambiguate-add-year-suffix': 'true' }, [
      work('a', 'Ann Smith'),
      work('b', 'Ann Smith', 2002),
    ]);
    expect(cite(registry, 'a', 'b')).toBe('Smith 2001; Smith 2002');
  });
});

describe('what tells works apart is told', () => {
  const told = (registry: Registry) =>
    tellingsOf(registry).map((group) =>
      group.map(({ entry, alone, now, names, given, letter, branch, still }) => ({
        id: entry.item.id,
        alone: textOfLeaves(leavesOf(alone, registry.style.locale)),
        now: textOfLeaves(leavesOf(now, registry.style.locale)),
        ...(names ? { names } : {}),
        ...(given.length
          ? { given: given.map((g) => [g.name.given, ...g.others.map((o) => o.given), g.many]) }
          : {}),
        ...(letter ? { letter } : {}),
        ...(branch ? { branch } : {}),
        ...(still ? { still } : {}),
      })),
    );
  it('by names and letters, group by group of those that would be cited alike', () => {
    const items = [
      work('a', 'A Smith, B Brown, C Jones'),
      work('b', 'A Smith, D Benson, C Jones'),
      work('c', 'A Smith, D Benson, C Jones'),
      work('d', 'B Ng'),
    ];
    const rule = { 'disambiguate-add-names': 'true', 'disambiguate-add-year-suffix': 'true' };
    const alone = 'Smith et al. 2001';
    expect(told(registryOf(rule, items))).toEqual([
      [
        { id: 'b', alone, now: 'Smith, Benson, et al. 2001a', names: 2, letter: 'a' },
        { id: 'c', alone, now: 'Smith, Benson, et al. 2001b', names: 2, letter: 'b' },
        { id: 'a', alone, now: 'Smith, Brown, et al. 2001', names: 2 },
      ],
    ]);
  });
  it('by given names over all works, with whom they are told from', () => {
    const rule = { 'disambiguate-add-givenname': 'true', 'givenname-disambiguation-rule': 'all-names' };
    const items = [work('a', 'Ann Smith'), work('b', 'Ben Smith', 2002), work('c', 'Cy Ng')];
    expect(told(registryOf(rule, items))).toEqual([
      [{ id: 'a', alone: 'Smith 2001', now: 'A. Smith 2001', given: [['Ann', 'Ben', 1]] }],
      [{ id: 'b', alone: 'Smith 2002', now: 'B. Smith 2002', given: [['Ben', 'Ann', 1]] }],
    ]);
  });
  it('by given names of works cited alike, and that nothing does', () => {
    const rule = { 'disambiguate-add-givenname': 'true' };
    const items = [work('a', 'Ann Smith'), work('b', 'Ben Smith'), work('c', 'Ben Smith')];
    const alone = 'Smith 2001';
    expect(told(registryOf(rule, items))).toEqual([
      [
        { id: 'a', alone, now: 'A. Smith 2001', given: [['Ann', 'Ben', 1]] },
        { id: 'b', alone, now: 'B. Smith 2001', given: [['Ben', 'Ann', 1]], still: 1 },
        { id: 'c', alone, now: 'B. Smith 2001', given: [['Ben', 'Ann', 1]], still: 1 },
      ],
    ]);
  });
  it('of nothing, where a style tells nothing apart', () => {
    expect(told(registryOf({}, [work('a', 'Ann Smith'), work('b', 'Ann Smith')]))).toEqual([]);
  });
});

describe('cites that repeat', () => {
  const items = ['a', 'b', 'c', 'd']
    .map((id) => work(id, 'Ann Smith'))
    .concat(work('e', 'Ann Smith', 2003), work('f', 'Bo Ng'));
  const of = (collapse: string, layout = { delimiter: '; ' }) =>
    registryOf(
      { collapse, 'disambiguate-add-year-suffix': 'true', 'year-suffix-delimiter': ',' },
      items,
      layout,
    );
  // CSL 1.0.2, "Cite Collapsing".
  it('leave out names', () => expect(cite(of('year'), 'a', 'e', 'f')).toBe('Smith 2001a, 2003; Ng 2001'));
  it('leave out years, and make ranges of letters', () => {
    expect(cite(of('year-suffix'), 'a', 'b', 'e')).toBe('Smith 2001a,b, 2003');
    expect(cite(of('year-suffix-ranged'), 'a', 'b', 'c', 'd')).toBe('Smith 2001a–d');
    expect(cite(of('year-suffix-ranged'), 'a', 'c', 'd')).toBe('Smith 2001a,c,d');
  });
  it('put a dash for names in the list', () => {
    const registry = of('year');
    expect(listNodes(registry).map(({ nodes }) => textOfLeaves(leavesOf(nodes, registry.style.locale)))).toEqual([
      'Ng, Bo (2001) f', 'Smith, Ann (2001a) a', '——— (2001b) b', '——— (2001c) c', '——— (2001d) d', '——— (2003) e',
    ]); // prettier-ignore
  });
});

describe('a list that changes', () => {
  it('keeps what was printed of works that stay as they are', () => {
    const items = [work('a', 'Ann Smith'), work('b', 'Bo Ng'), work('c', 'Cy Ash')];
    const registry = registryOf({ 'disambiguate-add-year-suffix': 'true' }, items);
    const nodes = () => new Map(registry.order.map((e) => [e.item.id, e.printed?.nodes]));
    listNodes(registry);
    const before = nodes();
    setItems(registry, items.with(1, work('b', 'Ann Smith')));
    listNodes(registry);
    const after = nodes();
    expect(after.get('c')).toBe(before.get('c'));
    expect(after.get('a')).not.toBe(before.get('a'));
    expect(registry.order.map((e) => [e.item.id, e.number, e.told.yearSuffix])).toEqual([
      ['c', 1, undefined], ['a', 2, 'a'], ['b', 3, 'b'],
    ]); // prettier-ignore
  });
});

describe('where a cite stands', () => {
  const places = (...clusters: [note: number, ...cites: (string | Cite)[]][]) =>
    placesOf(
      clusters.map(([note, ...cites], i): Cluster => ({ id: `c${i}`, note, cites: cites.map((c) => (typeof c === 'string' ? { id: c } : c)) })),
      5,
    ).map((c) => c.map((p) => p.position)); // prettier-ignore
  // CSL 1.0.2, "Choose", position.
  it('is first, later, or right after', () => {
    expect(places([1, 'a'], [2, 'a'], [3, 'b'], [4, 'a'])).toEqual([[FIRST], [IBID], [FIRST], [SUBSEQUENT]]);
  });
  it('takes a place in the work into account', () => {
    const at = (locator: string) => ({ id: 'a', locator });
    expect(places([1, 'a'], [2, at('3')], [3, at('3')], [4, at('5')], [5, 'a'])).toEqual([
      [FIRST], [IBID_WITH_LOCATOR], [IBID], [IBID_WITH_LOCATOR], [SUBSEQUENT],
    ]); // prettier-ignore
  });
  it('is not right after several works, or a note between', () => {
    expect(places([1, 'a', 'b'], [2, 'b'])).toEqual([[FIRST, FIRST], [SUBSEQUENT]]);
    expect(places([1, 'a'], [3, 'a'])).toEqual([[FIRST], [SUBSEQUENT]]);
    expect(places([1, 'a', 'a'])).toEqual([[FIRST, IBID]]);
  });
  it('is near within the distance of the style, and knows the note of the first', () => {
    const [, near, far] = placesOf(
      [1, 5, 20].map((note, i) => ({ id: String(i), note, cites: [{ id: 'a' }] })),
      5,
    );
    expect(near![0]).toMatchObject({ nearNote: true, firstNote: 1 });
    expect(far![0]!.nearNote).toBe(false);
  });
});

describe('what is there and does not print', () => {
  const styleOf = (layout: Tree[], macros: Tree[] = []) =>
    compileStyle(
      el('style', { class: 'note' }, ...macros, el('citation', {}, el('layout', {}, ...layout)), el('bibliography', {}, el('layout', {}, ...layout))),
      'en-US',
      [terms],
    ); // prettier-ignore
  const item = (fields: object) => ({ id: 'a', type: 'book', title: 'Tides', ...fields }) as unknown as Item;

  it('names that a citation leaves out do not take with them what stands beside them', () => {
    const style = styleOf(
      [el('group', { delimiter: ', ' }, el('text', { macro: 'who' }), el('text', { value: 'work cited' }))],
      [el('macro', { name: 'who' }, el('names', { variable: 'author' }))],
    );
    const registry = openRegistry(style);
    setItems(registry, [item({ author: [{ family: 'Ng', given: 'Ada' }] })]);
    const nodes = citationNodes(registry, [{ id: 'a', 'suppress-author': true }]);
    expect(textOfLeaves(leavesOf(nodes, style.locale)).toLowerCase()).toBe('work cited');
  });

  it('a date in words stands where its year would', () => {
    const year = el('date-part', { name: 'year', prefix: ' (', suffix: ')' });
    const style = styleOf([el('text', { variable: 'title' }), el('date', { variable: 'issued' }, year)]);
    const registry = openRegistry(style);
    const of = (issued: object) => {
      setItems(registry, [item({ issued })]);
      return textOfLeaves(leavesOf(listNodes(registry)[0]!.nodes, style.locale));
    };
    expect(of({ 'date-parts': [[1998]] })).toBe('Tides (1998)');
    expect(of({ literal: 'forthcoming' })).toBe('Tides (forthcoming)');
  });
});
