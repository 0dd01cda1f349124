import { JSDOM } from 'jsdom';
import { describe, expect, it } from 'vitest';
import { alternativesOf, originOf, sourceRecord } from '../source';
import { candidatesOf, fromCslJson, recordOf } from './index';
import { pageTitle } from './extractors/html';

const NOW = '2026-03-03T10:00:00.000Z';
const ADDRESS = 'https://marsh.example/articles/7';
const read = (head: string, body = '', extra: ReturnType<typeof fromCslJson> = []) => {
  const { document } = new JSDOM(`<html lang="en"><head>${head}</head><body>${body}</body></html>`).window;
  return sourceRecord.parse(recordOf([...candidatesOf(document, ADDRESS), ...extra], ADDRESS, NOW));
};

const HIGHWIRE = `<title>Salt marsh recovery behind breached dams | Marsh Letters</title>
<meta name="citation_title" content="SALT MARSH RECOVERY BEHIND BREACHED DAMS">
<meta name="citation_author" content="Ferreira, A."><meta name="citation_author" content="Ng, T. H.">
<meta name="citation_journal_title" content="Marsh Letters"><meta name="citation_volume" content="3">
<meta name="citation_issue" content="1-2"><meta name="citation_firstpage" content="7"><meta name="citation_lastpage" content="24">
<meta name="citation_publication_date" content="2021"><meta name="citation_doi" content="doi:10.5555/marsh.3.7">
<meta name="citation_issn" content="0317-8471">`;

describe('a page with citation tags', () => {
  it('gives every field with its origin', () => {
    const r = read(HIGHWIRE);
    expect(r).toMatchObject({
      type: 'article-journal',
      'container-title': 'Marsh Letters',
      volume: '3',
      issue: '1-2',
      page: '7-24',
      DOI: '10.5555/marsh.3.7',
      ISSN: '0317-8471',
      issued: { 'date-parts': [[2021]] },
      accessed: { 'date-parts': [[2026, 3, 3]] },
      URL: ADDRESS,
      language: 'en',
    });
    expect(r.author).toEqual([
      { family: 'Ferreira', given: 'A.' },
      { family: 'Ng', given: 'T. H.' },
    ]);
    expect(originOf(r, 'volume')?.kind).toBe('highwire');
  });
  it('prefers the same title when it does not shout, and says why', () => {
    const r = read(HIGHWIRE);
    expect(r.title).toBe('Salt marsh recovery behind breached dams');
    expect(originOf(r, 'title')?.why).toContain('not in capitals');
    expect(alternativesOf(r, 'title')[0]?.value).toContain('SALT MARSH');
  });
  it('keeps the ORCIDs that came with names the record has, where they can be right', () => {
    // Both are examples of ORCID's documentation (Structure of the ORCID Identifier); the third has a wrong check character.
    const registry = fromCslJson(
      {
        title: ['Salt marsh recovery behind breached dams'],
        author: [
          { family: 'Ferreira', given: 'Ana', ORCID: 'http://orcid.org/0000-0002-1825-0097' },
          { family: 'Ng', given: 'Tsz Ho', ORCID: 'https://orcid.org/0000-0002-1825-0098' },
          { name: 'Marsh Society', ORCID: 'https://orcid.org/0000-0001-5109-3700' },
          { family: 'Pell', given: 'M.', ORCID: { value: 7 } },
        ],
      },
      'registry',
    );
    expect(read(HIGHWIRE, '', registry).retexa.orcids).toEqual({ 'Ferreira, Ana': '0000-0002-1825-0097' });
    const page = read(
      `<script type="application/ld+json">${JSON.stringify({
        '@context': 'https://schema.org',
        '@type': 'ScholarlyArticle',
        headline: 'Sluices',
        author: [
          {
            '@type': 'Person',
            name: 'Ana Ferreira',
            sameAs: ['https://a.example', 'https://orcid.org/0000-0002-1825-0097'],
          },
          {
            '@type': 'Person',
            name: 'Cian Byrne',
            identifier: { '@type': 'PropertyValue', value: '0000-0001-5109-3700' },
          },
          { '@type': 'Person', name: 'Ida Holm' },
        ],
      })}</script>`,
    );
    expect(page.retexa.orcids).toEqual({
      'Ferreira, Ana': '0000-0002-1825-0097',
      'Byrne, Cian': '0000-0001-5109-3700',
    });
    expect(read(HIGHWIRE).retexa).not.toHaveProperty('orcids');
  });
  it('takes fuller names and dates of the same people from the registry', () => {
    const registry = fromCslJson(
      {
        type: 'journal-article',
        title: ['Salt marsh recovery behind breached dams'],
        author: [
          { family: 'Ferreira', given: 'Ana' },
          { family: 'Ng', given: 'Tsz Ho' },
        ],
        issued: { 'date-parts': [[2021, 11, null]] },
        indexed: { 'date-parts': [[2022]] },
        score: 1,
      },
      'registry',
    );
    const r = read(HIGHWIRE, '', registry);
    expect(r.author?.[1]?.given).toBe('Tsz Ho');
    expect(r.issued).toEqual({ 'date-parts': [[2021, 11]] });
    expect(originOf(r, 'author')?.kind).toBe('registry');
  });
  it('keeps the registry’s year when the page says another, with the page’s as alternative', () => {
    const r = read(HIGHWIRE, '', fromCslJson({ issued: { 'date-parts': [[2020]] } }, 'registry'));
    expect(r.issued).toEqual({ 'date-parts': [[2020]] });
    expect(alternativesOf(r, 'issued')[0]?.kind).toBe('highwire');
  });
});

describe('other vocabularies', () => {
  it('reads Dublin Core of a repository', () => {
    const r = read(`<meta name="DC.title" content="Tide mills of the northern sounds">
      <meta name="DC.creator" content="Lindqvist, Maja"><meta name="DCTERMS.issued" content="2016-05">
      <meta name="DC.type" content="Doctoral thesis"><meta name="DC.publisher" content="University of Northsound">
      <meta name="DC.identifier" content="https://doi.org/10.5555/ns.4455">`);
    expect(r).toMatchObject({
      type: 'thesis',
      DOI: '10.5555/ns.4455',
      issued: { 'date-parts': [[2016, 5]] },
    });
  });
  it('walks JSON-LD through issue and volume, and passes over the site’s own block', () => {
    const work = {
      '@graph': [
        { '@type': 'WebSite', name: 'The Aggregator', url: 'https://agg.example' },
        {
          '@type': 'ScholarlyArticle',
          name: 'Grain, toll and tide',
          author: [
            { '@type': 'Person', givenName: 'E. M.', familyName: 'Barrow' },
            { '@type': 'Organization', name: 'Mill Society' },
          ],
          datePublished: '1998-06-01',
          pagination: '112–130',
          isPartOf: {
            '@type': 'PublicationIssue',
            issueNumber: 2,
            isPartOf: {
              '@type': 'PublicationVolume',
              volumeNumber: '44',
              isPartOf: { '@type': 'Periodical', name: 'Journal of Coasts', issn: '0317-8471' },
            },
          },
          identifier: { '@type': 'PropertyValue', propertyID: 'doi', value: '10.5555/jceh.44' },
        },
      ],
    };
    const r = read(`<script type="application/ld+json">{broken</script>
      <script type="application/ld+json">${JSON.stringify(work)}</script>`);
    expect(r).toMatchObject({
      type: 'article-journal',
      volume: '44',
      issue: '2',
      page: '112-130',
      'container-title': 'Journal of Coasts',
      DOI: '10.5555/jceh.44',
    });
    expect(r.author).toEqual([{ family: 'Barrow', given: 'E. M.' }, { literal: 'Mill Society' }]);
  });
  it('reads a news story: the publisher is the newspaper, the day is kept', () => {
    const r = read(
      `<script type="application/ld+json">${JSON.stringify({
        '@type': 'NewsArticle',
        headline: 'Last miller of the sound hangs up his apron',
        author: [{ '@type': 'Person', name: 'Priya Raman' }],
        datePublished: '2023-03-14T06:00:00+01:00',
        publisher: { '@type': 'Organization', name: 'Port Ledger' },
      })}</script>`,
    );
    expect(r).toMatchObject({
      type: 'article-newspaper',
      'container-title': 'Port Ledger',
      issued: { 'date-parts': [[2023, 3, 14]] },
    });
    expect(r.publisher).toBeUndefined();
  });
  it('reads a page that says next to nothing, and invents nothing', () => {
    const r = read('<title>Dressing a millstone - Harbour Council</title>', '<h1>Dressing a millstone</h1>');
    expect(r).toMatchObject({ type: 'webpage', title: 'Dressing a millstone', URL: ADDRESS });
    expect(r.author).toBeUndefined();
    expect(r.issued).toBeUndefined();
    expect(read('').title).toBeUndefined();
  });
  it('takes a canonical address only of the same host and not of the front page', () => {
    expect(read('<link rel="canonical" href="/articles/7?full=1">').URL).toBe(
      'https://marsh.example/articles/7?full=1',
    );
    expect(read('<link rel="canonical" href="https://marsh.example/">').URL).toBe(ADDRESS);
    expect(read('<link rel="canonical" href="https://other.example/x">').URL).toBe(ADDRESS);
  });
  it('cleans the site’s name from a title', () => {
    expect(pageTitle('Mills – a history | The Site', undefined)).toBe('a history');
    expect(pageTitle('Mills – a history | The Site', 'Mills – a history')).toBe('Mills – a history');
  });
});
