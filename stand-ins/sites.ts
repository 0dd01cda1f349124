import { ld, meta, nav, page } from './html';
import { MARSH, THESIS, htmlOf } from './texts';

/** A page with headers of its own: signposting links. */
export interface Served {
  body: () => string;
  headers?: Record<string, string>;
}

const ESTUARY = 'Estuary and Shore';
const row = (href: string, title: string, who: string, pages: string) =>
  `<li class="entry"><h3><a href="${href}">${title}</a></h3><p class="authors">${who}</p><p>pp. ${pages}</p></li>`;
const coins = (fields: Record<string, string | string[]>) => {
  const kev = new URLSearchParams({ ctx_ver: 'Z39.88-2004' });
  for (const [name, values] of Object.entries(fields))
    for (const value of [values].flat()) kev.append(name.startsWith('rft') ? name : `rft.${name}`, value);
  return `<span class="Z3988" title="${kev.toString().replace(/&/g, '&amp;')}"></span>`;
};
const journal = { rft_val_fmt: 'info:ofi/fmt:kev:mtx:journal', genre: 'article' };
const book = { rft_val_fmt: 'info:ofi/fmt:kev:mtx:book', genre: 'book' };

const PONDS = 'Sluices, mud and the long ebb: How mill ponds filled';
const references = `<section id="references"><h2>References</h2><ol><li>Ferreira, A., et al. (2021). Salt marsh recovery behind breached dams.
<em>Marsh Letters</em>. <a href="https://doi.example/10.5555/marsh.3.7">https://doi.example/10.5555/marsh.3.7</a></li>
<li>Sato, Y. (2020). Turbines in old wheelhouses. <a href="https://doi.example/10.5555/shr.9.33">10.5555/shr.9.33</a></li></ol></section>`;

/** More of the invented web, by host and path: every row and every vocabulary that capturing is for. */
export const SITES: Record<string, Served> = {
  'estuaryshore.example/issues/12/2': {
    body: () =>
      page(
        'en',
        `<title>Volume 12, issue 2 | ${ESTUARY}</title><meta property="og:site_name" content="${ESTUARY}">`,
        `${nav(ESTUARY)}<main><h1>Volume 12, issue 2 (June 2019)</h1><ol class="toc">
${row('/articles/12-2-101', PONDS, 'Nuala Byrne, Ravi Menon', '101–108')}
${row('/articles/12-2-117', 'Eel grass and the shape of sluices', 'Ingrid Åsen', '117–130')}
${row('/articles/12-2-131', 'Counting tides: A method for undated dams', 'Paul de la Roche, Mieke van der Zee', '131–139')}
${row('/articles/12-2-140', 'Review of “Water and Work”', 'Tessa Oakes', '140–142')}
</ol></main><footer>ISSN 2770-114X</footer>`,
      ),
  },
  'estuaryshore.example/articles/12-2-101': {
    headers: {
      link: '<https://doi.example/10.5555/es.12.101>; rel="cite-as", <https://estuaryshore.example/export/12-2-101.ris>; rel="describedby"; type="application/x-research-info-systems", <https://estuaryshore.example/pdf/12-2-101.pdf>; rel="item"; type="application/pdf"',
    },
    body: () =>
      page(
        'en',
        `<title>${PONDS} | ${ESTUARY}</title>
${meta('citation_title', PONDS)}${meta('citation_author', 'Byrne, Nuala', 'Menon, Ravi')}
${meta('citation_journal_title', ESTUARY)}${meta('citation_publication_date', '2019/06/14')}${meta('citation_online_date', '2019/02/01')}
${meta('citation_firstpage', '101')}${meta('citation_lastpage', '108')}${meta('citation_pdf_url', '/pdf/12-2-101.pdf')}
${meta('prism.volume', '12')}${meta('prism.number', '2')}${meta('prism.issn', '2770-114X')}${meta('prism.aggregationType', 'journal')}`,
        `${nav(ESTUARY)}<main><article><h1>${PONDS}</h1><p class="authors">Nuala Byrne and Ravi Menon</p>
<p>A mill pond that is not sluiced fills with mud in two generations. We cored nine ponds and dated the mud by its pollen.</p>
<p>Every pond began to fill in the decade in which its mill stopped, and none before it.</p>${references}</article></main>`,
      ),
  },
  'estuaryshore.example/articles/12-2-117': {
    body: () =>
      page(
        'en',
        `<title>Eel grass and the shape of sluices - ${ESTUARY}</title>
${ld({ '@context': 'https://schema.org', '@type': 'Organization', name: ESTUARY, url: 'https://estuaryshore.example/' })}
${ld({
  '@context': 'https://schema.org',
  '@graph': [
    {
      '@id': '#issue',
      '@type': 'PublicationIssue',
      issueNumber: '2',
      datePublished: '2019-06',
      isPartOf: { '@id': '#volume' },
    },
    { '@id': '#volume', '@type': 'PublicationVolume', volumeNumber: '12', isPartOf: { '@id': '#journal' } },
    {
      '@id': '#journal',
      '@type': 'Periodical',
      name: ESTUARY,
      issn: ['2770-114X'],
      publisher: { '@type': 'Organization', name: 'Shore Society' },
    },
    {
      '@type': 'ScholarlyArticle',
      isPartOf: { '@id': '#issue' },
      headline: 'Eel grass and the shape of sluices',
      author: { '@type': 'Person', name: 'Ingrid Åsen' },
      pageStart: '117',
      pageEnd: '130',
      datePublished: '2019-06-14',
      sameAs: 'https://doi.org/10.5555/es.12.117',
      inLanguage: 'en',
    },
  ],
})}`,
        `<main><h1>Eel grass and the shape of sluices</h1><p>Square sluices scour; arched ones do not. Eel grass keeps to the second.</p></main>`,
      ),
  },
  'estuaryshore.example/articles/12-2-131': {
    body: () =>
      page(
        'en',
        `<title>Counting tides: A method for undated dams</title>`,
        `<main itemscope itemtype="https://schema.org/ScholarlyArticle"><h1 itemprop="headline">Counting tides: A method for undated dams</h1>
<p>By <span itemprop="author" itemscope itemtype="https://schema.org/Person"><a itemprop="url" href="/people/roche"><span itemprop="name">Paul de la Roche</span></a></span>
and <span itemprop="author" itemscope itemtype="https://schema.org/Person"><span itemprop="name">Mieke van der Zee</span></span></p>
<p><span itemprop="isPartOf" itemscope itemtype="https://schema.org/PublicationIssue"><span itemprop="isPartOf" itemscope itemtype="https://schema.org/PublicationVolume"><span itemprop="isPartOf" itemscope itemtype="https://schema.org/Periodical"><span itemprop="name">${ESTUARY}</span> <meta itemprop="issn" content="2770-114X"></span>
<span itemprop="volumeNumber">12</span></span>(<span itemprop="issueNumber">2</span>)</span>, <span itemprop="pagination">131–139</span>,
<time itemprop="datePublished" datetime="2019-06-14">14 June 2019</time></p><p>Dams without a date can be dated by the tides they let in.</p></main>`,
      ),
  },
  'estuaryshore.example/articles/12-2-140': {
    body: () =>
      page(
        'en',
        `<title>Review of “Water and Work” | ${ESTUARY}</title>${meta('DC.type', 'Book Review')}${meta('DC.title', 'Review of “Water and Work”')}
${meta('DC.creator', 'Oakes, Tessa')}${meta('DC.date', '2019-06-14')}${meta('prism.publicationName', ESTUARY)}${meta('prism.volume', '12')}${meta('prism.number', '2')}
${meta('prism.startingPage', '140')}${meta('prism.endingPage', '142')}${meta('prism.issn', '2770-114X')}`,
        `<main><h1>Review of “Water and Work”</h1><p>Nine chapters, and the harbour ledgers are the best of them.</p></main>`,
      ),
  },
  'strandpress.example/books/water-and-work': {
    body: () =>
      page(
        'en',
        `<title>Water and Work - Strand University Press</title>
${ld({
  '@context': 'https://schema.org',
  '@type': 'Book',
  name: 'Water and Work: Mills, Tides and Towns',
  editor: [
    { '@type': 'Person', givenName: 'Kofi', familyName: 'Osei' },
    { '@type': 'Person', givenName: 'Maja', familyName: 'Lindqvist' },
  ],
  isbn: '978-0-306-40615-7',
  bookEdition: '2nd ed.',
  numberOfPages: 312,
  datePublished: '2015',
  publisher: { '@type': 'Organization', name: 'Strand University Press' },
  inLanguage: 'en',
  url: 'https://strandpress.example/books/water-and-work',
})}`,
        `${nav('Strand University Press')}<main><h1>Water and Work: Mills, Tides and Towns</h1><p>Edited by Kofi Osei and Maja Lindqvist</p>
<ul><li><a href="/books/water-and-work/5">Ledgers of the harbour towns</a></li></ul></main>`,
      ),
  },
  'strandpress.example/books/water-and-work/5': {
    body: () =>
      page(
        'en',
        `<title>Ledgers of the harbour towns</title>${meta('citation_title', 'Ledgers of the harbour towns')}${meta('citation_author', 'van der Zee, Mieke')}
${meta('citation_editor', 'Kofi Osei', 'Maja Lindqvist')}${meta('citation_inbook_title', 'Water and Work: Mills, Tides and Towns')}${meta('citation_publication_date', '2015')}
${meta('citation_firstpage', '88')}${meta('citation_lastpage', '109')}${meta('citation_isbn', '978-0-306-40615-7')}${meta('citation_publisher', 'Strand University Press')}
${meta('citation_doi', '10.5555/nophone')}`,
        `<main><h1>Ledgers of the harbour towns</h1><p>Toll was entered by the tide, not by the day.</p></main>`,
      ),
  },
  'strandpress.example/authors/osei': {
    body: () =>
      page(
        'en',
        '<title>Kofi Osei - Strand University Press</title>',
        `<main><h1>Kofi Osei</h1><ul>
<li><a href="/books/water-and-work">Water and Work</a>${coins({ ...book, btitle: 'Water and Work: Mills, Tides and Towns', date: '2015', isbn: '9780306406157', pub: 'Strand University Press', au: 'Osei, Kofi' })}</li>
<li><a href="/books/gates">Gates of the Long Sound</a>${coins({ ...book, btitle: 'Gates of the Long Sound', date: '2018', isbn: '9781861972712', pub: 'Strand University Press', au: 'Osei, Kofi' })}</li>
<li>In journals: Thirty ponds revisited${coins({ ...journal, atitle: 'Thirty ponds revisited', jtitle: 'Marsh Letters', volume: '4', spage: '201', epage: '219', date: '2022', au: ['Osei, Kofi', 'Ferreira, Ana'] })}</li>
</ul></main>`,
      ),
  },
  'dataharbour.example/datasets/tidepond-cores': {
    headers: { link: '<https://doi.example/10.5555/dh.77>; rel="cite-as"' },
    body: () =>
      page(
        'en',
        `<title>Cores from nine tide mill ponds - Data Harbour</title>
${ld({
  '@context': 'https://schema.org/',
  '@type': 'Dataset',
  name: 'Cores from nine tide mill ponds',
  creator: [
    { '@type': 'Person', name: 'Byrne, Nuala' },
    { '@type': 'Organization', name: 'Long Sound Survey' },
  ],
  datePublished: '2019-05-30',
  version: '1.2',
  publisher: { '@type': 'Organization', name: 'Data Harbour' },
  description: 'Pollen counts and ages by depth for nine ponds.',
})}`,
        '<main><h1>Cores from nine tide mill ponds</h1><p>Pollen counts and ages by depth for nine ponds.</p></main>',
      ),
  },
  'dataharbour.example/software/tidegauge': {
    body: () =>
      page(
        'en',
        `<title>tidegauge</title>${ld({
          '@context': 'https://schema.org',
          '@type': 'SoftwareSourceCode',
          name: 'tidegauge: Reading old gauge sheets',
          author: { '@type': 'Person', name: 'Ravi Menon' },
          version: '0.9.1',
          datePublished: '2021-03-02',
        })}`,
        '<main><h1>tidegauge</h1><p>Reads scanned gauge sheets.</p></main>',
      ),
  },
  'shoreconf.example/2018/papers/14': {
    body: () =>
      page(
        'en',
        `<title>Listening to sluices</title>${meta('citation_title', 'Listening to sluices')}${meta('citation_author', 'Oakes, Tessa', 'Ng, Tsz Ho')}
${meta('citation_conference_title', 'Proceedings of the Third Shore Conference')}${meta('citation_publication_date', '2018/09')}${meta('citation_firstpage', '55')}${meta('citation_lastpage', '62')}
${meta('citation_publisher', 'Shore Society')}`,
        '<main><h1>Listening to sluices</h1><p>A gate that leaks can be heard at slack water.</p></main>',
      ),
  },
  'shoreconf.example/2018': {
    body: () =>
      page(
        'en',
        `<title>Third Shore Conference</title>${ld({
          '@context': 'https://schema.org',
          '@type': 'PublicationVolume',
          name: 'Proceedings of the Third Shore Conference',
          hasPart: ['Listening to sluices', 'Mud clocks', 'What the miller knew'].map((name, i) => ({
            '@type': 'ScholarlyArticle',
            name,
            url: `https://shoreconf.example/2018/papers/${14 + i}`,
            author: { '@type': 'Person', name: ['Tessa Oakes', 'Nuala Byrne', 'Kofi Osei'][i] },
          })),
        })}`,
        '<main><h1>Third Shore Conference</h1></main>',
      ),
  },
  'openpreprints.example/abs/2403.01234': {
    body: () =>
      page(
        'en',
        `<title>[2403.01234] Tides as clocks</title>${meta('citation_title', 'Tides as clocks')}${meta('citation_author', 'Menon, Ravi')}
${meta('citation_date', '2024/03/02')}${meta('citation_arxiv_id', '2403.01234')}`,
        '<main><h1>Tides as clocks</h1><p>Every dam keeps time.</p></main>',
      ),
  },
  'shorewords.example/encyclopedia/tide-mill': {
    body: () =>
      page(
        'en',
        '<title>Tide mill - Encyclopedia of the Shore</title>',
        `<main vocab="https://schema.org/" typeof="Article" resource="#entry"><h1 property="headline">Tide mill</h1>
<p>by <span property="author" typeof="Person"><span property="name">Maja Lindqvist</span></span>, in
<span property="isPartOf" typeof="Book"><span property="name">Encyclopedia of the Shore</span></span>.
<time property="datePublished" datetime="2017-01-20">20 January 2017</time></p><p>A mill driven by the fall of the tide.</p></main>`,
      ),
  },
  'filmloft.example/films/last-grind': {
    body: () =>
      page(
        'en',
        `<title>The Last Grind (1974)</title><meta property="og:type" content="video.movie"><meta property="og:site_name" content="Film Loft">
${ld({
  '@context': 'https://schema.org',
  '@type': 'Movie',
  name: 'The Last Grind',
  director: { '@type': 'Person', name: 'Aoife Ní Bhriain' },
  productionCompany: { '@type': 'Organization', name: 'Skerry Films' },
  dateCreated: '1974',
})}`,
        '<main><h1>The Last Grind</h1><p>Forty minutes, black and white.</p></main>',
      ),
  },
  'soundcast.example/episodes/31': {
    body: () =>
      page(
        'en',
        `<title>Episode 31: The mill that ran backwards</title>${ld({
          '@context': 'https://schema.org',
          '@type': 'PodcastEpisode',
          name: 'The mill that ran backwards',
          episodeNumber: 31,
          datePublished: '2022-10-04',
          author: { '@type': 'Person', name: 'Priya Raman' },
          partOfSeries: { '@type': 'PodcastSeries', name: 'Soundcast' },
          isPartOf: { '@type': 'PodcastSeries', name: 'Soundcast' },
        })}`,
        '<main><h1>The mill that ran backwards</h1></main>',
      ),
  },
  'news.portledger.example/2024/01/09/sluice-vote.html': {
    body: () =>
      page(
        'en-GB',
        `<title>Council votes to keep the sluice | Port Ledger</title><meta property="og:site_name" content="Port Ledger"><meta property="og:type" content="article">
<meta property="og:title" content="Council votes to keep the sluice | Port Ledger"><meta property="article:published_time" content="2024-01-09T18:30:00Z">
<meta property="article:author" content="https://facepage.example/portledger"><meta name="author" content="By Tessa Oakes, Harbour correspondent">`,
        '<article><h1>Council votes to keep the sluice</h1><p class="byline">By Tessa Oakes</p><p>Seven votes to four.</p></article>',
      ),
  },
  'northsound.example/reports/ponds-2020': {
    body: () =>
      page(
        'en',
        `<title>The state of the ponds | Northsound Council</title>${meta('citation_title', 'The state of the ponds')}${meta('citation_technical_report_institution', 'Northsound Council')}
${meta('citation_technical_report_number', 'TR-20/7')}${meta('citation_author', 'Northsound Council')}${meta('citation_date', '2020')}`,
        '<main><h1>The state of the ponds</h1><p>Nineteen of thirty-one hold water.</p></main>',
      ),
  },
  'repository.northsound.example/search': {
    body: () =>
      page(
        'en',
        '<title>Results for “mill” - Northsound Repository</title>',
        `<nav><ul><li><a href="/browse/communities-and-collections">Communities and collections</a></li><li><a href="/about-this-repository">About this repository</a></li><li><a href="/help-and-contact">Help and contact us</a></li></ul></nav>
<main><h1>3 results for “mill”</h1><div class="results">
<div class="result"><h3><a href="/handle/1/4455">Tide mills of the northern sounds</a></h3><span class="creators">Lindqvist, Maja</span> <span>2016</span> Doctoral thesis</div>
<div class="result"><h3><a href="/handle/1/5120">Salt marsh recovery behind breached dams</a></h3><span class="creators">Ferreira, A.; Ng, T. H.</span> <span>2021</span> Journal article</div>
<div class="result"><h3><a href="/handle/1/6001">Toll and tide: Leases of the Skerry mill</a></h3><span class="creators">Barrow, E. M.</span> <span>1997</span> Working paper</div>
</div></main>`,
      ),
  },
  'repository.northsound.example/handle/1/6001': {
    body: () =>
      page(
        'en',
        `<title>Toll and tide: Leases of the Skerry mill</title>${meta('DC.title', 'Toll and tide: Leases of the Skerry mill')}${meta('DC.creator', 'Barrow, E. M.')}
${meta('DC.date', '2021-08-30T10:12:00Z')}${meta('DCTERMS.issued', '1997')}${meta('DCTERMS.available', '2021-08-30')}${meta('DC.type', 'Working Paper')}${meta('DC.publisher', 'University of Northsound')}
${meta('DC.identifier', 'https://repository.northsound.example/handle/1/6001')}${meta('citation_pdf_url', '/bitstream/1/6001/leases.pdf')}`,
        '<main><h1>Toll and tide: Leases of the Skerry mill</h1><p>Uploaded with the rest of the series in 2021.</p></main>',
      ),
  },
  'openindex.example/records/w4410': {
    body: () =>
      page(
        'en',
        '<title>Thirty ponds revisited - Open Index</title>',
        `<main><h1>Thirty ponds revisited</h1>${coins({ ...journal, atitle: 'Thirty ponds revisited', jtitle: 'Marsh Letters', volume: '4', issue: '3', spage: '201', epage: '219', date: '2022', aulast: 'Osei', aufirst: 'Kofi', au: ['Osei, Kofi', 'Ferreira, Ana'], issn: '2049-3630' })}</main>`,
      ),
  },
  'openindex.example/lists/mills': {
    body: () =>
      page(
        'en',
        '<title>My list: mills - Open Index</title>',
        `<main><h1>My list: mills</h1><ul>
<li><a href="/records/w4410">Thirty ponds revisited</a>${coins({ ...journal, atitle: 'Thirty ponds revisited', jtitle: 'Marsh Letters', volume: '4', spage: '201', date: '2022', au: 'Osei, Kofi' })}</li>
<li><a href="/records/w3107">Grain, toll and tide</a>${coins({ ...journal, atitle: 'Grain, toll and tide: Mill leases, 1540–1610', jtitle: 'Journal of Coastal Economic History', volume: '44', date: '1998', au: 'Barrow, E. M.', rft_id: 'info:doi/10.5555/jceh.44.e112' })}</li>
<li>Gates of the Long Sound${coins({ ...book, btitle: 'Gates of the Long Sound', date: '2018', isbn: '9781861972712', au: 'Osei, Kofi', pub: 'Strand University Press' })}</li></ul></main>`,
      ),
  },
  'smallhydro.example/7/1/2': {
    body: () =>
      page(
        'en',
        `<title>SMALL WHEELS AND SMALL FALLS</title>${meta('citation_title', 'SMALL WHEELS AND SMALL FALLS')}${meta('citation_author', 'KOFI OSEI; NUALA BYRNE; RAVI MENON; TESSA OAKES; YUKI SATO')}
${meta('citation_journal_title', 'Small Hydropower Review')}${meta('citation_volume', 'Vol. 7')}${meta('citation_issue', 'No. 1')}${meta('citation_firstpage', '2')}${meta('citation_lastpage', '19')}${meta('citation_date', '2018')}`,
        `<main><h1>SMALL WHEELS AND SMALL FALLS</h1><p>Under two metres nothing pays but patience.</p></main>`,
      ),
  },
  'smallhydro.example/7/1/20': {
    body: () =>
      page(
        'en',
        `<title>Penstocks without pain</title>${meta('citation_title', 'Penstocks without pain')}${meta('citation_author', 'Sato, Yuki')}${meta('citation_journal_title', 'Small Hydropower Review')}
${meta('citation_volume', '7')}${meta('citation_issue', '1')}${meta('citation_firstpage', '20')}${meta('citation_lastpage', '31')}${meta('citation_date', '2018')}${meta('citation_doi', '10.5555/marsh.3.7')}`,
        `<main><h1>Penstocks without pain</h1><p>The DOI in this page’s tags is that of a work it cites.</p>${references}</main>`,
      ),
  },
  'maproom.example/sheets/long-sound-1841': {
    body: () =>
      page(
        'en',
        `<title>Chart of the Long Sound - Map Room</title>${meta('DC.title', 'Chart of the Long Sound')}${meta('DC.creator', 'Hydrographic Office')}${meta('DC.date', '1841')}${meta('DC.type', 'Map')}${meta('DC.publisher', 'Hydrographic Office')}`,
        '<main><h1>Chart of the Long Sound</h1><p>Sheet 4 of 11.</p></main>',
      ),
  },
  'longsoundwalks.example/posts/backwards': {
    body: () =>
      page(
        'en',
        '<title>The mill that ran backwards – Long Sound Walks</title><meta property="og:site_name" content="Long Sound Walks">',
        `<article class="post hentry"><header><h1>The mill that ran backwards</h1><p class="byline">Posted by <a rel="author" href="/about">Kofi Osei</a> on <time datetime="2022-09-18">18 September 2022</time></p></header><p>At springs the wheel turned the other way for an hour.</p></article>`,
      ),
  },
  'kuestenhefte.example/hefte/5/muehlen': {
    body: () =>
      page(
        'de',
        `<title>Gezeitenmühlen an der Küste</title>${meta('citation_title', 'Gezeitenmühlen an der Küste')}${meta('citation_author', 'Möller, Jürgen', 'von der Heide, Anna')}
${meta('citation_journal_title', 'Küstenhefte')}${meta('citation_volume', 'Bd. 5')}${meta('citation_firstpage', '9')}${meta('citation_lastpage', '21')}${meta('citation_date', '2011')}${meta('citation_language', 'ger')}`,
        '<main><h1>Gezeitenmühlen an der Küste</h1><p>Die Mühle mahlt mit der Ebbe.</p></main>',
      ),
  },
  'memberslibrary.example/reading/silt': {
    body: () =>
      page(
        'en',
        `<title>Silt and silence</title>${meta('citation_title', 'Silt and silence')}${meta('citation_author', 'Raman, Priya')}${meta('citation_journal_title', 'Estuary and Shore')}${meta('citation_volume', '13')}${meta('citation_firstpage', '3')}${meta('citation_lastpage', '17')}${meta('citation_date', '2020')}`,
        `<main><h1>Silt and silence</h1><p>For members.</p>\n<p>Behind a closed gate the water forgets the sea within a season.</p>\n${htmlOf(MARSH)}</main>`,
      ),
  },
  'repository.northsound.example/handle/1/7000': {
    body: () =>
      page(
        'en',
        `<title>Mud and memory</title>${meta('DC.title', 'Mud and memory')}${meta('DC.creator', 'Byrne, Nuala')}${meta('DC.type', 'Doctoral thesis')}${meta('DCTERMS.issued', '2018')}${meta('DC.publisher', 'University of Northsound')}
${meta('citation_pdf_url', '/bitstream/1/7000/thesis.pdf')}`,
        `<main><h1>Mud and memory</h1>${htmlOf(THESIS.slice(0, 1))}</main>`,
      ),
  },
};

/** Citation files that pages lead to, by host and path. */
export const LINKED_FILES: Record<string, { type: string; body: string }> = {
  'estuaryshore.example/export/12-2-101.ris': {
    type: 'application/x-research-info-systems',
    body: `TY  - JOUR\r\nAU  - Byrne, Nuala\r\nAU  - Menon, Ravi\r\nTI  - ${PONDS}\r\nT2  - ${ESTUARY}\r\nVL  - 12\r\nIS  - 2\r\nSP  - 101\r\nEP  - 108\r\nPY  - 2019/06/14\r\nPB  - Shore Society\r\nSN  - 2770-114X\r\nDO  - 10.5555/es.12.101\r\nER  - \r\n`,
  },
};
