/** What a style puts around what prints, and in its place. */
import { describe, expect, it } from 'vitest';
import { listNodes } from './bibliography';
import type { Item } from './item';
import { leavesOf, textOfLeaves } from './leaves';
import { openRegistry, setItems } from './registry';
import { el, styleOf, text } from './test-style';
import type { Tree } from './tree';

interface Given {
  /** What stands in the style before its citation: macros, and terms of its own. */
  macros?: Tree[];
  terms?: Record<string, string>;
  bibliography?: Record<string, string>;
}
/** The entries of a list, as text. */
function listed(
  layout: Tree[],
  items: Omit<Item, 'type'>[],
  { terms, bibliography, macros }: Given = {},
): string[] {
  const registry = openRegistry(styleOf(layout, bibliography, terms, macros));
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
    // “otoño de 2010”: a word that stands apart is no word for the month.
    expect(listed(date(' de'), items, { terms })).toEqual(['2010年3 de.', '2010年春季 de.']);
  });

  // Common practice, which citeproc-js and pandoc share; by itself such a word prints, as the suite’s substitute_* have it.
  it('a macro prints nothing where only words of the style stand in for names', () => {
    const names = el(
      'names',
      { variable: 'author' },
      el('substitute', {}, el('names', { variable: 'editor' }), el('text', { value: 'Anon' })),
    );
    const macro = el('macro', { name: 'author' }, names);
    const items = [
      { id: 'a', title: 'Tides' },
      { id: 'b', title: 'Weirs', editor: [{ family: 'Pell', given: 'Ada' }] },
    ];
    const called = el('group', { delimiter: ', ' }, el('text', { macro: 'author' }), text('title'));
    const itself = el('group', { delimiter: ', ' }, names, text('title'));
    expect(listed([called], items, { macros: [macro] })).toEqual(['Tides.', 'Ada Pell, Weirs.']);
    expect(listed([itself], items)).toEqual(['Anon, Tides.', 'Ada Pell, Weirs.']);
  });

  // CSL 1.0.2, “Ordinal Suffixes”: those of the nearest that has any; without a general one among them, that of the language.
  it('a number takes the general ending of the language where a style tells only some', () => {
    const layout = [el('number', { variable: 'edition', form: 'ordinal' })];
    const items = [
      { id: 'a', edition: '1' },
      { id: 'b', edition: '2' },
    ];
    const own = el('locale', {}, el('terms', {}, el('term', { name: 'ordinal-01' }, 're')));
    expect(listed(layout, items, { terms: { ordinal: 'e' }, macros: [own] })).toEqual(['1re.', '2e.']);
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

  // CSL 1.0.2, “Reference Grouping”: names “that also occur in the preceding entry”, however they are written there.
  it('are known by whose they are, not by how they are written', () => {
    const named = (variable: string, attrs: Record<string, string>) =>
      el('names', { variable }, el('name', attrs));
    const one = [
      named('author', { 'initialize-with': '. ' }),
      named('editor', {}),
      text('title', { prefix: ', ' }),
    ];
    const editor = author;
    const ada = [
      { id: 'a', author, title: 'Sluices' },
      { id: 'b', editor, title: 'Tides' },
    ];
    expect(listed(one, ada, { bibliography })).toEqual(['A. Pell, Sluices.', '———, Tides.']);
    const twin = [{ family: 'Pell', given: 'Amy' }];
    const two = [
      { id: 'a', author, title: 'Sluices' },
      { id: 'b', author: twin, title: 'Tides' },
    ];
    expect(listed(one, two, { bibliography })).toEqual(['A. Pell, Sluices.', 'A. Pell, Tides.']);
  });

  // The same: “all rendered names of the name variable”.
  it('are those of the first role alone', () => {
    const both = el('names', { variable: 'author editor', delimiter: '; ' }, el('name', { form: 'short' }));
    const editor = [{ family: 'Ng', given: 'Tai' }];
    const two = [
      { id: 'a', author, title: 'Sluices' },
      { id: 'b', author, editor, title: 'Tides' },
    ];
    expect(listed(group(both, text('title')), two, { bibliography })).toEqual([
      'Pell, Sluices.',
      '———; Ng, Tides.',
    ]);
  });

  it('are written out behind a word, and replaced behind a number', () => {
    const to = el(
      'names',
      { variable: 'recipient' },
      el('name', { form: 'short' }),
      el('label', { form: 'verb', suffix: ' ' }),
    );
    const behind = el(
      'names',
      { variable: 'recipient' },
      el('label', { form: 'verb', suffix: ' ' }),
      el('name', { form: 'short' }),
    );
    const letters = ['a', 'b'].map((id) => ({ id, recipient: author, title: id }));
    const terms = { recipient: 'to' };
    expect(listed(group(behind, text('title')), letters, { bibliography, terms })).toEqual([
      'to Pell, a.',
      'to Pell, b.',
    ]);
    expect(listed(group(to, text('title')), letters, { bibliography, terms })).toEqual([
      'Pellto , a.',
      '———to , b.',
    ]);
    const numbered = [text('citation-number', { prefix: '[', suffix: '] ' }), ...group(names, text('title'))];
    expect(listed(numbered, items.slice(0, 2), { bibliography })).toEqual([
      '[1] Pell, Sluices.',
      '[2] ———, Tides.',
    ]);
  });

  it('leave nothing behind where nothing stands in their place', () => {
    const around = el('names', { variable: 'author', suffix: ' (ed.)' }, el('name', { form: 'short' }));
    expect(
      listed(group(around, text('title')), items.slice(0, 2), {
        bibliography: { 'subsequent-author-substitute': '' },
      }),
    ).toEqual(['Pell (ed.), Sluices.', 'Tides.']);
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
