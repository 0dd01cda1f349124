import { describe, expect, it } from 'vitest';
import { readDocument } from '../../src/lib/core/capture';
import { JSDOM } from 'jsdom';
import { SITES } from '../../stand-ins/sites';
import { ASIDE } from './aside';
import { INVENTED, invented } from './invented-web';
import { FIELDS, score } from './score';

/** Labels are what a careful librarian would type; the floor is the product's own figure. */
describe('labelled pages', () => {
  it('are at least sixty, a third of them bad on purpose, over every vocabulary', () => {
    const all = [...INVENTED, ...ASIDE];
    expect(all.length).toBeGreaterThanOrEqual(60);
    expect(all.filter((p) => p.bad).length).toBeGreaterThanOrEqual(all.length / 3 - 1);
    const seen = new Set(all.flatMap((p) => p.vocabularies));
    for (const v of [
      'highwire',
      'prism',
      'json-ld',
      'microdata',
      'rdfa',
      'coins',
      'dublin-core',
      'open-graph',
      'html',
      'links',
    ])
      expect(seen, v).toContain(v);
  });
  it.each([
    ['the invented web', INVENTED, invented],
    ['kept aside', ASIDE, undefined],
  ] as const)('are read right on at least 95 of 100 in every field: %s', (_name, pages, registry) => {
    const { right, of, misses } = score([...pages], registry);
    for (const field of FIELDS)
      expect(right[field] / of[field], `${field}: ${JSON.stringify(misses)}`).toBeGreaterThanOrEqual(0.95);
  });
});

describe('lists of works', () => {
  const listOn = (key: string) => {
    const site = SITES[key]!;
    const { document } = new JSDOM(site.body(), { url: `https://${key}` }).window;
    return readDocument(document, `https://${key}`).list.map((w) => [
      w.record.type,
      w.record.title,
      w.doi ?? w.address,
    ]);
  };
  it('a table of contents in plain HTML', () => {
    expect(listOn('estuaryshore.example/issues/12/2')).toEqual([
      [
        'article-journal',
        'Sluices, mud and the long ebb: How mill ponds filled',
        'https://estuaryshore.example/articles/12-2-101',
      ],
      [
        'article-journal',
        'Eel grass and the shape of sluices',
        'https://estuaryshore.example/articles/12-2-117',
      ],
      [
        'article-journal',
        'Counting tides: A method for undated dams',
        'https://estuaryshore.example/articles/12-2-131',
      ],
      ['article-journal', 'Review of “Water and Work”', 'https://estuaryshore.example/articles/12-2-140'],
    ]);
  });
  it('search results, the menu beside them left alone', () => {
    expect(listOn('repository.northsound.example/search').map(([type]) => type)).toEqual([
      'thesis',
      'article-journal',
      'report',
    ]);
  });
  it('an author’s page and a library list by embedded references', () => {
    expect(listOn('strandpress.example/authors/osei').map(([type, title]) => [type, title])).toEqual([
      ['book', 'Water and Work: Mills, Tides and Towns'],
      ['book', 'Gates of the Long Sound'],
      ['article-journal', 'Thirty ponds revisited'],
    ]);
    expect(listOn('openindex.example/lists/mills')[1]).toEqual([
      'article-journal',
      'Grain, toll and tide: Mill leases, 1540–1610',
      '10.5555/jceh.44.e112',
    ]);
  });
  it('proceedings by the parts of their schema.org item', () => {
    expect(listOn('shoreconf.example/2018').map(([, title]) => title)).toEqual([
      'Listening to sluices',
      'Mud clocks',
      'What the miller knew',
    ]);
  });
  it('no page about one work is taken for a list, whatever it cites', () => {
    for (const { address, html, name } of [...INVENTED, ...ASIDE]) {
      const { document } = new JSDOM(html, { url: address }).window;
      expect(readDocument(document, address).list, name).toEqual([]);
    }
  });
});
