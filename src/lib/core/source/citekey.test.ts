import { describe, expect, it } from 'vitest';
import { makeCitekey, sourceRecord, type CitekeyPattern } from './index';

const record = sourceRecord.parse({
  type: 'article-journal',
  title: 'The <i>Zostera</i> meadows of Ålesund',
  author: [
    { family: 'Zee', 'non-dropping-particle': 'van der', given: 'M.' },
    { family: 'Ó Súilleabháin' },
    { literal: 'Harbour Board' },
    { family: 'Fourth' },
  ],
  'container-title': 'Journal of Marsh Letters',
  issued: { 'date-parts': [[2009]] },
});

describe('citekeys', () => {
  it.each<[CitekeyPattern, string]>([
    [{ parts: ['author', 'year', 'word'], between: '' }, 'zee2009zostera'],
    [{ parts: ['authors', 'short year'], between: '-' }, 'zeeosuilleabhainharbourboard-09'],
    [{ parts: ['year', 'words'], between: '_' }, '2009_zosterameadowsalesund'],
    [{ parts: ['container', 'year'], between: ':' }, 'jml:2009'],
  ])('%j', (pattern, key) => expect(makeCitekey(record, () => false, pattern)).toBe(key));
  it('get letters until one is free, and are never empty', () => {
    const taken = new Set(['zee2009zostera', 'zee2009zosteraa']);
    expect(makeCitekey(record, (k) => taken.has(k))).toBe('zee2009zosterab');
    const bare = sourceRecord.parse({ type: 'document' });
    expect(makeCitekey(bare, () => false)).toBe('anon');
    expect(makeCitekey(bare, () => false, { parts: ['word'], between: '' })).toBe('source');
  });
});
