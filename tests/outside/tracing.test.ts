/** What is printed for being traced is what is printed otherwise, in every style offered. */
import { expect, it } from 'vitest';
import { createPrinter, printTraced, runsToHtml, STYLES, type Run } from '../../src/lib/core/citing';
import type { CslItem } from '../../src/lib/core/source';
import { locale, style } from './catalogue';
import { works } from './works';

const bare = (runs: Run[]) =>
  runsToHtml(runs.map(({ trace: _trace, ...run }) => run)).replace(/<\/(i|b|sup|sub|u)><\1>/g, '');

it.each(STYLES.map((s) => s.id))('%s prints the same whether it is traced or not', (id) => {
  const items = works() as unknown as CslItem[];
  const [tree, words] = [style(id), locale('en-US')];
  const printer = createPrinter(tree, words, 'en-US');
  const { references, elements, remarks } = printTraced(tree, words, 'en-US', items);
  const cited = printer.citations(items.slice(0, 1), [[{ id: items[0]!.id }]]);
  expect(bare(references[0]!.citation)).toBe(bare(cited[0]!));
  const plain = printer.each(items);
  for (const [i, { id, list, failed }] of references.entries()) {
    expect(failed).toBeUndefined();
    if (list.length) expect(bare(list), id).toContain(bare(plain[i]!.runs));
  }
  // All that prints came through an element, but for what the layout puts around.
  const traced = references.flatMap(({ list, citation }) => [...list, ...citation]);
  expect(traced.filter(({ field, trace }) => field && !trace)).toEqual([]);
  expect(elements.length).toBeGreaterThan(20);
  expect(remarks.filter(({ text }) => text.includes('not there'))).toEqual([]);
});
