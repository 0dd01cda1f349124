import { JSDOM } from 'jsdom';
import { describe, expect, it } from 'vitest';
import { candidatesOf, fromCslJson, recordOf } from '../src/lib/core/capture';
import { readFormat } from '../src/lib/core/formats';
import { findDoi, isbnKey, isIssn, nameText, shortLabel, sourceRecord } from '../src/lib/core/source';
import { ECOLOGY, OTHER_FILE, SOURCES, TAGS } from '../scripts/demo/sources';
import { PAGES } from './pages';
import { REGISTERED } from './registry';
import { startStandIns } from './server';
import { BLOG, GUIDE, MARSH, NEWS, THESIS, TURBINES } from './texts';

const NOW = '2026-03-03T00:00:00.000Z';
function read(key: string, registered?: string) {
  const address = `https://${key}`;
  const { document } = new JSDOM(PAGES[key]!(), { url: address }).window;
  const registry = registered ? fromCslJson(REGISTERED[registered]!.item, 'registry') : [];
  return sourceRecord.parse(recordOf([...registry, ...candidatesOf(document, address)], address, NOW));
}
const people = (r: ReturnType<typeof read>) => (r.author ?? []).map(nameText);

/** What a careful librarian would type for each page of the invented web. */
describe('the pages, as they are read', () => {
  it('a journal article with citation tags and its registry record', () => {
    const r = read('marshletters.example/articles/3-1-7', '10.5555/marsh.3.7');
    expect(r).toMatchObject({
      type: 'article-journal',
      volume: '3',
      issue: '1-2',
      page: '7-24',
      ISSN: '2049-3630',
      publisher: 'Society for Coastal Wetlands',
    });
    expect(people(r)).toEqual(['Ferreira, Ana', 'Ng, Tsz Ho', 'Ó Súilleabháin, Cian']);
    expect(r.source).toBeUndefined();
  });
  it('the same in a repository, in capitals and initials, made good by the registry', () => {
    const alone = read('repository.northsound.example/handle/1/5120');
    expect(alone.title).toBe('SALT MARSH RECOVERY BEHIND BREACHED DAMS');
    expect(people(alone)).toEqual(['Ferreira, A.', 'Ng, T. H.', 'O Suilleabhain, C.']);
    const joined = read('repository.northsound.example/handle/1/5120', '10.5555/marsh.3.7');
    expect(joined.title).toBe('Salt marsh recovery behind breached dams');
    expect(joined.URL).toBe('https://repository.northsound.example/handle/1/5120');
  });
  it('an aggregator with schema.org data, an article number for pages', () => {
    const r = read('openindex.example/records/w3107');
    expect(r).toMatchObject({
      type: 'article-journal',
      volume: '44',
      page: 'e112',
      'container-title': 'Journal of Coastal Economic History',
      DOI: '10.5555/jceh.44.e112',
    });
    expect(people(r)).toEqual(['Barrow, E. M.', 'Tully, J. Q., Jr.']);
  });
  it('a thesis in Dublin Core', () => {
    const r = read('repository.northsound.example/handle/1/4455');
    expect(r).toMatchObject({
      type: 'thesis',
      publisher: 'University of Northsound',
      issued: { 'date-parts': [[2016, 5]] },
    });
  });
  it('an article in capitals, put right by the registry', () => {
    expect(read('smallhydro.example/9/2/33', '10.5555/shr.9.33')).toMatchObject({
      title: 'Turbines in old wheelhouses',
      issued: { 'date-parts': [[2020, 4]] },
    });
  });
  it('a news story dated by its publication, not its last change', () => {
    const r = read('news.portledger.example/2023/03/14/last-miller.html');
    expect(r).toMatchObject({
      type: 'article-newspaper',
      'container-title': 'Port Ledger',
      issued: { 'date-parts': [[2023, 3, 14]] },
      language: 'en-GB',
    });
    expect(people(r)).toEqual(['Raman, Priya', 'Oakes, Tessa']);
  });
  it('a post and a bare page', () => {
    expect(read('longsoundwalks.example/posts/thirty-one-ponds')).toMatchObject({
      type: 'post-weblog',
      'container-title': 'Long Sound Walks',
      author: [{ family: 'Osei', given: 'Kofi' }],
    });
    const bare = read('harbourcouncil.example/guides/dressing');
    expect(bare).toMatchObject({ type: 'webpage', title: 'Dressing a millstone: A practical guide' });
    expect([bare.author, bare.issued, bare.publisher]).toEqual([undefined, undefined, undefined]);
  });
});

describe('the demo’s sources', () => {
  const { entries, skipped } = readFormat('csl-json', JSON.stringify(SOURCES));
  it('are at least forty of fifteen types, and every one is valid', () => {
    expect(skipped).toEqual([]);
    expect(entries.length).toBeGreaterThanOrEqual(40);
    expect(new Set(entries.map((e) => e.record.type)).size).toBeGreaterThanOrEqual(15);
    expect(entries.flatMap((e) => e.notes)).toEqual([]);
  });
  it('are invented: DOIs under the test prefix, addresses under .example, check digits that hold', () => {
    for (const { record, key } of entries) {
      if (record.DOI) expect(findDoi(record.DOI), key).toMatch(/^10\.5555\//);
      if (record.URL) expect(new URL(record.URL).host, key).toMatch(/\.example$/);
      if (record.ISBN) expect(isbnKey(record.ISBN), key).toBeDefined();
      if (record.ISSN) expect(isIssn(record.ISSN), key).toBe(true);
    }
    for (const { item } of Object.values(REGISTERED))
      for (const issn of (item.ISSN as string[]) ?? []) expect(isIssn(issn)).toBe(true);
  });
  it('have the odd cases: particles, suffixes, single and institutional names, other scripts, no title', () => {
    const names = entries.flatMap((e) => e.record.author ?? []);
    expect(names.some((n) => n['non-dropping-particle'] === 'van der')).toBe(true);
    expect(names.some((n) => n.suffix === 'Jr.')).toBe(true);
    expect(names.some((n) => n.literal)).toBe(true);
    expect(names.some((n) => n.family && !n.given)).toBe(true);
    expect(entries.some((e) => /\p{Script=Arabic}/u.test(e.record.title ?? ''))).toBe(true);
    expect(entries.some((e) => /\p{Script=Han}/u.test(e.record.title ?? ''))).toBe(true);
    expect(entries.some((e) => !e.record.title)).toBe(true);
    expect(shortLabel(entries.find((e) => e.key === 'zee2015ledgers')!.record)).toBe('van der Zee 2015');
  });
  it('are filed and tagged by keys that exist', () => {
    const keys = new Set(entries.map((e) => e.key));
    for (const key of [...ECOLOGY, ...Object.values(TAGS).flat()]) expect(keys.has(key), key).toBe(true);
    expect(readFormat('bibtex', OTHER_FILE).skipped).toEqual([]);
  });
  it('have sixty passages in six pages', () => {
    const kept = [MARSH, THESIS, TURBINES, NEWS, GUIDE, BLOG].map(
      (t) => t.flatMap((p) => p.paragraphs.flat()).filter((s) => s.gist).length,
    );
    expect(kept.every((n) => n > 0)).toBe(true);
    expect(kept.reduce((a, b) => a + b)).toBe(60);
  });
});

describe('the server', () => {
  it('answers for every host by name, and negotiates at the registry', async () => {
    const standIns = await startStandIns();
    const ask = (host: string, path: string, accept = 'text/html') =>
      new Promise<{ status: number; type: string; location: string; body: string }>((resolve, reject) => {
        import('node:http').then(({ get }) =>
          get({ host: '127.0.0.1', port: standIns.port, path, headers: { host, accept } }, (response) => {
            let body = '';
            response.on('data', (c: Buffer) => (body += c.toString()));
            response.on('end', () =>
              resolve({
                status: response.statusCode ?? 0,
                type: response.headers['content-type'] ?? '',
                location: response.headers.location ?? '',
                body,
              }),
            );
          }).on('error', reject),
        );
      });
    expect((await ask('marshletters.example', '/articles/3-1-7')).body).toContain('citation_title');
    expect((await ask('marshletters.example', '/none')).status).toBe(404);
    const csl = await ask('doi.example', '/10.5555/MARSH.3.7', 'application/vnd.citationstyles.csl+json');
    expect(JSON.parse(csl.body)).toMatchObject({ DOI: '10.5555/marsh.3.7' });
    expect((await ask('doi.example', '/10.5555/marsh.3.7')).location).toBe(
      'https://marshletters.example/articles/3-1-7',
    );
    expect((await ask('doi.example', '/10.5555/none')).status).toBe(404);
    expect(standIns.asked.get('doi.example')).toBe(3);
    await standIns.stop();
  });
});
