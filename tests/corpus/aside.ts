import { ld, meta, page } from '../../stand-ins/html';
import type { Labelled } from './label';

/**
 * Pages kept aside while the rules of capture were written: other subjects, sites and templates than the invented web
 * the rules were tried on. All invented. The figures on them are what `npm run bench` prints as "kept aside".
 */
export const ASIDE: Labelled[] = [
  {
    name: 'journal platform, full tags',
    vocabularies: ['highwire', 'dublin-core'],
    address: 'https://peatjournal.example/index.php/pj/article/view/88',
    html: page(
      'en-US',
      `<title>Carbon in the upper peat of four raised bogs | Peat Journal</title>
${meta('citation_journal_title', 'Peat Journal')}${meta('citation_issn', '1937-2027')}${meta('citation_author', 'Hanna Virtanen', 'Ó Dónaill, Séamus')}
${meta('citation_title', 'Carbon in the upper peat of four raised bogs')}${meta('citation_date', '2018/03/22')}${meta('citation_volume', '31')}${meta('citation_issue', '1')}
${meta('citation_firstpage', '45')}${meta('citation_lastpage', '63')}${meta('citation_doi', '10.5555/pj.v31i1.88')}${meta('citation_abstract_html_url', 'https://peatjournal.example/index.php/pj/article/view/88')}
${meta('citation_language', 'en')}${meta('DC.Creator.PersonalName', 'Hanna Virtanen', 'Séamus Ó Dónaill')}${meta('DC.Date.created', '2018-03-22')}${meta('DC.Date.dateSubmitted', '2017-06-01')}
${meta('DC.Date.issued', '2018-03-20')}${meta('DC.Source', 'Peat Journal')}${meta('DC.Source.Volume', '31')}${meta('DC.Title', 'Carbon in the upper peat of four raised bogs')}${meta('DC.Type', 'Text.Serial.Journal')}`,
      '<main><h1>Carbon in the upper peat of four raised bogs</h1><ul class="authors"><li>Hanna Virtanen<span>University of Suonia</span></li></ul></main>',
    ),
    label: {
      type: 'article-journal',
      title: 'Carbon in the upper peat of four raised bogs',
      author: 'Virtanen, Hanna; Ó Dónaill, Séamus',
      issued: '2018-03-22',
      container: 'Peat Journal',
      volume: '31',
      issue: '1',
      page: '45-63',
      DOI: '10.5555/pj.v31i1.88',
      ISSN: '1937-2027',
    },
  },
  {
    name: 'repository thesis, qualified Dublin Core',
    vocabularies: ['dublin-core', 'highwire'],
    address: 'https://theses.suonia.example/xmlui/handle/10024/771',
    html: page(
      'en',
      `<title>Bog butter and bog roads: Deposits in northern mires - Suonia Theses</title><link rel="schema.DCTERMS" href="http://purl.org/dc/terms/">
${meta('DC.creator', 'Korhonen, Aino')}${meta('DCTERMS.dateAccepted', '2016-11-03')}${meta('DCTERMS.available', '2017-01-11T09:12:44Z')}${meta('DCTERMS.issued', '2016')}
${meta('DC.identifier', 'http://hdl.handle.example/10024/771')}${meta('DC.language', 'eng')}${meta('DC.publisher', 'University of Suonia')}${meta('DC.title', 'Bog butter and bog roads: Deposits in northern mires')}
${meta('DC.type', 'Thesis or Dissertation', 'Doctoral')}${meta('DC.contributor', 'Virtanen, Hanna')}${meta('citation_title', 'Bog butter and bog roads: Deposits in northern mires')}${meta('citation_author', 'Korhonen, Aino')}
${meta('citation_dissertation_institution', 'University of Suonia')}${meta('citation_date', '2016')}${meta('citation_pdf_url', 'https://theses.suonia.example/bitstream/10024/771/1/diss.pdf')}`,
      '<div id="content"><h1>Bog butter and bog roads: Deposits in northern mires</h1></div>',
    ),
    label: {
      type: 'thesis',
      title: 'Bog butter and bog roads: Deposits in northern mires',
      author: 'Korhonen, Aino',
      issued: '2016',
    },
  },
  {
    name: 'news story, schema.org with many site blocks',
    vocabularies: ['json-ld', 'open-graph'],
    bad: true,
    address: 'https://www.morasttagblatt.example/region/2021/09/moorbrand-geloescht-101.html',
    html: page(
      'de',
      `<title>Moorbrand nach neun Tagen gelöscht – Morast-Tagblatt</title><meta property="og:site_name" content="Morast-Tagblatt"><meta property="og:type" content="article"><meta property="og:title" content="Moorbrand nach neun Tagen gelöscht">
${ld({ '@context': 'https://schema.org', '@type': 'WebSite', name: 'Morast-Tagblatt', potentialAction: { '@type': 'SearchAction' } })}
${ld([{ '@context': 'https://schema.org', '@type': 'BreadcrumbList', itemListElement: [{ '@type': 'ListItem', position: 1, name: 'Region' }] }])}
${ld({
  '@context': 'https://schema.org',
  '@type': ['NewsArticle'],
  mainEntityOfPage: {
    '@type': 'WebPage',
    '@id': 'https://www.morasttagblatt.example/region/2021/09/moorbrand-geloescht-101.html',
  },
  headline: 'Moorbrand nach neun Tagen gelöscht',
  datePublished: '2021-09-14T17:05:00+02:00',
  dateModified: '2021-09-15T08:00:00+02:00',
  author: [
    { '@type': 'Person', name: 'Jürgen von der Aue' },
    { '@type': 'Organization', name: 'Morast-Tagblatt' },
  ],
  publisher: {
    '@type': 'Organization',
    name: 'Morast-Tagblatt',
    logo: { '@type': 'ImageObject', url: '/logo.png' },
  },
})}`,
      '<article><h1>Moorbrand nach neun Tagen gelöscht</h1><span class="byline">Von Jürgen von der Aue</span></article>',
    ),
    label: {
      type: 'article-newspaper',
      title: 'Moorbrand nach neun Tagen gelöscht',
      author: 'von der Aue, Jürgen',
      issued: '2021-09-14',
      container: 'Morast-Tagblatt',
    },
  },
  {
    name: 'blog on a common engine, no schema',
    vocabularies: ['html', 'open-graph'],
    address: 'https://blog.bogwatch.example/2019/05/sundews-at-last/',
    html: page(
      'en',
      `<title>Sundews at last &#8211; Bogwatch</title><meta property="og:site_name" content="Bogwatch"><meta property="og:type" content="article"><meta property="article:published_time" content="2019-05-30T20:11:00+00:00">`,
      '<article class="post-881 post type-post hentry"><h1 class="entry-title">Sundews at last</h1><div class="entry-meta">Posted on <time class="entry-date published" datetime="2019-05-30T20:11:00+00:00">30 May 2019</time> by <span class="author vcard"><a class="url fn n" href="/author/mairi">Màiri NicLeòid</a></span></div><p>Forty of them.</p></article>',
    ),
    label: {
      type: 'post-weblog',
      title: 'Sundews at last',
      author: 'NicLeòid, Màiri',
      issued: '2019-05-30',
      container: 'Bogwatch',
    },
  },
  {
    name: 'publisher’s page of a book, JSON-LD and book tags',
    vocabularies: ['json-ld', 'open-graph'],
    address: 'https://www.heatherandsedge.example/catalogue/9789791234560',
    html: page(
      'en-GB',
      `<title>The Wet Archive by Eilidh MacRae | Heather & Sedge</title><meta property="og:type" content="book"><meta property="book:isbn" content="9780521123457"><meta property="book:release_date" content="2020-09-10">
${ld({ '@context': 'http://schema.org', '@type': 'Book', name: 'The Wet Archive: What Bogs Remember', author: { '@type': 'Person', name: 'Eilidh MacRae' }, isbn: '9780521123457', bookFormat: 'http://schema.org/Hardcover', datePublished: '2020-09-10', publisher: { '@type': 'Organization', name: 'Heather & Sedge' }, numberOfPages: '344', offers: { '@type': 'Offer', price: '22.00' } })}`,
      '<main><h1>The Wet Archive</h1><p>by Eilidh MacRae</p></main>',
    ),
    label: {
      type: 'book',
      title: 'The Wet Archive: What Bogs Remember',
      author: 'MacRae, Eilidh',
      issued: '2020-09-10',
      ISBN: '9780521123457',
    },
  },
  {
    name: 'chapter on a book platform',
    vocabularies: ['highwire'],
    address: 'https://link.mirelibrary.example/chapter/10.5555/978-0-521-12345-7_4',
    html: page(
      'en',
      `<title>Reading Pollen | MireLibrary</title>${meta('citation_title', 'Reading Pollen')}${meta('citation_inbook_title', 'Handbook of Mire Research')}${meta('citation_author', 'Oyelaran, Tunde')}${meta('citation_author_institution', 'Suonia Institute')}
${meta('citation_author', 'Park, Ji-won')}${meta('citation_editor', 'MacRae, E.', 'Virtanen, H.')}${meta('citation_publication_date', '2013')}${meta('citation_firstpage', '71')}${meta('citation_lastpage', '98')}${meta('citation_publisher', 'Mire Academic, Port Heather')}
${meta('citation_doi', '10.5555/978-0-521-12345-7_4')}${meta('citation_isbn', '978-0-521-12345-7')}${meta('citation_language', 'en')}`,
      '<main><h1>Reading Pollen</h1></main>',
    ),
    label: {
      type: 'chapter',
      title: 'Reading Pollen',
      author: 'Oyelaran, Tunde; Park, Ji-won',
      editor: 'MacRae, E.; Virtanen, H.',
      issued: '2013',
      container: 'Handbook of Mire Research',
      page: '71-98',
      DOI: '10.5555/978-0-521-12345-7_4',
      ISBN: '978-0-521-12345-7',
    },
  },
  {
    name: 'microdata article, nested organisation',
    vocabularies: ['microdata'],
    address: 'https://www.acta-paludis.example/a/2012-7-301',
    html: page(
      'en',
      '<title>Acta Paludis - Drains and drought</title>',
      `<div itemscope itemtype="http://schema.org/ScholarlyArticle"><h1 itemprop="name">Drains and drought</h1>
<div itemprop="author" itemscope itemtype="http://schema.org/Person"><span itemprop="givenName">Lars</span> <span itemprop="familyName">af Hällström</span></div>
<div itemprop="author" itemscope itemtype="http://schema.org/Organization"><span itemprop="name">Mire Monitoring Group</span></div>
<div itemprop="isPartOf" itemscope itemtype="http://schema.org/PublicationIssue"><div itemprop="isPartOf" itemscope itemtype="http://schema.org/PublicationVolume"><span itemprop="volumeNumber">7</span>
<div itemprop="isPartOf" itemscope itemtype="http://schema.org/Periodical"><span itemprop="name">Acta Paludis</span><span itemprop="issn">2611-4038</span></div></div><span itemprop="issueNumber">3</span></div>
<span itemprop="pageStart">301</span>–<span itemprop="pageEnd">17</span> <meta itemprop="datePublished" content="2012"><a itemprop="sameAs" href="https://doi.org/10.5555/ap.2012.301">doi</a></div>`,
    ),
    label: {
      type: 'article-journal',
      title: 'Drains and drought',
      author: 'af Hällström, Lars; Mire Monitoring Group',
      issued: '2012',
      container: 'Acta Paludis',
      volume: '7',
      issue: '3',
      page: '301-317',
      DOI: '10.5555/ap.2012.301',
      ISSN: '2611-4038',
    },
  },
  {
    name: 'RDFa with Dublin Core and BIBO',
    vocabularies: ['rdfa'],
    address: 'https://archive.fenland.example/item/4012',
    html: page(
      'en',
      '<title>Item 4012 | Fenland Archive</title>',
      `<div prefix="dc: http://purl.org/dc/terms/ bibo: http://purl.org/ontology/bibo/" typeof="bibo:AcademicArticle" resource="#item"><h1 property="dc:title">Turbary rights in the eighteenth century</h1>
<span property="dc:creator">Mac Giolla Bhríde, Niall</span> <span property="dc:isPartOf" typeof="bibo:Journal"><span property="dc:title">Fenland Records</span></span>
<span property="bibo:volume">22</span> <span property="bibo:pageStart">140</span> <span property="bibo:pageEnd">159</span> <span property="dc:issued" content="1987">1987</span></div>`,
    ),
    label: {
      type: 'article-journal',
      title: 'Turbary rights in the eighteenth century',
      author: 'Mac Giolla Bhríde, Niall',
      issued: '1987',
      container: 'Fenland Records',
      volume: '22',
      page: '140-159',
    },
  },
  {
    name: 'library record with COinS only',
    vocabularies: ['coins'],
    address: 'https://catalogue.suonia.example/record/b10098',
    html: page(
      'fi',
      '<title>Suon kirja / Korhonen - Suonia Library</title>',
      `<h1>Suon kirja / Aino Korhonen</h1><span class="Z3988" title="ctx_ver=Z39.88-2004&amp;rft_val_fmt=info%3Aofi%2Ffmt%3Akev%3Amtx%3Abook&amp;rft.genre=book&amp;rft.btitle=Suon+kirja&amp;rft.aulast=Korhonen&amp;rft.aufirst=Aino&amp;rft.au=Korhonen%2C+Aino&amp;rft.date=2009&amp;rft.pub=Rahka&amp;rft.place=Suonia&amp;rft.isbn=978-3-16-148410-0&amp;rft.edition=2.+painos"></span>`,
    ),
    label: {
      type: 'book',
      title: 'Suon kirja',
      author: 'Korhonen, Aino',
      issued: '2009',
      ISBN: '978-3-16-148410-0',
    },
  },
  {
    name: 'conference paper, PRISM and tags',
    vocabularies: ['prism', 'highwire'],
    address: 'https://proceedings.mirecon.example/papers/2017/0321',
    html: page(
      'en',
      `<title>Low-cost water table loggers</title>${meta('citation_title', 'Low-cost water table loggers')}${meta('citation_conference_title', '9th International Mire Congress')}${meta('citation_author', 'Park, J.', 'Oyelaran, T.')}
${meta('citation_publication_date', '2017/08')}${meta('prism.startingPage', '321')}${meta('prism.endingPage', '329')}${meta('prism.doi', '10.5555/mirecon.2017.321')}${meta('prism.isbn', '978-1-86197-271-2')}`,
      '<main><h1>Low-cost water table loggers</h1></main>',
    ),
    label: {
      type: 'paper-conference',
      title: 'Low-cost water table loggers',
      author: 'Park, J.; Oyelaran, T.',
      issued: '2017-08',
      container: '9th International Mire Congress',
      page: '321-329',
      DOI: '10.5555/mirecon.2017.321',
      ISBN: '978-1-86197-271-2',
    },
  },
  {
    name: 'shouting title, initials without stops, By',
    vocabularies: ['highwire', 'html'],
    bad: true,
    address: 'https://oldpeat.example/issue4/cutting.htm',
    html: page(
      'en',
      `<title>HAND CUTTING OF PEAT IN THE SOUTHERN GLENS</title>${meta('citation_title', 'HAND CUTTING OF PEAT IN THE SOUTHERN GLENS')}${meta('citation_author', 'By MACRAE E')}${meta('citation_journal_title', 'Glen Studies')}${meta('citation_volume', 'vol. 4')}${meta('citation_firstpage', 'pp. 12')}${meta('citation_lastpage', '29')}${meta('citation_year', '1971')}`,
      '<h2>HAND CUTTING OF PEAT IN THE SOUTHERN GLENS</h2>',
    ),
    label: {
      type: 'article-journal',
      title: 'HAND CUTTING OF PEAT IN THE SOUTHERN GLENS',
      author: 'MacRae, E',
      issued: '1971',
      container: 'Glen Studies',
      volume: '4',
      page: '12-29',
    },
  },
  {
    name: 'five authors in one string with affiliations',
    vocabularies: ['highwire'],
    bad: true,
    address: 'https://ijmr.example/article/7/2/5',
    html: page(
      'en',
      `<title>Sphagnum under shade</title>${meta('citation_title', 'Sphagnum under shade')}${meta('citation_authors', 'Virtanen, H.; Park, J.; Oyelaran, T.; MacRae, E.; Korhonen, A.')}${meta('citation_journal_title', 'International Journal of Mire Research')}
${meta('citation_volume', '7')}${meta('citation_issue', '2')}${meta('citation_firstpage', 'e5')}${meta('citation_publication_date', '2020-04-01')}${meta('citation_doi', 'https://doi.org/10.5555/ijmr.7.2.5')}`,
      '<h1>Sphagnum under shade</h1>',
    ),
    label: {
      type: 'article-journal',
      title: 'Sphagnum under shade',
      author: 'Virtanen, H.; Park, J.; Oyelaran, T.; MacRae, E.; Korhonen, A.',
      issued: '2020-04-01',
      container: 'International Journal of Mire Research',
      volume: '7',
      issue: '2',
      page: 'e5',
      DOI: '10.5555/ijmr.7.2.5',
    },
  },
  {
    name: 'organisation given as a person, report with number',
    vocabularies: ['highwire', 'dublin-core'],
    bad: true,
    address: 'https://publications.mireagency.example/TR-14-03',
    html: page(
      'en',
      `<title>Restoring cutover bogs | National Mire Agency</title>${meta('citation_title', 'Restoring cutover bogs')}${meta('citation_author', 'National Mire Agency')}${meta('citation_technical_report_institution', 'National Mire Agency')}${meta('citation_technical_report_number', 'TR-14-03')}${meta('citation_publication_date', '2014/03')}
${meta('DC.type', 'Technical Report')}`,
      '<main><h1>Restoring cutover bogs</h1></main>',
    ),
    label: {
      type: 'report',
      title: 'Restoring cutover bogs',
      author: 'National Mire Agency',
      issued: '2014-03',
    },
  },
  {
    name: 'day of upload where the year of publication belongs',
    vocabularies: ['dublin-core', 'prism'],
    bad: true,
    address: 'https://digital.fenland.example/records/9981',
    html: page(
      'en',
      `<title>The draining of Cold Fen</title>${meta('DC.title', 'The draining of Cold Fen')}${meta('DC.creator', 'Thorne, Agnes')}${meta('DC.date', '2022-02-14')}${meta('DC.type', 'Journal Article')}${meta('prism.publicationName', 'Fenland Records')}${meta('prism.publicationDate', '1934')}${meta('prism.volume', '3')}${meta('prism.startingPage', '1')}${meta('prism.endingPage', '40')}`,
      '<h1>The draining of Cold Fen</h1>',
    ),
    label: {
      type: 'article-journal',
      title: 'The draining of Cold Fen',
      author: 'Thorne, Agnes',
      issued: '1934',
      container: 'Fenland Records',
      volume: '3',
      page: '1-40',
    },
  },
  {
    name: 'canonical and og:url lead astray, title with the site twice',
    vocabularies: ['html', 'open-graph', 'json-ld'],
    bad: true,
    address: 'https://www.moorandcoast.example/features/the-last-turf-boat',
    html: page(
      'en',
      `<title>The last turf boat | Moor & Coast Magazine | Moor & Coast</title><link rel="canonical" href="https://www.moorandcoast.example/"><meta property="og:url" content="https://www.moorandcoast.example/"><meta property="og:site_name" content="Moor & Coast"><meta property="og:title" content="The last turf boat | Moor & Coast">
${ld({ '@context': 'https://schema.org', '@type': 'Article', headline: 'The last turf boat', author: 'Fionn Daly', datePublished: '2016-07-01', isPartOf: { '@type': 'PublicationIssue', issueNumber: '88', isPartOf: { '@type': 'Periodical', name: 'Moor & Coast' } } })}`,
      '<article><h1>The last turf boat</h1></article>',
    ),
    label: {
      type: 'article-magazine',
      title: 'The last turf boat',
      author: 'Daly, Fionn',
      issued: '2016-07-01',
      container: 'Moor & Coast',
      issue: '88',
    },
  },
  {
    name: 'broken JSON-LD, admin as author, date in words',
    vocabularies: ['json-ld', 'html'],
    bad: true,
    address: 'https://bogsnaturecentre.example/learn/what-is-a-bog',
    html: page(
      'en',
      `<title>What is a bog? - Bogs Nature Centre</title><meta name="author" content="admin"><script type="application/ld+json">{"@context":"https://schema.org","@type":"Article","headline":"What is a bog?",}</script>`,
      '<main><h1>What is a bog?</h1><p>Published: 12 April 2015</p><p>A bog is fed by rain alone.</p></main>',
    ),
    label: {
      type: 'webpage',
      title: 'What is a bog?',
      issued: '2015-04-12',
      container: 'Bogs Nature Centre',
    },
  },
  {
    name: 'dataset, schema.org from a data repository',
    vocabularies: ['json-ld'],
    address: 'https://data.mires.example/dataset/10.5555/mires.4471',
    linkHeader: '<https://doi.org/10.5555/mires.4471>; rel="cite-as"',
    html: page(
      'en',
      `<title>Water tables of forty mires, 2009–2019</title>${ld({
        '@context': 'http://schema.org',
        '@type': 'Dataset',
        '@id': 'https://doi.org/10.5555/mires.4471',
        url: 'https://data.mires.example/dataset/10.5555/mires.4471',
        name: 'Water tables of forty mires, 2009–2019',
        author: [
          { '@type': 'Person', name: 'Hanna Virtanen', givenName: 'Hanna', familyName: 'Virtanen' },
          { '@type': 'Person', name: 'Park Ji-won', givenName: 'Ji-won', familyName: 'Park' },
        ],
        datePublished: '2020',
        version: '2',
        publisher: { '@type': 'Organization', name: 'Mires Data' },
        inLanguage: 'en',
      })}`,
      '<h1>Water tables of forty mires, 2009–2019</h1>',
    ),
    label: {
      type: 'dataset',
      title: 'Water tables of forty mires, 2009–2019',
      author: 'Virtanen, Hanna; Park, Ji-won',
      issued: '2020',
      DOI: '10.5555/mires.4471',
    },
  },
  {
    name: 'software page',
    vocabularies: ['json-ld'],
    address: 'https://code.mires.example/peatflow',
    html: page(
      'en',
      `<title>peatflow: Water flow in layered peat</title>${ld({ '@context': 'https://schema.org', '@type': 'SoftwareApplication', name: 'peatflow', author: [{ '@type': 'Person', name: 'T. Oyelaran' }], softwareVersion: '3.1.0', datePublished: '2022-01-19', applicationCategory: 'Scientific' })}`,
      '<h1>peatflow</h1>',
    ),
    label: { type: 'software', title: 'peatflow', author: 'Oyelaran, T.', issued: '2022-01-19' },
  },
  {
    name: 'preprint server',
    vocabularies: ['highwire', 'open-graph'],
    address: 'https://earlypapers.example/content/10.5555/2021.02.03.429v2',
    html: page(
      'en',
      `<title>Fungi that open peat | earlyPapers</title>${meta('citation_title', 'Fungi that open peat')}${meta('citation_author', 'Nakamura, Emi', 'van den Berg, Piet')}${meta('citation_publication_date', '2021/02/04')}${meta('citation_journal_title', 'earlyXiv')}${meta('citation_doi', '10.5555/2021.02.03.429')}${meta('citation_publisher', 'Early Papers')}<meta property="og:site_name" content="earlyPapers">`,
      '<h1>Fungi that open peat</h1>',
    ),
    label: {
      type: 'article',
      title: 'Fungi that open peat',
      author: 'Nakamura, Emi; van den Berg, Piet',
      issued: '2021-02-04',
      container: 'earlyXiv',
      DOI: '10.5555/2021.02.03.429',
    },
  },
  {
    name: 'encyclopedia entry with schema.org',
    vocabularies: ['json-ld', 'html'],
    address: 'https://www.mirepedia.example/encyclopedia/raised-bog',
    html: page(
      'en',
      `<title>Raised bog | Encyclopedia of Mires</title>${ld({ '@context': 'https://schema.org', '@type': 'Article', headline: 'Raised bog', author: { '@type': 'Person', name: 'Eilidh MacRae' }, datePublished: '2011-10-01', isPartOf: { '@type': 'CreativeWork', name: 'Encyclopedia of Mires' } })}`,
      '<main><h1>Raised bog</h1></main>',
    ),
    label: {
      type: 'entry-encyclopedia',
      title: 'Raised bog',
      author: 'MacRae, Eilidh',
      issued: '2011-10-01',
      container: 'Encyclopedia of Mires',
    },
  },
  {
    name: 'film page, Open Graph alone',
    vocabularies: ['open-graph'],
    address: 'https://films.heather.example/f/turf',
    html: page(
      'en',
      `<title>Turf (1968) - Heather Films</title><meta property="og:type" content="video.movie"><meta property="og:title" content="Turf"><meta property="video:director" content="Siobhán Kerr"><meta property="video:release_date" content="1968"><meta property="og:site_name" content="Heather Films">`,
      '<h1>Turf</h1>',
    ),
    label: { type: 'motion_picture', title: 'Turf', director: 'Kerr, Siobhán', issued: '1968' },
  },
  {
    name: 'bare page of a society',
    vocabularies: ['html'],
    address: 'https://mosssociety.example/keys/sphagnum.html',
    html: page(
      'en',
      '<title>Moss Society: A key to the bog mosses</title>',
      '<h1>A key to the bog mosses</h1><p>Start with the capitulum.</p>',
    ),
    label: { type: 'webpage', title: 'A key to the bog mosses', container: 'Moss Society' },
  },
  {
    name: 'Japanese article, names in their own script',
    vocabularies: ['highwire'],
    address: 'https://shitchi.example/kiyo/12/1',
    html: page(
      'ja',
      `<title>泥炭地の水位変動</title>${meta('citation_title', '泥炭地の水位変動')}${meta('citation_author', '中村 恵美', '佐藤 雪')}${meta('citation_journal_title', '湿地紀要')}${meta('citation_volume', '12')}${meta('citation_issue', '1')}${meta('citation_firstpage', '1')}${meta('citation_lastpage', '18')}${meta('citation_date', '2014')}`,
      '<h1>泥炭地の水位変動</h1>',
    ),
    label: {
      type: 'article-journal',
      title: '泥炭地の水位変動',
      author: '中村, 恵美; 佐藤, 雪',
      issued: '2014',
      container: '湿地紀要',
      volume: '12',
      issue: '1',
      page: '1-18',
    },
  },
  {
    name: 'French article, family names first in capitals',
    vocabularies: ['highwire', 'dublin-core'],
    bad: true,
    address: 'https://revue-tourbieres.example/article/210',
    html: page(
      'fr',
      `<title>Les tourbières et l’eau</title>${meta('citation_title', 'Les tourbières et l’eau')}${meta('citation_author', 'LEFÈVRE Claire', 'DE LA TOUR Hugues')}${meta('citation_journal_title', 'Revue des tourbières')}${meta('citation_issue', 'n° 18')}${meta('citation_firstpage', '33')}${meta('citation_lastpage', '41')}${meta('citation_date', '2008')}${meta('citation_language', 'fre')}`,
      '<h1>Les tourbières et l’eau</h1>',
    ),
    label: {
      type: 'article-journal',
      title: 'Les tourbières et l’eau',
      author: 'Lefèvre, Claire; de la Tour, Hugues',
      issued: '2008',
      container: 'Revue des tourbières',
      issue: '18',
      page: '33-41',
    },
  },
  {
    name: 'book review in a journal, microdata Review',
    vocabularies: ['json-ld'],
    address: 'https://glenstudies.example/reviews/77',
    html: page(
      'en',
      `<title>The Wet Archive, reviewed</title>${ld({ '@context': 'https://schema.org', '@type': 'Review', name: 'The Wet Archive, reviewed', author: { '@type': 'Person', name: 'Fionn Daly' }, datePublished: '2021-03', itemReviewed: { '@type': 'Book', name: 'The Wet Archive' }, isPartOf: { '@type': 'Periodical', name: 'Glen Studies' } })}`,
      '<h1>The Wet Archive, reviewed</h1>',
    ),
    label: {
      type: 'review-book',
      title: 'The Wet Archive, reviewed',
      author: 'Daly, Fionn',
      issued: '2021-03',
      container: 'Glen Studies',
    },
  },
  {
    name: 'podcast episode',
    vocabularies: ['json-ld'],
    address: 'https://bogcast.example/12',
    html: page(
      'en',
      `<title>12: The smell of rain</title>${ld({ '@context': 'https://schema.org', '@type': 'PodcastEpisode', name: 'The smell of rain', datePublished: '2023-11-02', episodeNumber: '12', partOfSeries: { '@type': 'PodcastSeries', name: 'Bogcast' }, author: { '@type': 'Person', name: 'Siobhán Kerr' } })}`,
      '<h1>The smell of rain</h1>',
    ),
    label: {
      type: 'broadcast',
      title: 'The smell of rain',
      author: 'Kerr, Siobhán',
      issued: '2023-11-02',
      container: 'Bogcast',
    },
  },
  {
    name: 'map sheet, Dublin Core',
    vocabularies: ['dublin-core'],
    address: 'https://maps.fenland.example/sheet/cold-fen-1792',
    html: page(
      'en',
      `<title>A plan of Cold Fen | Fenland Maps</title>${meta('dcterms.title', 'A plan of Cold Fen')}${meta('dcterms.creator', 'Thorne, William')}${meta('dcterms.date', '1792')}${meta('dcterms.type', 'http://purl.org/dc/dcmitype/StillImage', 'cartographic material')}`,
      '<h1>A plan of Cold Fen</h1>',
    ),
    label: { type: 'map', title: 'A plan of Cold Fen', author: 'Thorne, William', issued: '1792' },
  },
  {
    name: 'newspaper without any vocabulary',
    vocabularies: ['html'],
    address: 'https://www.glenherald.example/news/2012/06/peat-fire.php',
    html: page(
      'en-GB',
      '<title>Peat fire closes hill road - The Glen Herald</title>',
      '<div id="main"><h1>Peat fire closes hill road</h1><p class="byline">By Agnes Thorne, Staff Reporter | 9 June 2012</p><p>Smoke was seen from the ferry.</p></div>',
    ),
    label: {
      type: 'article-newspaper',
      title: 'Peat fire closes hill road',
      author: 'Thorne, Agnes',
      issued: '2012-06-09',
      container: 'The Glen Herald',
    },
  },
  {
    name: 'article whose tags stop at the title; JSON-LD fills in',
    vocabularies: ['highwire', 'json-ld'],
    bad: true,
    address: 'https://wetlandletters.example/10.5555/wl.19',
    html: page(
      'en',
      `<title>Moss that drinks fog</title>${meta('citation_title', 'Moss that drinks fog')}${ld({ '@context': 'https://schema.org', '@type': 'ScholarlyArticle', name: 'Moss that drinks fog', author: [{ '@type': 'Person', name: 'Nakamura, Emi' }], isPartOf: { '@type': 'Periodical', name: 'Wetland Letters', issn: '0988-3010' }, volumeNumber: '2', issueNumber: '4', pagination: '19-24', datePublished: '2019-10-05', identifier: ['doi:10.5555/wl.19'] })}`,
      '<h1>Moss that drinks fog</h1>',
    ),
    label: {
      type: 'article-journal',
      title: 'Moss that drinks fog',
      author: 'Nakamura, Emi',
      issued: '2019-10-05',
      container: 'Wetland Letters',
      volume: '2',
      issue: '4',
      page: '19-24',
      DOI: '10.5555/wl.19',
      ISSN: '0988-3010',
    },
  },
  {
    name: 'interview in a magazine, generic Article with NewsMediaOrganization',
    vocabularies: ['json-ld'],
    address: 'https://dailymire.example/culture/an-hour-with-a-turf-cutter',
    html: page(
      'en',
      `<title>An hour with a turf cutter</title>${ld({
        '@context': 'https://schema.org',
        '@graph': [
          {
            '@type': 'Article',
            '@id': '#a',
            headline: 'An hour with a turf cutter',
            author: { '@id': '#p' },
            datePublished: '2018-08-18',
            publisher: { '@type': 'NewsMediaOrganization', name: 'The Daily Mire' },
          },
          { '@type': 'Person', '@id': '#p', name: 'Tunde Oyelaran' },
        ],
      })}`,
      '<article><h1>An hour with a turf cutter</h1></article>',
    ),
    label: {
      type: 'article-newspaper',
      title: 'An hour with a turf cutter',
      author: 'Oyelaran, Tunde',
      issued: '2018-08-18',
      container: 'The Daily Mire',
    },
  },
  {
    name: 'edited book with no authors, tags of a book platform',
    vocabularies: ['highwire'],
    address: 'https://link.mirelibrary.example/book/978-0-521-12345-7',
    html: page(
      'en',
      `<title>Handbook of Mire Research | MireLibrary</title>${meta('citation_title', 'Handbook of Mire Research')}${meta('citation_editor', 'MacRae, Eilidh', 'Virtanen, Hanna')}${meta('citation_publication_date', '2013')}${meta('citation_isbn', '978-0-521-12345-7')}${meta('citation_publisher', 'Mire Academic')}`,
      '<h1>Handbook of Mire Research</h1>',
    ),
    label: {
      type: 'book',
      title: 'Handbook of Mire Research',
      editor: 'MacRae, Eilidh; Virtanen, Hanna',
      issued: '2013',
      ISBN: '978-0-521-12345-7',
    },
  },
  {
    name: 'article with its own DOI printed and others in its references',
    vocabularies: ['html'],
    bad: true,
    address: 'https://oldpeat.example/issue9/ash.htm',
    html: page(
      'en',
      '<title>Ash layers in three bogs</title>',
      `<main><h1>Ash layers in three bogs</h1><p class="authors">Agnes Thorne and Niall Mac Giolla Bhríde</p><p>DOI: <a href="https://doi.org/10.5555/op.9.3">10.5555/op.9.3</a></p><p>Published 3 May 1999</p>
<h2>References</h2><ol class="references"><li>Virtanen 1990. <a href="https://doi.org/10.5555/pj.1">10.5555/pj.1</a></li><li>Park 1991. <a href="https://doi.org/10.5555/pj.2">10.5555/pj.2</a></li></ol></main>`,
    ),
    label: {
      type: 'webpage',
      title: 'Ash layers in three bogs',
      author: 'Thorne, Agnes; Mac Giolla Bhríde, Niall',
      issued: '1999-05-03',
      DOI: '10.5555/op.9.3',
    },
  },
  {
    name: 'degrees and titles with the names, an empty date, placeholders',
    vocabularies: ['dublin-core', 'highwire'],
    bad: true,
    address: 'https://bulletin.mosssociety.example/n/55',
    html: page(
      'en',
      `<title>Bulletin 55: Liverworts of the wet wood</title>${meta('citation_title', 'Liverworts of the wet wood')}${meta('citation_author', 'Dr. Agnes Thorne, PhD', 'Prof. Piet van den Berg (University of Suonia)')}
${meta('citation_journal_title', 'Bulletin of the Moss Society')}${meta('citation_volume', '55')}${meta('citation_issue', 'N/A')}${meta('citation_publication_date', '')}${meta('citation_year', '2003')}${meta('citation_firstpage', '7')}${meta('citation_lastpage', '7')}${meta('DC.publisher', 'null')}`,
      '<h1>Liverworts of the wet wood</h1>',
    ),
    label: {
      type: 'article-journal',
      title: 'Liverworts of the wet wood',
      author: 'Thorne, Agnes; van den Berg, Piet',
      issued: '2003',
      container: 'Bulletin of the Moss Society',
      volume: '55',
      page: '7',
    },
  },
  {
    name: 'social preview tags that shorten the title, author as an address',
    vocabularies: ['open-graph', 'html'],
    bad: true,
    address: 'https://www.suoniapost.example/science/2020/11/peat-and-plague',
    html: page(
      'en',
      `<title>Peat, plague and the price of candles: what a bog can tell a banker | The Suonia Post</title><meta property="og:title" content="Peat, plague and the price of candles: what a…"><meta property="og:site_name" content="The Suonia Post"><meta property="article:published_time" content="2020-11-21T05:00:00Z"><meta property="article:author" content="https://socials.example/emi">`,
      '<article><h1>Peat, plague and the price of candles: what a bog can tell a banker</h1><div class="author-name">Emi Nakamura</div><time datetime="2020-11-21">21 Nov 2020</time></article>',
    ),
    label: {
      type: 'article-newspaper',
      title: 'Peat, plague and the price of candles: what a bog can tell a banker',
      author: 'Nakamura, Emi',
      issued: '2020-11-21',
      container: 'The Suonia Post',
    },
  },
];
