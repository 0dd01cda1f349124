import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { listNodes } from './bibliography';
import { openDocument, setDocument, type Document, type TextCluster } from './document';
import type { Item } from './item';
import { leavesOf, textOfLeaves } from './leaves';
import type { Node } from './pieces';
import { openRegistry, setItems } from './registry';
import { compileStyle, type CompiledStyle } from './style';
import type { Tree } from './tree';
import { el } from './test-style';

const names = (attrs: Record<string, string>) =>
  el('names', { variable: 'author' }, el('name', { 'initialize-with': '. ', ...attrs }));
const year = el('date', { variable: 'issued' }, el('date-part', { name: 'year' }));
const locator = el('text', { variable: 'locator' });
const byAuthor = el('sort', {}, el('key', { variable: 'author' }), el('key', { variable: 'issued' }));

function style(
  citation: Record<string, string>,
  layout: Tree[],
  sort: Tree[] = [byAuthor],
  number: Tree[] = [],
): CompiledStyle {
  return compileStyle(
    el(
      'style',
      { class: 'in-text' },
      el('citation', { 'et-al-min': '3', 'et-al-use-first': '1', ...citation }, el('layout', { prefix: '(', suffix: ')', delimiter: '; ' }, ...layout)),
      el('bibliography', { 'subsequent-author-substitute': '———' }, ...sort, el('layout', {}, ...number, el('group', { delimiter: '. ' }, names({ 'name-as-sort-order': 'all', form: 'short' }), year, el('text', { variable: 'title' })))),
    ),
    'en-US',
    [el('locale', {}, { name: 'term', attrs: { name: 'et-al' }, children: ['et al.'] })],
  ); // prettier-ignore
}
const authorYear = [el('group', { delimiter: ' ' }, names({ form: 'short' }), year, locator)];
const number = el('text', { variable: 'citation-number' });
const apart = { 'disambiguate-add-names': 'true', 'disambiguate-add-givenname': 'true', 'disambiguate-add-year-suffix': 'true', collapse: 'year' }; // prettier-ignore
const STYLES: Record<string, CompiledStyle> = {
  'each citation by itself': style({ ...apart, 'givenname-disambiguation-rule': 'by-cite' }, authorYear),
  'all names': style({ ...apart, 'givenname-disambiguation-rule': 'all-names' }, authorYear),
  'initials of first names': style({ ...apart, 'givenname-disambiguation-rule': 'primary-name-with-initials' }, authorYear), // prettier-ignore
  'numbers as cited': style({ collapse: 'citation-number' }, [number, locator], [], [number, ' ' as never]),
  'notes with ibid.': style({ 'disambiguate-add-year-suffix': 'true' }, [
    el(
      'choose',
      {},
      el('if', { position: 'ibid' }, el('text', { value: 'ibid.' })),
      el('else-if', { position: 'near-note' }, names({ form: 'short' })),
      el('else', {}, ...authorYear, el('text', { variable: 'first-reference-note-number', prefix: ' n. ' })),
    ),
  ]),
};

const person = fc.record({
  family: fc.constantFrom('Pell', 'Ng', 'Aust'),
  given: fc.constantFrom('Ada', 'Anna', 'Bo', 'Ada Maria'),
});
const content = fc.record({
  author: fc.array(person, { maxLength: 3 }),
  year: fc.integer({ min: 1999, max: 2001 }),
});
const IDS = ['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'];
/** A step: the works there are, in an order, those that are another now, and what the text cites. */
const step = fc.record({
  works: fc.shuffledSubarray(IDS, { minLength: 2 }),
  changes: fc.dictionary(fc.constantFrom(...IDS), content, { maxKeys: 2 }),
  cited: fc.array(
    fc.record({
      id: fc.integer({ min: 0, max: 9 }),
      note: fc.boolean(),
      named: fc.boolean(),
      cites: fc.array(
        fc.record({ id: fc.constantFrom(...IDS), locator: fc.constantFrom(undefined, '7', '8') }),
        { minLength: 1, maxLength: 3 },
      ),
    }),
    { maxLength: 6 },
  ),
});

const words = (nodes: Node[] | undefined, { locale }: CompiledStyle) =>
  nodes && textOfLeaves(leavesOf(nodes, locale));
const printed = (document: Document, of: CompiledStyle) => ({
  list: listNodes(document.registry).map(({ entry, nodes }) => [entry.item.id, words(nodes, of)]),
  citations: document.clusters.map((c) => [c.id, words(c.author, of), words(c.nodes, of)]),
});

describe('a text that changes prints as one that is printed anew', () => {
  it.each(Object.entries(STYLES))('%s', (_name, of) => {
    fc.assert(
      fc.property(
        fc.dictionary(fc.constantFrom(...IDS), content),
        fc.array(step, { maxLength: 6 }),
        (begin, steps) => {
          const document = openDocument(of);
          const items = new Map<string, Item>();
          const put = (id: string, { author, year: y }: { author: unknown[]; year: number }) =>
          items.set(id, { id, type: 'book', title: `Work ${id}`, author, issued: { 'date-parts': [[y]] } } as Item); // prettier-ignore
          for (const id of IDS) put(id, begin[id] ?? { author: [], year: 2000 });
          let before = new Map<string, string>();
          for (const { works, changes, cited } of steps) {
            for (const [id, to] of Object.entries(changes)) put(id, to);
            const of_ = works.map((id) => items.get(id)!);
            let note = 0;
            const clusters = [...new Map(cited.map((c) => [c.id, c])).values()].map((c): TextCluster => ({
            id: String(c.id), note: c.note ? ++note : 0, named: c.named, cites: c.cites.map(({ id, locator: at }) => ({ id, ...(at ? { locator: at } : {}) })),
          })); // prettier-ignore
            const changed = setDocument(document, clusters, of_);
            const anew = openDocument(of);
            setDocument(anew, clusters, of_);
            const now = printed(document, of);
            expect(now).toEqual(printed(anew, of));
            const after = new Map(now.citations.map((c) => [c[0]!, JSON.stringify(c)]));
            for (const [id, text] of after) if (before.get(id) !== text) expect(changed).toContain(id);
            before = after;
          }
        },
      ),
    );
  });

  it('a list as well, whatever comes, goes and moves', () => {
    fc.assert(
      fc.property(fc.constantFrom(...Object.values(STYLES)), fc.array(fc.array(fc.record({ id: fc.constantFrom(...IDS), content }), { maxLength: 8 }), { maxLength: 6 }), (of, steps) => {
        const registry = openRegistry(of);
        const known = new Map<string, Item>();
        for (const works of steps) {
          const items = works.map(({ id, content: { author, year: y } }) => {
            const key = JSON.stringify([id, author, y]);
            if (!known.has(key)) known.set(key, { id, type: 'book', title: `Work ${id}`, author, issued: { 'date-parts': [[y]] } } as unknown as Item);
            return known.get(key)!;
          });
          setItems(registry, items);
          const anew = openRegistry(of);
          setItems(anew, items);
          const list = (r: typeof registry) => listNodes(r).map(({ entry, nodes }) => [entry.item.id, entry.number, words(nodes, of)]);
          expect(list(registry)).toEqual(list(anew));
        }
      }),
    ); // prettier-ignore
  });
});

describe('what changed is named, and no more', () => {
  const work = (id: string, family: string, y = 2001): Item =>
    ({ id, type: 'book', title: id, author: [{ family, given: 'Ada' }], issued: { 'date-parts': [[y]] } }) as Item; // prettier-ignore
  const cites = (...ids: string[]): TextCluster[] =>
    ids.map((id, i) => ({ id: `${i}${id}`, note: 0, cites: [{ id }] }));

  it('when a second work of a year comes, those of the first take a letter', () => {
    const of = STYLES['each citation by itself']!;
    const document = openDocument(of);
    const works = [work('a', 'Pell'), work('b', 'Pell'), work('c', 'Ng')];
    setDocument(document, cites('a', 'c'), works.slice(0, 1).concat(works[2]!));
    expect(document.clusters.map((c) => words(c.nodes, of))).toEqual(['(Pell 2001)', '(Ng 2001)']);
    expect(setDocument(document, cites('a', 'c'), works)).toEqual(['0a']);
    expect(document.clusters.map((c) => words(c.nodes, of))).toEqual(['(Pell 2001a)', '(Ng 2001)']);
  });

  it('when a citation is put in early, those behind it take the next numbers', () => {
    const of = STYLES['numbers as cited']!;
    const document = openDocument(of);
    const works = [work('a', 'Pell'), work('b', 'Ng'), work('c', 'Aust')];
    const [a, b, c] = [
      { id: '1', note: 0, cites: [{ id: 'a' }] },
      { id: '2', note: 0, cites: [{ id: 'b' }] },
      { id: '3', note: 0, cites: [{ id: 'c' }] },
    ];
    setDocument(document, [a, c], works);
    expect(setDocument(document, [a, b, c], works)).toEqual(['2', '3']);
    expect(document.clusters.map((k) => words(k.nodes, of))).toEqual(['(1)', '(2)', '(3)']);
  });
});
