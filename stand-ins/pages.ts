import { nav, ld, meta, page } from './html';
import { BLOG, GUIDE, htmlOf, MARSH, NEWS, THESIS, TURBINES } from './texts';

/** How often the living review has been rewritten. */
let edition = 1;
/** Makes the living review show another edition: 1 as first, 2 with text around changed, 3 with words changed, 4 without them. */
export function changeEdition(to: 1 | 2 | 3 | 4): void {
  edition = to;
}

const review = () =>
  page(
    'en',
    `<title>Tide gates: a living review</title>${meta('author', 'Osei, Kofi')}`,
    `<main><h1>Tide gates: a living review</h1>
${edition >= 2 ? '<p>Second edition. This review is rewritten each spring as new work comes in, and its first section is new.</p>' : ''}
<p>Gates were hung on oak posts, and ${edition >= 2 ? 'lately also' : 'later'} on iron ones.</p>
<p>${edition === 4 ? 'Whatever its size, a gate' : `A gate that is shut for ${edition === 3 ? 'three tides in ten' : 'one tide in ten'}`} does no harm to the marsh behind it. More has not been tested.</p>
<p>The custom of closing for visitors is recent.</p></main>`,
  );

/** The pages of the invented web, by host and path. */
export const PAGES: Record<string, () => string> = {
  'marshletters.example/articles/3-1-7': () =>
    page(
      'en',
      `<title>Salt marsh recovery behind breached dams | Marsh Letters</title>
${meta('citation_title', 'Salt marsh recovery behind breached dams')}
${meta('citation_author', 'Ferreira, Ana', 'Ng, Tsz Ho', 'Ó Súilleabháin, Cian')}
${meta('citation_journal_title', 'Marsh Letters')}
${meta('citation_volume', '3')}${meta('citation_issue', '1-2')}${meta('citation_firstpage', '7')}${meta('citation_lastpage', '24')}
${meta('citation_publication_date', '2021/11')}${meta('citation_doi', '10.5555/marsh.3.7')}${meta('citation_issn', '2049-3630')}
${meta('citation_language', 'en')}
${meta('citation_abstract', 'Ponds behind former mill dams were surveyed for elevation and plant cover. Salt marsh returned within six years of a breach wherever gates stood open.')}
<link rel="canonical" href="https://marshletters.example/articles/3-1-7">`,
      `${nav('Marsh Letters')}<main><article><h1>Salt marsh recovery behind breached dams</h1>
<p class="authors">Ana Ferreira, Tsz Ho Ng and Cian Ó Súilleabháin</p>
${htmlOf(MARSH)}
<figure><img src="/figures/1.png" alt="Rise of pond floors against years since the breach"><figcaption>Figure 1. Rise of pond floors.</figcaption></figure>
<script>document.title = 'script ran'; fetch('/beacon');</script>
</article></main><footer>Society for Coastal Wetlands</footer>`,
    ),
  'repository.northsound.example/handle/1/5120': () =>
    page(
      'en',
      `<title>SALT MARSH RECOVERY BEHIND BREACHED DAMS - Northsound Repository</title>
${meta('DC.title', 'SALT MARSH RECOVERY BEHIND BREACHED DAMS')}
${meta('DC.creator', 'Ferreira, A.', 'Ng, T. H.', 'O Suilleabhain, C.')}
${meta('DCTERMS.issued', '2021')}${meta('DC.type', 'Journal Article')}
${meta('DC.identifier', 'https://doi.org/10.5555/MARSH.3.7')}${meta('DC.language', 'en')}
${meta('DC.publisher', 'University of Northsound')}
${meta('DCTERMS.abstract', 'Ponds behind former mill dams were surveyed for elevation and plant cover.')}`,
      `<main><h1>SALT MARSH RECOVERY BEHIND BREACHED DAMS</h1><p>Deposited by the authors. The accepted manuscript is under embargo until the summer.</p>
<p>Ponds behind former mill dams were surveyed for elevation and plant cover. Salt marsh returned wherever gates stood open.</p></main>`,
    ),
  'openindex.example/records/w3107': () =>
    page(
      'en',
      `<title>Grain, toll and tide - Open Index</title>
${ld({ '@context': 'https://schema.org', '@type': 'WebSite', name: 'Open Index', url: 'https://openindex.example/' })}
${ld({
  '@context': 'https://schema.org',
  '@type': 'ScholarlyArticle',
  name: 'Grain, toll and tide: Mill leases, 1540–1610',
  author: [
    { '@type': 'Person', givenName: 'E. M.', familyName: 'Barrow' },
    { '@type': 'Person', name: 'Tully, J. Q., Jr.' },
  ],
  datePublished: '1998',
  pageStart: 'e112',
  isPartOf: {
    '@type': 'PublicationVolume',
    volumeNumber: '44',
    isPartOf: { '@type': 'Periodical', name: 'Journal of Coastal Economic History' },
  },
  identifier: { '@type': 'PropertyValue', propertyID: 'DOI', value: '10.5555/jceh.44.e112' },
  description:
    'Eighty leases of tide mills are read for what they say of grain, toll and the state of the dam.',
})}`,
      `<main><h1>Grain, toll and tide: Mill leases, 1540–1610</h1><p>Eighty leases of tide mills are read for what they say of grain, toll and the state of the dam. The tenant kept the dam; the lord kept the toll.</p></main>`,
    ),
  'repository.northsound.example/handle/1/4455': () =>
    page(
      'en',
      `<title>Tide mills of the northern sounds</title>
${meta('DC.title', 'Tide mills of the northern sounds')}${meta('DC.creator', 'Lindqvist, Maja')}
${meta('DCTERMS.issued', '2016-05')}${meta('DC.type', 'Doctoral thesis')}${meta('DC.publisher', 'University of Northsound')}
${meta('DC.language', 'en')}${meta('DC.identifier', 'https://repository.northsound.example/handle/1/4455')}`,
      `${nav('Northsound Repository')}<main><h1>Tide mills of the northern sounds</h1><p>Maja Lindqvist</p>\n${htmlOf(THESIS)}</main>`,
    ),
  'smallhydro.example/9/2/33': () =>
    page(
      'en',
      `<title>Turbines in old wheelhouses</title>
${meta('citation_title', 'TURBINES IN OLD WHEELHOUSES')}${meta('citation_author', 'Yuki Sato')}
${meta('citation_journal_title', 'Small Hydropower Review')}${meta('citation_volume', '9')}${meta('citation_issue', '2')}
${meta('citation_firstpage', '33')}${meta('citation_lastpage', '51')}${meta('citation_date', '2020')}
${meta('citation_doi', '10.5555/shr.9.33')}`,
      `<main><h1>Turbines in old wheelhouses</h1>\n${htmlOf(TURBINES)}</main>`,
    ),
  'news.portledger.example/2023/03/14/last-miller.html': () =>
    page(
      'en-GB',
      `<title>Last miller of the sound hangs up his apron | Port Ledger</title>
${ld({
  '@context': 'https://schema.org',
  '@graph': [
    { '@type': 'WebSite', name: 'Port Ledger' },
    {
      '@type': 'NewsArticle',
      headline: 'Last miller of the sound hangs up his apron',
      author: [
        { '@type': 'Person', name: 'Priya Raman' },
        { '@type': 'Person', name: 'Tessa Oakes' },
      ],
      datePublished: '2023-03-14T06:00:00Z',
      dateModified: '2023-03-16T11:20:00Z',
      publisher: { '@type': 'NewsMediaOrganization', name: 'Port Ledger' },
    },
  ],
})}
<meta property="og:site_name" content="Port Ledger"><meta property="og:type" content="article">`,
      `${nav('Port Ledger')}<article><h1>Last miller of the sound hangs up his apron</h1><p class="byline">By Priya Raman and Tessa Oakes</p>\n${htmlOf(NEWS)}</article>`,
    ),
  'harbourcouncil.example/guides/dressing': () =>
    page(
      'en',
      '<title>Dressing a millstone: A practical guide - Harbour Council</title>',
      `<h1>Dressing a millstone: A practical guide</h1>\n${htmlOf(GUIDE)}`,
    ),
  'longsoundwalks.example/posts/thirty-one-ponds': () =>
    page(
      'en',
      `<title>Thirty-one ponds</title>${ld({
        '@context': 'https://schema.org',
        '@type': 'BlogPosting',
        headline: 'Thirty-one ponds',
        author: { '@type': 'Person', name: 'Kofi Osei' },
        datePublished: '2022-06-02',
        publisher: { '@type': 'Organization', name: 'Long Sound Walks' },
      })}`,
      `<main><h1>Thirty-one ponds</h1>\n${htmlOf(BLOG)}</main>`,
    ),
  'livingreviews.example/tide-gates': review,
};
