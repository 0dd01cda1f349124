import { JSDOM } from 'jsdom';
import { describe, expect, it } from 'vitest';
import { nameText, recognise, recogniseLines } from '../source';
import { fromContextObject } from './extractors/coins';
import { jsonLdNodes } from './extractors/json-ld';
import { microdataNodes } from './extractors/microdata';
import { rdfaNodes } from './extractors/rdfa';
import { joinRegistry, linksOf, parseLinkHeader, peopleOf, personName, type Candidate } from './index';
import { pageRange } from './candidate';
import { citeAsDoi, linkedFiles, pdfOf } from './links';
import { tidy } from './tidy';

const docOf = (head: string, body = '') =>
  new JSDOM(`<html><head>${head}</head><body>${body}</body></html>`, { url: 'https://a.example/x/1' }).window
    .document;
const value = (list: Candidate[], field: string) => list.find((c) => c.field === field)?.value;

describe('Link headers', () => {
  it('reads the examples of RFC 8288, section 3.5', () => {
    const first = '<http://example.com/TheBook/chapter2>; rel="previous"; title="previous chapter"';
    expect(parseLinkHeader(first, 'http://example.com/TheBook/chapter3')).toEqual([
      { rel: 'previous', href: 'http://example.com/TheBook/chapter2', title: 'previous chapter' },
    ]);
    expect(parseLinkHeader('</>; rel="http://example.net/foo"', 'http://example.com/a')[0]).toEqual({
      rel: 'http://example.net/foo',
      href: 'http://example.com/',
    });
    expect(parseLinkHeader('</terms>; rel="copyright"; anchor="#foo"', 'http://example.com/a')).toEqual([]);
    const several = `<http://example.org/>; rel="start http://example.net/relation/other"`;
    expect(parseLinkHeader(several, 'http://example.com/').map((l) => l.rel)).toEqual([
      'start',
      'http://example.net/relation/other',
    ]);
  });
  it('finds the DOI to cite by (RFC 8574), citation files and the PDF (signposting)', () => {
    const header =
      '<https://doi.org/10.5555/a.1>; rel="cite-as", </a.ris>; rel="describedby"; type="application/x-research-info-systems", </a.json>;rel=describedby;type="application/vnd.citationstyles.csl+json", </a.pdf>; rel=item; type="application/pdf"';
    const doc = docOf('<link rel="alternate" type="application/x-bibtex" href="/a.bib">');
    const links = linksOf(doc, 'https://a.example/x/1', header);
    expect(citeAsDoi(links)).toBe('10.5555/a.1');
    expect(linkedFiles(doc, 'https://a.example/x/1', links)).toEqual([
      { href: 'https://a.example/a.json', format: 'csl-json' },
      { href: 'https://a.example/a.bib', format: 'bibtex' },
      { href: 'https://a.example/a.ris', format: 'ris' },
    ]);
    expect(pdfOf(doc, 'https://a.example/x/1', links)).toBe('https://a.example/a.pdf');
  });
  it('takes no citation file from the page’s references or from another site', () => {
    const doc = docOf(
      '',
      '<div class="references"><a href="/other.bib">BibTeX</a></div><a href="https://b.example/x.bib">b</a>',
    );
    expect(linkedFiles(doc, 'https://a.example/x/1', [])).toEqual([]);
  });
});

describe('COinS', () => {
  it('reads a journal article, the lead author and the rest', () => {
    const found = fromContextObject(
      'ctx_ver=Z39.88-2004&amp;rft_val_fmt=info%3Aofi%2Ffmt%3Akev%3Amtx%3Ajournal&amp;rft.genre=article&amp;rft.atitle=Open+gates&amp;rft.jtitle=Marsh+Letters&amp;rft.aulast=Osei&amp;rft.aufirst=Kofi&amp;rft.au=Osei%2C+K.&amp;rft.au=Ng%2C+Tsz+Ho&amp;rft.volume=4&amp;rft.spage=201&amp;rft.epage=219&amp;rft.date=2022-03&amp;rft_id=info%3Adoi%2F10.5555%2Fml.4',
    );
    expect(value(found, 'type')).toBe('article-journal');
    expect((value(found, 'author') as never[]).map(nameText)).toEqual(['Osei, Kofi', 'Ng, Tsz Ho']);
    expect([
      value(found, 'title'),
      value(found, 'container-title'),
      value(found, 'page'),
      value(found, 'DOI'),
    ]).toEqual(['Open gates', 'Marsh Letters', '201-219', '10.5555/ml.4']);
  });
  it('reads a dissertation and a chapter, and nothing from what is no ContextObject', () => {
    const thesis = fromContextObject(
      'ctx_ver=Z39.88-2004&rft_val_fmt=info:ofi/fmt:kev:mtx:dissertation&rft.title=Mud&rft.au=Byrne, Nuala&rft.inst=Northsound',
    );
    expect([value(thesis, 'type'), value(thesis, 'title'), value(thesis, 'publisher')]).toEqual([
      'thesis',
      'Mud',
      'Northsound',
    ]);
    const chapter = fromContextObject(
      'ctx_ver=Z39.88-2004&rft_val_fmt=info:ofi/fmt:kev:mtx:book&rft.genre=bookitem&rft.atitle=Ledgers&rft.btitle=Water and Work&rft.isbn=9780306406157',
    );
    expect([value(chapter, 'type'), value(chapter, 'title'), value(chapter, 'container-title')]).toEqual([
      'chapter',
      'Ledgers',
      'Water and Work',
    ]);
    expect(fromContextObject('just a title')).toEqual([]);
  });
});

describe('items in the text', () => {
  it('microdata: nesting, itemref, and the values of meta, time and links (HTML Living Standard, Microdata)', () => {
    const doc = docOf(
      '',
      `<div itemscope itemtype="https://schema.org/Book" itemref="more"><b itemprop="name">A <i>book</i></b><meta itemprop="isbn" content="9780306406157">
       <div itemprop="author" itemscope itemtype="https://schema.org/Person"><span itemprop="name">N. Byrne</span></div></div><p id="more"><time itemprop="datePublished" datetime="2015">then</time></p>`,
    );
    expect(microdataNodes(doc)).toEqual([
      {
        '@type': ['https://schema.org/Book'],
        name: 'A book',
        isbn: '9780306406157',
        author: { '@type': ['https://schema.org/Person'], name: 'N. Byrne' },
        datePublished: '2015',
      },
    ]);
  });
  it('RDFa Lite: vocab, typeof, property, resource (RDFa Lite 1.1, section 2)', () => {
    const doc = docOf(
      '',
      `<p vocab="http://schema.org/" resource="#manu" typeof="Person">My name is <span property="name">Manu Sporny</span> and you can give me a ring via <span property="telephone">1-800-555-0199</span>. <img property="image" src="http://manu.example/m.png"></p>`,
    );
    expect(rdfaNodes(doc)).toEqual([
      {
        '@type': ['Person'],
        '@id': '#manu',
        name: 'Manu Sporny',
        telephone: '1-800-555-0199',
        image: 'http://manu.example/m.png',
      },
    ]);
  });
  it('JSON-LD in comments, with raw line ends, broken beside whole', () => {
    const doc = docOf(
      '<script type="application/ld+json"><!-- {"@type":"Book","name":"One\nline"} --></script><script type="application/LD+JSON">{nope</script><script type="application/ld+json">[{"@graph":[{"@type":"Map","name":"M"}]}]</script>',
    );
    expect(jsonLdNodes(doc).map((n) => n.name)).toEqual(['One line', undefined, 'M']);
  });
});

describe('names as pages write them', () => {
  it.each([
    ['By Dr. Ana Ferreira, PhD', 'Ferreira, Ana'],
    ['FERREIRA, ANA', 'Ferreira, Ana'],
    ['LEFÈVRE Claire', 'Lefèvre, Claire'],
    ['DE LA TOUR Hugues', 'de la Tour, Hugues'],
    ['Ng TH', 'Ng, TH'],
    ['中村 恵美', '中村, 恵美'],
    ['Tsz Ho Ng (University of Suonia)', 'Ng, Tsz Ho'],
    ['van der Zee, Mieke', 'van der Zee, Mieke'],
    ['Anna von der Heide', 'von der Heide, Anna'],
    ['Niall Mac Giolla Bhríde', 'Mac Giolla Bhríde, Niall'],
    ['Kofi Osei1,2', 'Osei, Kofi'],
    ['Harbour Council', 'Harbour Council'],
    ['Posted by Kofi Osei on 18 September 2022', 'Osei, Kofi'],
  ])('%s', (written, wanted) => expect(nameText(personName(written)!)).toBe(wanted));
  it.each(['admin', 'Staff Reporter', '@mills', 'https://x.example/me', '9 June 2012', 'editor'])(
    'nobody: %s',
    (written) => expect(personName(written)).toBeUndefined(),
  );
  it.each([
    [['Ferreira, A.; Ng, T. H.'], ['Ferreira, A.', 'Ng, T. H.']],
    [['Ferreira, A., Ng, T. H. & Osei, K.'], ['Ferreira, A.', 'Ng, T. H.', 'Osei, K.']],
    [
      ['Ana Ferreira, Tsz Ho Ng and Cian Ó Súilleabháin'],
      ['Ferreira, Ana', 'Ng, Tsz Ho', 'Ó Súilleabháin, Cian'],
    ],
    [['By Agnes Thorne, Staff Reporter | 9 June 2012'], ['Thorne, Agnes']],
    [['佐藤、王'], ['佐藤', '王']],
    [['Osei, Kofi', 'Osei, Kofi'], ['Osei, Kofi']],
  ])('%s', (written, wanted) => expect(peopleOf(written).map(nameText)).toEqual(wanted));
});

describe('values are freed of what styles print themselves', () => {
  it.each([
    ['volume', 'Vol. 3', '3'],
    ['issue', 'n° 18', '18'],
    ['edition', '3rd ed.', '3'],
    ['edition', 'Second edition', '2'],
    ['edition', 'Teacher’s edition', 'Teacher’s'],
    ['language', 'eng', 'en'],
    ['language', 'en_GB', 'en-GB'],
    ['language', 'English', 'en'],
    ['title', 'null', ''],
  ] as const)('%s %s', (field, written, wanted) => expect(tidy(field, written)).toBe(wanted));
  it.each([
    [['pp. 12', '29'], '12-29'],
    [['112–30'], '112-130'],
    [['e5'], 'e5'],
    [['7', '7'], '7'],
    [['0'], undefined],
  ])('pages %s', (given, wanted) => expect(pageRange(...(given as [string, string?]))).toBe(wanted));
});

describe('a registry’s record', () => {
  const said = (title: string, family: string, doi: string): Candidate[] => [
    { field: 'title', value: title, kind: 'highwire' },
    { field: 'author', value: [{ family }], kind: 'highwire' },
    { field: 'DOI', value: doi, kind: 'highwire' },
  ];
  it('joins the page of the same work, whatever its case and subtitle', () => {
    const { joined } = joinRegistry(
      said('GRAIN, TOLL AND TIDE', 'Barrow', '10.5555/a'),
      said('Grain, toll and tide: Mill leases', 'Barrow', '10.5555/a'),
      'DOI',
    );
    expect(joined).toHaveLength(3);
  });
  it('is left out with its DOI when it is of another work', () => {
    const { candidates, otherTitle } = joinRegistry(
      said('Penstocks without pain', 'Sato', '10.5555/b'),
      said('Salt marsh recovery', 'Ferreira', '10.5555/b'),
      'DOI',
    );
    expect(otherTitle).toBe('Salt marsh recovery');
    expect(candidates.map((c) => c.field)).toEqual(['title', 'author']);
  });
});

/** Identifiers of the shapes their registries publish; the numbers are made up or set aside for tests. */
describe('what was put into the capture field', () => {
  it.each([
    ['https://a.example/10.5555/x', 'address'],
    ['a.example/paper', 'address'],
    ['10.5555/marsh.3.7', 'doi'],
    ['https://doi.org/10.5555/marsh.3.7', 'doi'],
    ['See Ferreira (2021), doi:10.5555/marsh.3.7.', 'doi'],
    ['978-0-306-40615-7', 'isbn'],
    ['ISBN-13: 978-0-306-40615-7 (pbk.)', 'isbn'],
    ['arXiv:2403.01234v2', 'arxiv'],
    ['https://arxiv.org/abs/hep-th/9901001', 'arxiv'],
    ['PMID: 30611411', 'pmid'],
    ['https://pubmed.example/30611411/', 'pmid'],
    ['hdl:5555/4455', 'handle'],
    ['ISSN 2770-114X, vol. 12, p. 117', 'issn'],
    ['look at https://a.example/x please', 'address'],
    ['978-0-306-40615-8', 'text'],
    ['a thought about mills in 2021', 'text'],
  ])('%s', (text, kind) => expect(recognise(text).kind).toBe(kind));
  it('several, one a line, with bullets; not when a line is plain text', () => {
    expect(
      recogniseLines('- 10.5555/a\n2. 978-0-306-40615-7\n\nhttps://a.example/b')!.map((g) => g.kind),
    ).toEqual(['doi', 'isbn', 'address']);
    expect(recogniseLines('10.5555/a\nand a thought')).toBeUndefined();
    expect(recogniseLines('10.5555/a')).toBeUndefined();
  });
});
