import { describe, expect, it } from 'vitest';
import { leavesOf, openLocale, piece, richText, type Leaf, type Node } from '../csl';
import {
  htmlDocument,
  listToText,
  openTree,
  rtfDocument,
  runsOfLeaves,
  runsToHtml,
  runsToRtf,
  runsToText,
  styleFacts,
  styleLanguage,
  type PrintedList,
} from './index';

/** What a style printed, as leaves: a frame for each piece with a look or a field around it. */
function printed(nodes: Node[]): Leaf[] {
  return leavesOf(nodes, openLocale([], 'en-US'));
}

describe('runs', () => {
  const leaves = printed([
    '  ',
    piece(richText('Salt <i>marsh</i> in H<sub>2</sub>O'), { field: 'title' }),
    ', ',
    piece(['3'], { look: { weight: 'bold' } }),
    ' & ',
    piece(['ad'], { look: { variant: 'small-caps' } }),
    '  ',
  ]);
  it('keep look and field, and give text and HTML back', () => {
    const runs = runsOfLeaves(leaves, (variable) => variable);
    expect(runsToText(runs)).toBe('Salt marsh in H2O, 3 & ad');
    expect(
      runs
        .filter((r) => r.field === 'title')
        .map((r) => r.text)
        .join(''),
    ).toBe('Salt marsh in H2O');
    expect(runsToHtml(runs)).toBe(
      'Salt <i>marsh</i> in H<sub>2</sub>O, <b>3</b> &amp; <span style="font-variant:small-caps">ad</span>',
    );
    expect(runsToHtml(runs, { fields: true })).toContain('<span data-field="title">Salt </span>');
  });
  it('never let a record’s text become markup', () => {
    const runs = runsOfLeaves(printed([piece(richText('a <script> &lt;'), { field: 'title' })]), (v) => v);
    expect(runsToHtml(runs)).toBe('a &lt;script&gt; &amp;lt;');
  });
  it('turn italics inside italics back to upright', () => {
    const nodes = [piece(richText('On <i>Zostera</i>'), { look: { style: 'italic' } })];
    expect(runsToHtml(runsOfLeaves(printed(nodes), () => undefined))).toBe('<i>On </i>Zostera');
  });
  // Rich Text Format 1.9.1: \u takes a signed 16-bit number and one replacement character; { } \ are escaped.
  it('write RTF with Unicode and escapes', () => {
    expect(runsToRtf([{ text: 'Ó {x} \\ 潮', italic: true }])).toBe('{\\i \\u211 ? \\{x\\} \\\\ \\u28526 ?}');
    expect(runsToRtf([{ text: '𝄞' }])).toBe('\\u-10188 ?\\u-8930 ?');
  });
  it('links an address that is printed in parts, as a resolver with a DOI behind it is', () => {
    const runs = [
      { text: 'Pell. ' },
      { text: 'https://doi.org/' },
      { text: '10.5555/a', field: 'DOI', italic: true },
      { text: '. See https://b.example/c; ' },
      { text: 'and so on' },
    ];
    expect(runsToHtml(runs, { links: true })).toBe(
      'Pell. <a href="https://doi.org/10.5555/a">https://doi.org/<i>10.5555/a</i></a>. See <a href="https://b.example/c">https://b.example/c</a>; and so on',
    );
    expect(runsToHtml(runs)).not.toContain('<a');
  });

  it('link addresses without the full stop after them', () => {
    expect(runsToHtml([{ text: 'See https://a.example/x?y=1&z=2.' }], { links: true })).toBe(
      'See <a href="https://a.example/x?y=1&amp;z=2">https://a.example/x?y=1&amp;z=2</a>.',
    );
  });
});

describe('lists', () => {
  const list: PrintedList = {
    hangingIndent: true,
    hasList: true,
    entries: [
      { id: 'a', runs: [{ text: 'Barrow' }], label: '1.' },
      { id: 'b', runs: [{ text: 'Brandt <b>' }] },
    ],
  };
  it('come out as text, HTML and RTF', () => {
    expect(listToText(list)).toBe('1. Barrow\n\nBrandt <b>\n');
    expect(htmlDocument(list, 'References', 'en')).toContain(
      '<p style="margin:0 0 0.6em 2em;text-indent:-2em">Brandt &lt;b&gt;</p>',
    );
    expect(rtfDocument(list, 'References').match(/\\li720\\fi-720/g)).toHaveLength(2);
  });
});

describe('plain text', () => {
  const runs = [
    {
      text: 'Ferreira, A., Ng, T. H., & Ó Súilleabháin, C. (2021). Salt marsh recovery behind breached dams. Marsh Letters, 3(1–2), 7–24. https://doi.org/10.5555/marsh.3.7/a-very-long-address-that-cannot-be-broken-anywhere-at-all-however-wide',
    },
  ];
  const list = (hangingIndent: boolean) => ({ hangingIndent, hasList: true, entries: [{ id: 'a', runs }] });
  it('hangs in when it is wrapped, and loses nothing', () => {
    const lines = listToText(list(true), { wrap: true }).trimEnd().split('\n');
    expect(lines.length).toBeGreaterThan(2);
    expect(lines.slice(1).every((l) => /^ {4}\S/.test(l))).toBe(true);
    expect(lines.slice(0, -1).every((l) => [...l].length <= 78)).toBe(true);
    expect(lines.map((l) => l.trim()).join(' ')).toBe(runs[0]!.text);
  });
  it('is one line an entry otherwise', () => {
    expect(listToText(list(true))).toBe(`${runs[0]!.text}\n`);
    expect(listToText(list(false), { wrap: true })).toBe(`${runs[0]!.text}\n`);
  });
});

describe('styles', () => {
  it('are written for a language there are terms in, or for the dialect that stands for it', () => {
    const known = (id: string) => ['de-DE', 'de-AT', 'en-US'].includes(id);
    expect(styleLanguage({ locale: 'de-AT' }, known)).toBe('de-AT');
    expect(styleLanguage({ locale: 'de' }, known)).toBe('de-DE');
    expect(styleLanguage({ locale: 'de-CH' }, known)).toBe('de-DE');
    expect(styleLanguage({ locale: 'fr-FR' }, known)).toBeUndefined();
    expect(styleLanguage({}, known)).toBeUndefined();
  });

  it('say how they cite and whether they have a list', () => {
    const note = openTree({
      n: 'style',
      a: { class: 'note', 'default-locale': 'fr-FR' },
      c: [{ n: 'info' }, { n: 'citation' }],
    });
    expect(styleFacts(note)).toEqual({ format: 'note', hasList: false, fields: [], locale: 'fr-FR' });
    const numeric = openTree({
      n: 'style',
      a: { class: 'in-text' },
      c: [
        {
          n: 'info',
          c: [
            { n: 'category', a: { 'citation-format': 'numeric' } },
            { n: 'category', a: { field: 'law' } },
          ],
        },
        { n: 'bibliography' },
      ],
    });
    expect(styleFacts(numeric)).toEqual({ format: 'numeric', hasList: true, fields: ['law'] });
  });
});
