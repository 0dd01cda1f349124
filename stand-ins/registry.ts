import type { IncomingMessage, ServerResponse } from 'node:http';

/** Works the registry knows, by DOI in lower case: the CSL-JSON it answers with, and where the DOI leads. */
export const REGISTERED: Record<string, { item: Record<string, unknown>; landing: string }> = {
  '10.5555/marsh.3.7': {
    landing: 'https://marshletters.example/articles/3-1-7',
    item: {
      type: 'journal-article',
      title: ['Salt marsh recovery behind breached dams'],
      author: [
        { given: 'Ana', family: 'Ferreira', sequence: 'first', affiliation: [] },
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
