import { JSDOM } from 'jsdom';
import { describe, expect, it } from 'vitest';
import { nameText } from '../source';
import { diagnosticOf, recordsIn } from './index';

const AT = '2026-03-03T00:00:00.000Z';
const read = (xml: string) =>
  recordsIn(new JSDOM(xml, { contentType: 'application/xml' }).window.document, AT);
const field = (tag: string, subfields: string, ind2 = ' ') =>
  `<datafield tag="${tag}" ind1=" " ind2="${ind2}">${subfields.replace(/\$(\w)([^$]*)/g, '<subfield code="$1">$2</subfield>')}</datafield>`;
const marc = (leader: string, ...fields: string[]) =>
  `<collection xmlns="http://www.loc.gov/MARC21/slim"><record><leader>${leader}</leader>${fields.join('')}</record></collection>`;

/** Tags and subfields are those of MARC 21 Format for Bibliographic Data; the books are invented. */
describe('MARCXML', () => {
  it('a book: parts of the title, roles, edition, imprint without its punctuation, series', () => {
    const [book] = read(
      marc(
        '01142nam a2200301 a 4500',
        field('020', '$a9781861972712 (pbk.)'),
        field('100', '$aOsei, Kofi,$eauthor.'),
        field('245', '$aGates of the Long Sound :$btide mills and their keepers /$cKofi Osei.'),
        field('250', '$a3rd ed.'),
        field('264', '$aNorthsound :$bStrand University Press,$c2018.', '1'),
        field('300', '$axii, 288 pages ;'),
        field('490', '$aShore studies ;$vvol. 4'),
        field('700', '$avon der Heide, Anna,$etranslator.'),
        field('700', '$aLindqvist, Maja$4edt'),
      ),
    );
    expect(book).toMatchObject({
      type: 'book',
      title: 'Gates of the Long Sound: tide mills and their keepers',
      edition: '3',
      'publisher-place': 'Northsound',
      publisher: 'Strand University Press',
      issued: { 'date-parts': [[2018]] },
      'number-of-pages': '288',
      'collection-title': 'Shore studies',
      'collection-number': '4',
      ISBN: '9781861972712',
    });
    expect([book!.author, book!.translator, book!.editor].map((n) => n!.map(nameText))).toEqual([
      ['Osei, Kofi'],
      ['von der Heide, Anna'],
      ['Lindqvist, Maja'],
    ]);
    expect(book!.retexa.origins.publisher![0]!.kind).toBe('registry');
  });
  it('a thesis, an article in a host, a corporate author, a map', () => {
    const [thesis] = read(
      marc(
        '00000nam a22',
        field('245', '$aMud and memory'),
        field('502', '$bPh.D.$cUniversity of Northsound$d2018'),
      ),
    );
    expect(thesis).toMatchObject({ type: 'thesis', genre: 'Ph.D.', publisher: 'University of Northsound' });
    const [article] = read(
      marc(
        '00000naa a22',
        field('245', '$aOpen gates'),
        field('773', '$tMarsh letters$gVol. 4, no. 3 (2022), p. 201-219$x2049-3630'),
      ),
    );
    expect(article).toMatchObject({
      type: 'article-journal',
      'container-title': 'Marsh letters',
      volume: '4',
      issue: '3',
      page: '201-219',
      ISSN: '2049-3630',
    });
    const [chart] = read(
      marc(
        '00000nem a22',
        field('110', '$aHydrographic Office.$bChart Branch.'),
        field('245', '$aChart of the Long Sound'),
      ),
    );
    expect(chart).toMatchObject({ type: 'map', author: [{ literal: 'Hydrographic Office, Chart Branch' }] });
  });
  it('leaves out what catalogues write for “unknown”', () => {
    const [book] = read(
      marc('00000nam a22', field('245', '$aMills'), field('260', '$a[S.l. :$bs.n.],$c[1890?]')),
    );
    expect([book!.publisher, book!['publisher-place']]).toEqual([undefined, undefined]);
  });
});

/** Elements are those of MODS 3.8. */
describe('MODS', () => {
  it('a chapter in a host with editors, and its pages', () => {
    const [chapter] =
      read(`<mods xmlns="http://www.loc.gov/mods/v3"><titleInfo><nonSort>The</nonSort><title>ledgers</title></titleInfo>
      <name type="personal"><namePart type="family">Zee</namePart><namePart type="given">Mieke van der</namePart></name><genre>book chapter</genre>
      <relatedItem type="host"><titleInfo><title>Water and work</title></titleInfo><name type="personal"><namePart>Osei, Kofi</namePart><role><roleTerm>editor</roleTerm></role></name>
      <originInfo><publisher>Strand</publisher><dateIssued>2015</dateIssued></originInfo><part><extent unit="pages"><start>88</start><end>109</end></extent></part></relatedItem></mods>`);
    expect(chapter).toMatchObject({
      type: 'chapter',
      title: 'The ledgers',
      'container-title': 'Water and work',
      page: '88-109',
      publisher: 'Strand',
      issued: { 'date-parts': [[2015]] },
    });
    expect(chapter!.editor!.map(nameText)).toEqual(['Osei, Kofi']);
  });
  it('a series and its number; invalid identifiers are passed over', () => {
    const [book] =
      read(`<mods xmlns="http://www.loc.gov/mods/v3"><titleInfo><title>Gates</title><subTitle>A history</subTitle></titleInfo><typeOfResource>text</typeOfResource>
      <identifier type="isbn" invalid="yes">9780306406150</identifier><identifier type="isbn">9780306406157</identifier><relatedItem type="series"><titleInfo><title>Shore studies ; 4</title></titleInfo></relatedItem></mods>`);
    expect(book).toMatchObject({
      type: 'book',
      title: 'Gates: A history',
      ISBN: '9780306406157',
      'collection-title': 'Shore studies',
      'collection-number': '4',
    });
  });
});

describe('an SRU answer', () => {
  it('tells what went wrong in the server’s words', () => {
    const doc = new JSDOM(
      '<r xmlns:d="http://www.loc.gov/zing/srw/diagnostic/"><d:diagnostic><d:message>Query syntax error</d:message></d:diagnostic></r>',
      { contentType: 'application/xml' },
    );
    expect(diagnosticOf(doc.window.document)).toBe('Query syntax error');
  });
});
