import { describe, expect, it } from 'vitest';
import { runsToText, type Tree } from './index';
import { elementLines, printTraced } from './tracing';
import { el } from '../csl/test-style';

const locale = el('locale', {}, el('terms', {}, el('term', { name: 'edition' }, 'edition')));
const style = (...inList: Tree[]) =>
  el(
    'style',
    { class: 'in-text', 'initialize-with': '. ' },
    el('macro', { name: 'who' }, el('names', { variable: 'author' }, el('name', { form: 'long' }))),
    el('citation', {}, el('layout', {}, el('text', { macro: 'who' }))),
    el(
      'bibliography',
      { 'et-al-min': '3', 'et-al-use-first': '1' },
      el('layout', { suffix: '.' }, ...inList),
    ),
  );
const work = {
  id: 'a',
  type: 'book' as const,
  title: 'Tide mills',
  author: [{ family: 'Ng', given: 'Tsz Ho' }],
};

describe('what a style printed, and why', () => {
  it('is told by the elements each stretch came through, the outermost first', () => {
    const tree = style(
      el('text', { macro: 'who', suffix: '. ' }),
      el(
        'choose',
        {},
        el('if', { type: 'article' }, el('text', { variable: 'title' })),
        el(
          'else',
          {},
          el('group', { delimiter: ', ' }, el('text', { variable: 'title', 'font-style': 'italic' })),
        ),
      ),
    );
    const { references, elements } = printTraced(tree, locale, 'en-US', [work]);
    const told = references[0]!.list.map(({ text, trace = '' }) => [
      text,
      trace.split(' ').flatMap((n) => (n ? elements[Number(n)]!.tag : [])),
    ]);
    expect(told).toEqual([
      ['T. H. Ng', ['<text macro="who" suffix=". ">', '<names variable="author">']],
      ['. ', ['<text macro="who" suffix=". ">']],
      ['Tide mills', ['<else>', '<group delimiter=", ">', '<text variable="title" font-style="italic">']],
      ['.', []],
    ]);
    expect(references[0]!.list[0]!.field).toBe('author');
    expect(runsToText(references[0]!.citation)).toBe('T. H. Ng');
  });

  it('says which options of names are in force, and what says so', () => {
    const tree = style(el('text', { macro: 'who' }));
    const { elements, references } = printTraced(tree, locale, 'en-US', [work]);
    const optionsOf = (trace: string | undefined) =>
      elements[Number(trace!.split(' ').at(-1))]!.options!.map(
        ({ name, value, from }) => `${from}: ${name} ${value}`,
      );
    expect(optionsOf(references[0]!.list[0]!.trace)).toEqual([
      'bibliography: et-al-min 3',
      'bibliography: et-al-use-first 1',
      'style: initialize-with . ',
      'name: form long',
    ]);
    expect(optionsOf(references[0]!.citation[0]!.trace)).toEqual([
      'style: initialize-with . ',
      'name: form long',
    ]);
  });

  it('remarks what keeps to the schema and is wrong all the same', () => {
    const tree = style(
      el('text', { macro: 'where' }),
      el('text', { term: 'edition' }),
      el('text', { term: 'tide' }),
      el('choose', {}, el('if', { type: 'book' }), el('else-if', { type: 'book' })),
    );
    tree.children.splice(1, 0, el('macro', { name: 'spare' }));
    const { remarks } = printTraced(tree, locale, 'en-US', []);
    expect(remarks.map(({ tag, text }) => `${tag} ${text}`)).toEqual([
      '<text macro="where"> calls the macro “where”, which is not there: nothing prints',
      '<text term="tide"> asks for the term “tide”, which neither the language nor the style has',
      '<else-if type="book"> asks what a branch before it asks: it is never taken',
      '<macro name="spare"> the macro “spare” is never called',
    ]);
  });

  it('names the line of each element in its file', () => {
    const xml = `<?xml version="1.0"?>
<!-- <not an="element"/>
-->
<style class="in-text"><macro name="a"
/>
  <![CDATA[ <b> ]]><citation>
  </citation><bibliography/></style>`;
    expect(elementLines(xml)).toEqual([4, 4, 6, 7]);
    const tree = el('style', {}, el('macro', { name: 'a' }), el('citation', {}, el('layout')));
    expect(printTraced(tree, locale, 'en-US', [], [4, 4, 6, 7]).remarks[0]).toMatchObject({ line: 4 });
    // Where the lines are not those of the tree, none is said.
    expect(printTraced(tree, locale, 'en-US', [], [4, 4]).remarks[0]).not.toHaveProperty('line');
  });
});
