import { describe, expect, it } from 'vitest';
import { CSL_TYPES } from '../source';
import {
  annotated,
  citedKeys,
  grouped,
  htmlDocument,
  KIND_HEADINGS,
  kindOf,
  latexDocument,
  listToText,
  markdownDocument,
  rtfDocument,
  type PrintedList,
} from './index';

describe('what a text cites', () => {
  // Commands: natbib and biblatex manuals; Markdown: pandoc's manual, "Citation syntax".
  it.each([
    ['\\cite{a,b} and \\citep[see][12]{c}', ['a', 'b', 'c']],
    ['\\textcite*{a}, \\Textcite{b}, \\autocites(pre)(post)[1]{c}[2]{d}', ['a', 'b', 'c', 'd']],
    ['\\nocite{*} \\footcite[7]{x:1}', ['x:1']],
    ['As [@smith2001, pp. 3-4; see also -@doe99] and @li_2:a say.', ['smith2001', 'doe99', 'li_2:a']],
    ['Ends in a point: @key.', ['key']],
    ['In braces @{https://a.example/x.}', ['https://a.example/x.']],
    ['mail me@there.example, not a key', []],
    ['\\citation{no} \\cite without', []],
    ['@a then \\cite{b} then [@a]', ['a', 'b']],
  ])('%s', (text, keys) => expect(citedKeys(text)).toEqual(keys));
});

describe('a list that is set', () => {
  const list: PrintedList = {
    hangingIndent: true,
    hasList: true,
    entries: ['a', 'b', 'c', 'd'].map((id) => ({ id, runs: [{ text: `Entry ${id}.` }] })),
  };
  it('has every type under a heading', () => {
    for (const type of CSL_TYPES) expect(KIND_HEADINGS).toContain(kindOf(type));
  });
  const set = annotated(
    grouped(list, (id) => ({ a: 'Two', b: 'One', c: 'One' })[id], ['One', 'Two', 'Three'], 'Rest'),
    new Map([['c', [{ kind: 'quotation' as const, text: 'the *tide*', locator: { label: 'page' as const, value: '7' } }, { kind: 'gist' as const, text: 'it turns' }]]]),
    { quotes: ['“', '”'], locators: { page: ['p.', 'pp.'] } },
  ); // prettier-ignore
  it('keeps the style’s order within each group, and what is in none comes last', () => {
    expect(set.entries.map((e) => [e.heading, e.id])).toEqual([
      ['One', 'b'],
      [undefined, 'c'],
      ['Two', 'a'],
      ['Rest', 'd'],
    ]);
  });
  it('is written in every format with its headings and what stands under the entries', () => {
    expect(listToText(set)).toBe(
      'One\n\nEntry b.\n\nEntry c.\n\n    “the *tide*” (p. 7)\n\n    it turns\n\nTwo\n\nEntry a.\n\nRest\n\nEntry d.\n',
    );
    expect(markdownDocument(set, 'R')).toContain(
      '## One\n\nEntry b.\n\nEntry c.\n\n> “the \\*tide\\*” (p. 7)\n\n> it turns',
    );
    expect(htmlDocument(set, 'R', 'en')).toMatch(/<h2[^>]*>One<\/h2>[\s\S]*“the \*tide\*” \(p\. 7\)/);
    expect(latexDocument(set, 'R')).toContain('\\subsection*{One}');
    expect(latexDocument(set, 'R')).toContain('\\begin{quote}');
    expect(rtfDocument(set, 'R')).toContain('\\b\\sb240\\sa120 One\\par');
  });
});
