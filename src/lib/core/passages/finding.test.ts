import { JSDOM } from 'jsdom';
import { describe, expect, it } from 'vitest';
import { readingHtml } from '../documents';
import { finder, leavesIn, MOST_HITS, textOf } from './index';

describe('finding words in a document', () => {
  const found = (text: string, words: string) =>
    finder(text)(words).map(({ start, end }) => text.slice(start, end));
  it('takes case, accents, blanks, marks and ligatures for no difference', () => {
    expect(found('The Étang, the  étang\nand the etang', 'the etang')).toEqual([
      'The Étang',
      'the  étang',
      'the etang',
    ]);
    expect(found('a “tide–mill” of oﬃce', '"tide-mill" of office')).toEqual(['“tide–mill” of oﬃce']);
    expect(found('salt\u00admarsh and saltmarsh', 'saltmarsh')).toHaveLength(2);
  });
  it('finds nothing for nothing, and no more than there are', () => {
    expect(found('tide', '  ')).toEqual([]);
    expect(found('aaaa', 'aa')).toHaveLength(2);
    expect(finder('tide '.repeat(6_000))('tide')).toHaveLength(MOST_HITS);
  });
  it('tells places in UTF-16 units, be characters of one or two', () => {
    expect(finder('🌊🌊 tide')('tide')).toEqual([{ start: 5, end: 9 }]);
    expect(found('水車と水車', '水車')).toEqual(['水車', '水車']);
  });
});

describe('the leaves of a document with pages', () => {
  it('stand in its text where the reader has them', () => {
    const run = (text: string, y: number) => ({ text, x: 60, y, width: 300, size: 11 });
    const leaves = [
      { width: 595, height: 842, runs: [run('First of the leaves', 100), run('with two lines.', 114)] },
      { width: 595, height: 842, runs: [] },
      { width: 595, height: 842, runs: [run('Third & last.', 100)] },
    ];
    const html = readingHtml(leaves, ['xii', undefined, '1']);
    const { text } = textOf(new JSDOM(`<body>${html}</body>`).window.document.body);
    const found = leavesIn(html);
    expect(found.map(({ leaf, page, start, end }) => [leaf, page, text.slice(start, end)])).toEqual([
      [1, 'xii', 'First of the leaves with two lines.'],
      [2, undefined, ''],
      [3, '1', 'Third & last.'],
    ]);
  });
});
