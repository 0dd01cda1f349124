import { describe, expect, it } from 'vitest';
import type { Item } from './item';
import { openRegistry, setItems } from './registry';
import { compileStyle } from './style';
import { el } from './test-style';

describe('works are sorted', () => {
  // CSL 1.0.2, “Name”, form="count", and “Substitute”: an editor who is not there is not a list of none.
  it('by how many made them, translators where there are no authors or editors', () => {
    const who = el('names', { variable: 'author' }, el('name', { form: 'count' }), el('substitute', {}, el('names', { variable: 'editor' }), el('names', { variable: 'translator' }))); // prettier-ignore
    const style = el(
      'style',
      { class: 'in-text' },
      el('macro', { name: 'count' }, who),
      el('citation', {}, el('layout', {}, el('text', { variable: 'title' }))),
      el('bibliography', {}, el('sort', {}, el('key', { macro: 'count' }), el('key', { variable: 'title' })), el('layout', {}, el('text', { variable: 'title' }))),
    ); // prettier-ignore
    const people = (count: number) => Array.from({ length: count }, (_, i) => ({ family: `Smith ${i}` }));
    const works: Item[] = [
      { id: 'two authors', author: people(2) },
      { id: 'nobody' },
      { id: 'a translator', translator: people(1) },
      { id: 'two editors', editor: people(2) },
      { id: 'an author', author: people(1) },
    ].map((work) => ({ type: 'book', title: work.id, ...work }));
    const registry = openRegistry(compileStyle(style, 'en-US', []));
    setItems(registry, works);
    const order = registry.order.map(({ item }) => item.id);
    expect(order).toEqual(['nobody', 'a translator', 'an author', 'two authors', 'two editors']);
  });
});
