import type { IncomingMessage, ServerResponse } from 'node:http';
import { foldWords } from '../src/lib/core/text';

/** Works the registry knows, by DOI in lower case: the CSL-JSON it answers with, and where the DOI leads. */
export const REGISTERED: Record<string, { item: Record<string, unknown>; landing: string }> = {
  '10.5555/marsh.3.7': {
    landing: 'https://marshletters.example/articles/3-1-7',
    item: {
      type: 'journal-article',
      title: ['Salt marsh recovery behind breached dams'],
      author: [
        {
          given: 'Ana',
          family: 'Ferreira',
          sequence: 'first',
          affiliation: [],
          // The example of ORCID's own documentation.
          ORCID: 'https://orcid.org/0000-0002-1825-0097',
        },
        { given: 'Tsz Ho', family: 'Ng', sequence: 'additional', affiliation: [] },
        { given: 'Cian', family: 'Ó Súilleabháin', sequence: 'additional', affiliation: [] },
      ],
      'container-title': ['Marsh Letters'],
      volume: '3',
      issue: '1-2',
      page: '7-24',
      issued: { 'date-parts': [[2021, 11]] },
      publisher: 'Society for Coastal Wetlands',
      ISSN: ['2049-3630'],
      DOI: '10.5555/marsh.3.7',
      URL: 'https://doi.example/10.5555/marsh.3.7',
      source: 'Registry',
      'reference-count': 41,
    },
  },
  '10.5555/shr.9.33': {
    landing: 'https://smallhydro.example/9/2/33',
    item: {
      type: 'journal-article',
      title: ['Turbines in old wheelhouses'],
      author: [{ given: 'Yuki', family: 'Sato' }],
      'container-title': ['Small Hydropower Review'],
      volume: '9',
      issue: '2',
      page: '33-51',
      issued: { 'date-parts': [[2020, 4]] },
      publisher: 'Low Head Press',
      ISSN: ['1050-124X'],
      DOI: '10.5555/shr.9.33',
    },
  },
  '10.5555/jceh.44.e112': {
    landing: 'https://openindex.example/records/w3107',
    item: {
      type: 'journal-article',
      title: ['Grain, toll and tide: Mill leases, 1540–1610'],
      author: [
        { given: 'E. M.', family: 'Barrow' },
        { given: 'J. Q.', family: 'Tully', suffix: 'Jr.' },
      ],
      'container-title': ['Journal of Coastal Economic History'],
      volume: '44',
      page: 'e112',
      issued: { 'date-parts': [[1998]] },
      publisher: 'Strand University Press',
      DOI: '10.5555/jceh.44.e112',
    },
  },
  '10.5555/es.12.101': {
    landing: 'https://estuaryshore.example/articles/12-2-101',
    item: {
      type: 'journal-article',
      title: ['Sluices, mud and the long ebb: How mill ponds filled'],
      author: [
        { given: 'Nuala', family: 'Byrne' },
        { given: 'Ravi', family: 'Menon' },
      ],
      'container-title': ['Estuary and Shore'],
      volume: '12',
      issue: '2',
      page: '101-108',
      issued: { 'date-parts': [[2019, 6, 14]] },
      publisher: 'Shore Society',
      ISSN: ['2770-114X'],
      DOI: '10.5555/es.12.101',
      PMID: '30611411',
    },
  },
  '10.5555/es.12.117': {
    landing: 'https://estuaryshore.example/articles/12-2-117',
    item: {
      type: 'journal-article',
      title: ['Eel grass and the shape of sluices'],
      author: [{ given: 'Ingrid', family: 'Åsen' }],
      'container-title': ['Estuary and Shore'],
      volume: '12',
      issue: '2',
      page: '117-130',
      issued: { 'date-parts': [[2019, 6]] },
      publisher: 'Shore Society',
      ISSN: ['2770-114X'],
      DOI: '10.5555/es.12.117',
    },
  },
  '10.5555/dh.77': {
    landing: 'https://dataharbour.example/datasets/tidepond-cores',
    item: {
      type: 'dataset',
      title: 'Cores from nine tide mill ponds',
      author: [{ family: 'Byrne', given: 'Nuala' }, { literal: 'Long Sound Survey' }],
      issued: { 'date-parts': [[2019]] },
      publisher: 'Data Harbour',
      version: '1.2',
      DOI: '10.5555/dh.77',
    },
  },
  '10.48550/arxiv.2403.01234': {
    landing: 'https://openpreprints.example/abs/2403.01234',
    item: {
      type: 'article',
      title: 'Tides as clocks',
      author: [{ family: 'Menon', given: 'Ravi' }],
      issued: { 'date-parts': [[2024]] },
      publisher: 'Open Preprints',
      DOI: '10.48550/arXiv.2403.01234',
    },
  },
  '10.5555/nophone': {
    landing: 'https://broken.example/paper',
    item: {
      type: 'book-chapter',
      title: ['Ledgers of the harbour towns'],
      author: [{ given: 'Mieke', family: 'Zee', 'non-dropping-particle': 'van der' }],
      editor: [{ given: 'Kofi', family: 'Osei' }],
      'container-title': ['Water and Work'],
      publisher: 'Strand University Press',
      issued: { 'date-parts': [[2015]] },
      page: '88-109',
      ISBN: ['978-0-306-40615-7'],
      DOI: '10.5555/nophone',
    },
  },
};

/** Answers `GET /DOI` by content negotiation: CSL-JSON where it is asked for, else a redirect to the landing page. */
export function registry(request: IncomingMessage, response: ServerResponse, path: string): void {
  const doi = decodeURIComponent(path.replace(/^\//, '')).toLowerCase();
  const known = REGISTERED[doi];
  if (!known) {
    response.writeHead(404, { 'content-type': 'text/plain' }).end('DOI not found');
    return;
  }
  if (/application\/vnd\.citationstyles\.csl\+json/.test(request.headers.accept ?? '')) {
    response
      .writeHead(200, { 'content-type': 'application/vnd.citationstyles.csl+json' })
      .end(JSON.stringify(known.item));
    return;
  }
  response.writeHead(302, { location: known.landing }).end();
}

/** Answers `GET /PMID` with the CSL-JSON of the work that has it. */
export function pubmed(response: ServerResponse, path: string): void {
  const pmid = path.replace(/^\//, '');
  const known = Object.values(REGISTERED).find(({ item }) => item.PMID === pmid);
  if (!known) response.writeHead(404, { 'content-type': 'text/plain' }).end('no such id');
  else
    response
      .writeHead(200, { 'content-type': 'application/vnd.citationstyles.csl+json' })
      .end(JSON.stringify(known.item));
}

/** Searches the registered works by the words of `query.bibliographic` and the ISSN of `filter`. */
export function works(response: ServerResponse, query: URLSearchParams): void {
  const wanted = foldWords(query.get('query.bibliographic') ?? '');
  const issn = /issn:([\dX-]+)/.exec(query.get('filter') ?? '')?.[1];
  const scored = Object.values(REGISTERED)
    .filter(({ item }) => !issn || (item.ISSN as string[] | undefined)?.includes(issn))
    .map(({ item }) => {
      const words = new Set(foldWords(JSON.stringify(item)));
      return { item, score: wanted.filter((w) => words.has(w)).length / Math.max(1, wanted.length) };
    })
    .filter(({ score }) => score >= 0.5)
    .sort((a, b) => b.score - a.score);
  const items = scored.slice(0, Number(query.get('rows') ?? 5)).map(({ item }) => item);
  response
    .writeHead(200, { 'content-type': 'application/json' })
    .end(JSON.stringify({ status: 'ok', message: { items } }));
}

const HANDLES: Record<string, string> = {
  '5555/4455': 'https://repository.northsound.example/handle/1/4455',
};

/** Answers `GET /HANDLE` with a redirect to what it names. */
export function handles(response: ServerResponse, path: string): void {
  const landing = HANDLES[path.replace(/^\//, '')];
  if (landing) response.writeHead(302, { location: landing }).end();
  else response.writeHead(404, { 'content-type': 'text/plain' }).end('Handle not found');
}
