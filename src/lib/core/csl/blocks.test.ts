/** Parts of an entry that stand by themselves, and what stands between them. CSL 1.0.2, "Display" and "second-field-align". */
import { expect, it } from 'vitest';
import { listNodes } from './bibliography';
import { leavesOf } from './leaves';
import { openRegistry, setItems } from './registry';
import { el, styleOf, text } from './test-style';
import type { Tree } from './tree';

/** An entry in a style of some layout, each part that stands by itself in brackets. */
function printed(layout: Tree[], bibliography: Record<string, string> = {}): string {
  const registry = openRegistry(styleOf(layout, bibliography));
  setItems(registry, [{ id: 'a', type: 'book', title: 'Tides', publisher: 'Mole', edition: '2' }]);
  const [entry] = listNodes(registry);
  let out = '';
  let open: unknown;
  for (const { text: words, frame } of leavesOf(entry!.nodes, registry.style.locale)) {
    let f = frame;
    while (f && !f.piece.display) f = f.parent;
    if (f?.piece !== open) out += `${open ? ']' : ''}${f ? '[' : ''}`;
    open = f?.piece;
    out += words;
  }
  return out + (open ? ']' : '');
}

it('keeps the marks between two parts at the end of the first, where they do not begin a line', () => {
  const parts = (display: string) => [
    el('group', { delimiter: '. ' }, el('group', {}, text('publisher', { display })), text('title')),
  ];
  expect(printed(parts('left-margin'))).toBe('[Mole. ]Tides.');
  expect(printed(parts('block'))).toBe('[Mole. ]Tides.');
});

it('keeps the end of the entry in a part that stands last', () => {
  const last = el(
    'group',
    { delimiter: ' ' },
    text('title'),
    el('group', {}, text('publisher', { display: 'block' })),
  );
  expect(printed([last])).toBe('Tides [Mole.]');
});

it('leaves the words behind a part where they are', () => {
  expect(printed([text('title', { display: 'block' }), el('text', { value: 'in print' })])).toBe(
    '[Tides]in print.',
  );
});

it('aligns to the second field only where there is one', () => {
  const fields = { 'second-field-align': 'flush' };
  expect(printed([text('edition'), text('title')], fields)).toBe('[2][Tides.]');
  expect(printed([el('group', { delimiter: '. ' }, text('edition'), text('title'))], fields)).toBe(
    '2. Tides.',
  );
});
