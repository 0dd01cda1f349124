import { describe, expect, it } from 'vitest';
import { nameText } from '../source';
import { fromLeaves, linesOf, paragraphsOf, printedLabels, readingHtml, type Leaf } from './index';

const leaf = (...lines: [text: string, y: number, size?: number, x?: number][]): Leaf => ({
  width: 595,
  height: 842,
  runs: lines.map(([text, y, size = 10, x = 72]) => ({ text, x, y, width: text.length * size * 0.5, size })),
});
const numbered = (...feet: string[]) =>
  feet.map((foot) => leaf(['Some text of the page that goes on.', 300], [foot, 810]));

describe('lines and paragraphs', () => {
  it('joins runs on one base line, keeps columns apart', () => {
    const page: Leaf = {
      width: 595,
      height: 842,
      runs: [
        { text: 'Salt', x: 72, y: 100, width: 20, size: 10 },
        { text: 'marsh', x: 95, y: 100, width: 28, size: 10 },
        { text: 'the other column', x: 320, y: 100, width: 80, size: 10 },
      ],
    };
    expect(linesOf(page).map((l) => l.text)).toEqual(['Salt marsh', 'the other column']);
  });
  it('leaves footnote marks out when asked', () => {
    const page: Leaf = {
      width: 595,
      height: 842,
      runs: [
        { text: 'Ana Ferreira', x: 72, y: 100, width: 60, size: 12 },
        { text: '1', x: 132, y: 96, width: 4, size: 7 },
        { text: ', Tsz Ho Ng', x: 136, y: 100, width: 55, size: 12 },
      ],
    };
    expect(linesOf(page, false).map((l) => l.text)).toEqual(['Ana Ferreira, Tsz Ho Ng']);
  });
  it('begins a paragraph at a wider gap and at another size', () => {
    const lines = linesOf(
      leaf(
        ['A heading', 80, 16],
        ['First line of it all', 120],
        ['second line of it all', 134],
        ['Another paragraph', 170],
      ),
    );
    expect(paragraphsOf(lines, 10).map((p) => p.lines.length)).toEqual([1, 2, 1]);
  });
});

describe('the reading page', () => {
  it('joins words divided at a line’s end, but not compounds the document writes with a hyphen', () => {
    const leaves = [
      leaf(['The old wheel-', 100], ['house and the half-', 114], ['open gate stood', 128]),
      leaf(['a half-open gate', 100]),
    ];
    const text = readingHtml(leaves, ['7', undefined]).replace(/<[^>]*>/g, '');
    expect(text).toContain('The old wheelhouse and the half-open gate stood');
  });
  it('names the printed page of each leaf, and escapes', () => {
    const html = readingHtml([leaf(['a < b & c', 100])], ['xii']);
    expect(html).toContain('data-leaf="1" data-page="xii"');
    expect(html).toContain('a &lt; b &amp; c');
    expect(readingHtml([leaf(['x', 100])], [undefined])).not.toContain('data-page');
  });
});

describe('printed page labels', () => {
  it('the file’s own labels hold when they say more than the count', () => {
    expect(printedLabels(numbered('', '', ''), ['i', 'ii', '1'])).toEqual(['i', 'ii', '1']);
  });
  it('else the numbers printed in the margins, when they rise together', () => {
    expect(printedLabels(numbered('101', '102', '103'), ['1', '2', '3'])).toEqual(['101', '102', '103']);
    expect(printedLabels(numbered('101', 'Figure', '103'), null)).toEqual(['101', '102', '103']);
  });
  it('roman front matter before arabic numbers', () => {
    expect(printedLabels(numbered('', 'ii', 'iii', '1', '2', '3', '4', '5'), null)).toEqual([
      'i',
      'ii',
      'iii',
      '1',
      '2',
      '3',
      '4',
      '5',
    ]);
  });
  it('none where nothing tells them: the count of leaves is not passed off as printed', () => {
    expect(printedLabels(numbered('1998', 'x', '44'), null)).toEqual([undefined, undefined, undefined]);
    expect(printedLabels(numbered('', '', ''), ['1', '2', '3'])).toEqual([undefined, undefined, undefined]);
  });
});

describe('the first leaf', () => {
  const read = (
    leaves: Leaf[],
    info: Record<string, string> = {},
    xmp: Record<string, string | string[]> = {},
    labels: (string | undefined)[] = [],
  ) => {
    const found = fromLeaves(leaves, labels, { info, xmp });
    const last = (field: string) => found.filter((c) => c.field === field).map((c) => c.value);
    return { last, people: (last('author') as never[][]).map((names) => names.map(nameText)) };
  };
  const article = leaf(
    ['Marsh Letters 3 (1–2), 7–24 (2021)', 40, 8],
    ['Salt marsh recovery behind breached dams', 110, 18],
    ['Ana Ferreira, Tsz Ho Ng and Cian Ó Súilleabháin', 140, 12],
    ['Abstract', 180, 10],
    ['Ponds behind former mill dams were surveyed for elevation and plant cover.', 194, 10],
    ['1. Introduction', 240, 10],
    ['Along the northern sounds some two hundred ponds were dammed. doi:10.5555/marsh.3.7', 254, 10],
  );
  it('gives title by size, people under it, abstract, running head, DOI', () => {
    const { last, people } = read([article], { Title: 'Microsoft Word - final.doc', Author: 'user' });
    expect(last('title')).toEqual(['Salt marsh recovery behind breached dams']);
    expect(people).toEqual([['Ferreira, Ana', 'Ng, Tsz Ho', 'Ó Súilleabháin, Cian']]);
    expect([
      last('type')[0],
      last('container-title')[0],
      last('volume')[0],
      last('issue')[0],
      last('page')[0],
    ]).toEqual(['article-journal', 'Marsh Letters', '3', '1-2', '7-24']);
    expect(last('DOI')).toEqual(['10.5555/marsh.3.7']);
    expect(last('abstract')[0]).toContain('Ponds behind former mill dams');
  });
  it('puts Dublin Core and PRISM in XMP before it', () => {
    const { last } = read(
      [article],
      {},
      {
        'dc:title': 'Salt marsh recovery',
        'dc:creator': ['Ana Ferreira'],
        'prism:doi': '10.5555/xmp',
        'prism:startingpage': '7',
        'prism:endingpage': '24',
      },
    );
    expect(last('title')[0]).toBe('Salt marsh recovery');
    expect(last('DOI')[0]).toBe('10.5555/xmp');
    expect(last('page')[0]).toBe('7-24');
  });
  it('knows a thesis by its title page, and makes nothing of an empty leaf', () => {
    const { last } = read([
      leaf(
        ['Mud and memory', 200, 24],
        ['Nuala Byrne', 240, 14],
        ['A thesis submitted for the degree of Doctor of Philosophy', 300],
        ['University of Northsound', 320],
        ['2018', 340],
      ),
    ]);
    expect([last('type')[0], last('publisher')[0]]).toEqual(['thesis', 'University of Northsound']);
    expect(last('issued')[0]).toEqual({ 'date-parts': [[2018]] });
    expect(fromLeaves([leaf()], [], { info: {}, xmp: {} })).toEqual([]);
  });
});
