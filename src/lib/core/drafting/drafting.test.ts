import { describe, expect, it } from 'vitest';
import type { PrintedText, TextCitation } from '../citing';
import type { CslItem } from '../source';
import { citationsOfMarkdown, parseLocated, printMarkdown } from './index';

const found = (text: string) =>
  citationsOfMarkdown(text).citations.map(({ from, to, cites, named, inNote }) => ({
    said: text.slice(from, to),
    cites: cites.map((c) =>
      [c['suppress-author'] ? '-' : '', c.prefix && `${c.prefix} `, c.id, c.locator && ` ${c.label}:${c.locator}`, c.suffix && ` +${c.suffix}`]
        .filter(Boolean)
        .join(''),
    ),
    ...(named ? { named } : {}),
    ...(inNote === undefined ? {} : { inNote }),
  })); // prettier-ignore

/** The examples of the Pandoc User’s Guide, "Citation syntax". */
describe('citations in Markdown, as the manual has them', () => {
  it.each([
    ['Blah blah [@doe99; @smith2000; @smith2004].', '[@doe99; @smith2000; @smith2004]', ['doe99', 'smith2000', 'smith2004']],
    ['Blah blah [see @doe99, pp. 33-35 and *passim*; @smith04, chap. 1].', '[see @doe99, pp. 33-35 and *passim*; @smith04, chap. 1]', ['see doe99 page:33-35 + and <i>passim</i>', 'smith04 chapter:1']],
    ['[@{https://example.com/bib?name=foobar&date=2000}, p.  33]', '[@{https://example.com/bib?name=foobar&date=2000}, p.  33]', ['https://example.com/bib?name=foobar&date=2000 page:33']],
    ['[@smith{ii, A, D-Z}, with a suffix]', '[@smith{ii, A, D-Z}, with a suffix]', ['smith page:ii, A, D-Z +, with a suffix']],
    ['[@smith, {pp. iv, vi-xi, (xv)-(xvii)} with suffix here]', '[@smith, {pp. iv, vi-xi, (xv)-(xvii)} with suffix here]', ['smith page:iv, vi-xi, (xv)-(xvii) + with suffix here']],
    ['[@smith{}, 99 years later]', '[@smith{}, 99 years later]', ['smith +, 99 years later']],
    ['Smith says blah [-@smith04].', '[-@smith04]', ['-smith04']],
  ])('%s', (text, said, cites) => {
    expect(found(text)).toEqual([{ said, cites }]);
  }); // prettier-ignore

  it('with the author in the sentence', () => {
    expect(found('@smith04 says blah.')).toEqual([{ said: '@smith04', cites: ['smith04'], named: true }]);
    expect(found('As @smith04 [p. 33; see also @doe] says.')).toEqual([
      { said: '@smith04 [p. 33; see also @doe]', cites: ['smith04 page:33', 'see also doe'], named: true },
    ]);
  });

  it('keys end before marks of the sentence', () => {
    expect(found('See @foo:bar.baz. And @foo_bar--x, @a/b!').map((f) => f.cites[0])).toEqual(['foo:bar.baz', 'foo_bar', 'a/b']); // prettier-ignore
  });

  it('none in code, comments, front matter, addresses, or behind a stroke', () => {
    const text = '---\nauthor: me@x @y\n---\n\n`[@a]` <!-- @b\n@c --> <https://x.example/@d> [l](http://x.example/@e) \\@f g@h.example\n\n```\n[@i]\n```\n\n    [@j]\n\n@k'; // prettier-ignore
    expect(found(text).map((f) => f.cites)).toEqual([['k']]);
    expect(citationsOfMarkdown('---\nnocite: |\n  @a, @{b c}\n  @d\n---\n').nocite).toEqual(['a', 'd']);
  });

  it('know the footnote they stand in, and no brackets that are something else', () => {
    expect(found('A[^1] [@b] [see c](http://x.example) [@d](http://x.example)\n\n[^1]: @e\n\n    [@f]\n\n@g')).toEqual([
      { said: '[@b]', cites: ['b'] },
      { said: '@d', cites: ['d'], named: true },
      { said: '@e', cites: ['e'], named: true, inNote: '1' },
      { said: '[@f]', cites: ['f'], inNote: '1' },
      { said: '@g', cites: ['g'], named: true },
    ]); // prettier-ignore
  });
});

describe('a place in a work', () => {
  it.each([
    [', p. 7', { label: 'page', locator: '7', suffix: '' }],
    [', 7-9, 12', { label: 'page', locator: '7-9, 12', suffix: '' }],
    [', vol. 2, and more', { label: 'volume', locator: '2', suffix: ', and more' }],
    [' sec. 3', { label: 'section', locator: '3', suffix: '' }],
    [', pp. iv–ix', { label: 'page', locator: 'iv–ix', suffix: '' }],
    [', in passing', { suffix: ', in passing' }],
    [', I think', { suffix: ', I think' }],
    [', particularly 7', { suffix: ', particularly 7' }],
    ['', { suffix: '' }],
  ])('%j', (text, expected) => {
    expect(parseLocated(text)).toEqual(expected);
  });
});

/** Prints ids and places, so that what is asked of a style can be seen. */
const plain = (): PrintedText & { asked: TextCitation[] } => {
  const asked: TextCitation[] = [];
  return {
    asked,
    set(works, citations) {
      asked.push(...citations);
      return {
        changed: [],
        citations: citations.map((c) => ({
          id: c.id,
          ...(c.named ? { author: [{ text: `A-${c.cites[0]!.id}` }] } : {}),
          runs: [{ text: `(${c.cites.map((k) => (k.prefix ? `${k.prefix} ` : '') + k.id).join('; ')})` }],
        })),
        list: { entries: works.map(({ id }) => ({ id, runs: [{ text: `Work ${id}.` }] })), hangingIndent: true, hasList: true },
      };
    },
  };
}; // prettier-ignore
const works = new Map(['a', 'b', 'c'].map((id) => [id, { id, type: 'book' } as CslItem]));
const print = (text: string, notes = false) => printMarkdown(text, plain(), works, { notes });

describe('a manuscript is printed', () => {
  it('with the list of exactly what it cites at the end, or in its block, and nothing else changed', () => {
    expect(print('# T\n\nOne  [@b],\n@a too.\n').text).toBe('# T\n\nOne  (b),\nA-a (a) too.\n\nWork b.\n\nWork a.\n');
    expect(print('[@b]\n\n::: {#refs}\nold\n:::\n\n# After\n').text).toBe('(b)\n\n::: {#refs}\n\nWork b.\n\n:::\n\n# After\n');
    expect(print('---\nnocite: "@*"\n---\nText.\n').text).toContain('Work a.\n\nWork b.\n\nWork c.');
  }); // prettier-ignore

  it('with its lines ended as they were', () => {
    const text = '---\r\nnocite: "@c"\r\n---\r\nOne [@b].\r\n\r\n::: {#refs}\r\n:::\r\n';
    const printed =
      '---\r\nnocite: "@c"\r\n---\r\nOne (b).\r\n\r\n::: {#refs}\r\n\r\nWork b.\r\n\r\nWork c.\r\n\r\n:::\r\n';
    expect(print(text).text).toBe(printed);
  });

  it('what is not in the library is told by its line, and stays', () => {
    const { text, missing, citations } = print('One [@a].\n\nTwo [@x; @b] and @y.\n');
    expect(text).toBe('One (a).\n\nTwo [@x; @b] and @y.\n\nWork a.\n');
    expect([missing, citations]).toEqual([
      [
        { key: 'x', line: 3 },
        { key: 'y', line: 3 },
      ],
      1,
    ]);
  });

  it('with notes where the style wants them, behind the mark, numbered with those that are there', () => {
    const printer = plain();
    const text = 'One [see @a]. Two[^n] @b says.\n\n[^n]: Here [@c].\n';
    const printed = printMarkdown(text, printer, works, { notes: true });
    expect(printed.text).toBe(
      'One.[^cite-1] Two[^n] A-b[^cite-2] says.\n\n[^n]: Here ((c)).\n\nWork a.\n\nWork c.\n\nWork b.\n\n[^cite-1]: (See a)\n\n[^cite-2]: (b)\n',
    );
    expect(printer.asked.map((c) => [c.cites[0]!.id, c.note])).toEqual([['a', 1], ['c', 2], ['b', 3]]); // prettier-ignore
  });
});
