/** What a style puts around what prints, and in its place. */
import { describe, expect, it } from 'vitest';
import { listNodes } from './bibliography';
import type { Item } from './item';
import { leavesOf, textOfLeaves } from './leaves';
import { openRegistry, setItems } from './registry';
import { el, styleOf, text } from './test-style';
import type { Tree } from './tree';

interface Given {
  terms?: Record<string, string>;
  bibliography?: Record<string, string>;
}
/** The entries of a list, as text. */
function listed(layout: Tree[], items: Omit<Item, 'type'>[], { terms, bibliography }: Given = {}): string[] {
  const registry = openRegistry(styleOf(layout, bibliography, terms));
  setItems(
    registry,
    items.map((item) => ({ type: 'book', ...item }) as Item),
  );
  return listNodes(registry).map(({ nodes }) => textOfLeaves(leavesOf(nodes, registry.style.locale)));
}

describe('what stands around', () => {
  // CSL 1.0.2, “Affixes”; the suite’s substitute_SubstituteOnlyOnceTermEmpty has such a term print, as nothing.
  it('a term that the language leaves empty stays away with it', () => {
    const layout = [
      el(
        'group',
        { delimiter: ' ' },
        text('title'),
        el('text', { term: 'in', suffix: ':' }),
        text('publisher'),
      ),
    ];
    const items = [{ id: 'a', title: 'Tides', publisher: 'Mole' }];
    expect(listed(layout, items, { terms: { in: 'in' } })).toEqual(['Tides in: Mole.']);
    expect(listed(layout, items, { terms: { in: '' } })).toEqual(['Tides Mole.']);
  });

  // Common practice: the words beside a month are for months.
  it('a month stays away from a season where it is a word', () => {
    const date = (suffix: string) => [
      el(
        'date',
        { variable: 'issued' },
        el('date-part', { name: 'year', suffix: '年' }),
        el('date-part', { name: 'month', form: 'numeric', suffix }),
      ),
    ];
    const items = [
      { id: 'm', issued: { 'date-parts': [[2010, 3]] } },
      { id: 's', issued: { 'date-parts': [[2010]], season: 1 } },
    ];
    const terms = { 'season-01': '春季' };
    expect(listed(date('月'), items, { terms })).toEqual(['2010年3月.', '2010年春季.']);
    expect(listed(date(','), items, { terms })).toEqual(['2010年3,.', '2010年春季,.']);
  });
});

describe('names that repeat', () => {
  const author = [{ family: 'Pell', given: 'Ada' }];
  const items = [
    { id: 'a', author, title: 'Sluices' },
    { id: 'b', author, title: 'Tides' },
    { id: 'c', title: 'Unsigned' },
    { id: 'd', author, title: 'Weirs' },
  ];
  const names = el('names', { variable: 'author' }, el('name', { form: 'short' }));
  const group = (...parts: Tree[]) => [el('group', { delimiter: ', ' }, ...parts)];
  const bibliography = { 'subsequent-author-substitute': '———' };

  // CSL 1.0.2, “Reference Grouping”: those of the entry before.
  it('are those of the entry before, and no earlier one', () => {
    expect(listed(group(names, text('title')), items, { bibliography })).toEqual([
      'Pell, Sluices.',
      '———, Tides.',
      'Unsigned.',
      'Pell, Weirs.',
    ]);
  });

  // Common practice, which citeproc-js and pandoc share.
  it('are written out where the title stands before them', () => {
    expect(listed(group(text('title'), names), items, { bibliography })).toEqual([
      'Sluices, Pell.',
      'Tides, Pell.',
      'Unsigned.',
      'Weirs, Pell.',
    ]);
  });
});
