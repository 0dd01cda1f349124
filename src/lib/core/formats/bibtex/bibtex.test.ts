import { describe, expect, it } from 'vitest';
import type { SourceRecord } from '../../source';
import { readFormat, writeFormat } from '../index';
import { namesFromTex } from './names';
import { texToText } from './tex';

const read = (text: string, dialect: 'bibtex' | 'biblatex' = 'biblatex') => {
  const { entries, skipped } = readFormat(dialect, text);
  return { byKey: Object.fromEntries(entries.map((e) => [e.key, e])), entries, skipped };
};
const first = (text: string, dialect: 'bibtex' | 'biblatex' = 'biblatex') =>
  read(text, dialect).entries[0]!.record;

describe('TeX as it is met', () => {
  it.each([
    ['{\\em Zostera} marina', '<i>Zostera</i> marina'],
    ['{\\bf bold {\\it both}}', '<b>bold <i>both</i></b>'],
    ['\\textsc{ad} 900', '<span style="font-variant:small-caps;">ad</span> 900'],
    ["\\'{E}cole, \\'Ecole, {\\'E}cole", 'École, École, École'],
    ['Ng\\~{a} \\k{a} \\H{o} \\t{oo} \\d{s}', 'Ngã ą ő o͡o ṣ'],
    ['\\enquote{quoted} and \\textquotedblleft x\\textquotedblright', '“quoted” and “x”'],
    [
      '$\\alpha$-diversity, $x_{i}^2 \\leq \\frac{a+b}{2}$',
      'α-diversity, x<sub>i</sub><sup>2</sup> ≤ (a+b)/2',
    ],
    ['$O(n \\log n)$', 'O(n log n)'],
    ['$a\\le b$, $\\Delta x \\le 3$, $\\nabla u \\to \\partial v$', 'a≤b, Δx ≤ 3, ∇u → ∂v'],
    ['$\\mathbb{R}^3$, 20\\,$^\\circ$C', 'ℝ<sup>3</sup>, 20 °C'],
    [
      'see \\url{https://a.example/x_y%20z} and \\href{https://b.example}{this}',
      'see https://a.example/x_y%20z and this',
    ],
    ['\\foreignlanguage{german}{Über}', 'Über'],
    ['a\\footnote{never} b\\label{x}', 'a b'],
    ['\\unknowncommand{kept} \\alone x', 'kept x'],
    ["l'\\oe{}uvre \\ss{} \\o", 'l’œuvre ß ø'],
    ['\\char"41 \\symbol{66}', 'AB'],
    ['a -{}- b', 'a -- b'],
    ['{{{deep}}}', 'deep'],
  ])('reads %s', (tex, text) => expect(texToText(tex)).toBe(text));
  it('is not stopped by a thousand open groups or macros that grow', () => {
    expect(texToText('{'.repeat(5_000) + 'x')).toBe('x');
    const grows = '@preamble{"\\newcommand{\\a}{\\a\\a\\a\\a}"}\n@book{k, title={\\a}}';
    expect(read(grows).entries).toHaveLength(1);
  });
});

describe('macros of a preamble', () => {
  // xampl.bib, which comes with BibTeX, defines \noopsort, \printfirst, \singleletter and \switchargs so.
  it('are expanded', () => {
    const record = first(
      '@preamble{ "\\newcommand{\\noopsort}[1]{} " # "\\newcommand{\\switchargs}[2]{#2#1} " }\n@book{a, title={T}, year = "{\\noopsort{1973a}}{\\switchargs{--90}{1968}}"}',
      'bibtex',
    );
    expect(record.issued).toEqual({ 'date-parts': [[1968], [1990]] });
  });
});

describe('names', () => {
  // biblatex manual, 3.7: the extended name format; its example is "given=Hans, family=Harman, prefix=von".
  it.each([
    ['given=Hans, family=Harman', { given: 'Hans', family: 'Harman' }],
    [
      'family=Beethoven, given=Ludwig, prefix=van, useprefix=false',
      { 'dropping-particle': 'van', family: 'Beethoven', given: 'Ludwig' },
    ],
    ['family={Four Word Family Name}', { family: 'Four Word Family Name' }],
    ['{van} Gogh, Vincent', { family: 'van Gogh', given: 'Vincent' }],
    ["{\\'E}mile Zola", { given: 'Émile', family: 'Zola' }],
    ['Knuth', { family: 'Knuth' }],
    ['jean de la fontaine', { 'non-dropping-particle': 'jean de la', family: 'fontaine' }],
  ])('reads %s', (tex, name) => expect(namesFromTex(tex).names).toEqual([name]));
  it('keeps an entry whose author is a macro it does not know, and says so', () => {
    const { entries, skipped } = read('@book{a, author = "\\Foo", title = "Sluices"}', 'bibtex');
    expect(skipped).toEqual([]);
    expect(entries[0]!.record).toMatchObject({ title: 'Sluices', author: [{ literal: '\\Foo' }] });
    expect(entries[0]!.notes).toEqual(['“\\Foo” in author gives no name; kept as it stands']);
  });

  it('takes particles for dropping ones where the entry says useprefix=false', () => {
    expect(first('@book{a, title={T}, options={useprefix=false}, author={van Zee, M.}}').author).toEqual([
      { family: 'Zee', given: 'M.', 'dropping-particle': 'van' },
    ]);
  });
  it('reads creators of other roles, and keeps roles CSL has not', () => {
    const record = first(
      '@book{a, title={T}, editor={E, A.}, editortype={compiler}, editora={D, B.}, editoratype={director}, editorb={R, C.}, editorbtype={redactor}}',
    );
    expect(record).toMatchObject({ compiler: [{ family: 'E' }], director: [{ family: 'D' }] });
    expect(record.retexa.kept.biblatex).toMatchObject({ editorb: 'R, C.', editorbtype: 'redactor' });
    expect(writeFormat('biblatex', [{ key: 'a', record }]).text).toMatch(/editorbtype = \{redactor\}/);
  });
});

describe('inheritance', () => {
  const FILE = `@inproceedings{child, author={A. One}, title={Part}, pages={1--2}, crossref={WHOLE}}
@proceedings{whole, editor={B. Two}, title={Proceedings of T}, subtitle={The Second}, booktitle={Proc. T}, year=1999, publisher={P}, shorthand={X}}
@book{x, title={T}, xdata={house, series}}
@xdata{house, publisher={House}, location={Town}}
@xdata{series, series={S}, publisher={Other}}
@book{lost, title={L}, crossref={nowhere}}
@book{round, title={R}, crossref={round}}`;
  it('in biblatex gives the title of the whole its place, by the types (manual, appendix B)', () => {
    const { byKey } = read(FILE);
    expect(byKey.child!.record).toMatchObject({
      title: 'Part',
      editor: [{ family: 'Two' }],
      issued: { 'date-parts': [[1999]] },
      publisher: 'P',
    });
    expect(byKey.child!.record['container-title']).toContain('Proc');
    expect(byKey.child!.record.retexa.kept).toEqual({});
  });
  it('in BibTeX gives missing fields as they are', () => {
    expect(read(FILE, 'bibtex').byKey.child!.record['container-title']).toBe('Proc. T');
  });
  it('takes xdata, first named first, and drops the xdata entries', () => {
    const { byKey, entries } = read(FILE);
    expect(byKey.x!.record).toMatchObject({
      publisher: 'House',
      'publisher-place': 'Town',
      'collection-title': 'S',
    });
    expect(entries.map((e) => e.key)).toEqual(['child', 'whole', 'x', 'lost', 'round']);
  });
  it('says when the parent is not there, and is not caught in a circle', () => {
    const { byKey } = read(FILE);
    expect(byKey.lost!.notes.join()).toContain('“nowhere”, which is not in the file');
    expect(byKey.round!.record.title).toBe('R');
  });
});

describe('biblatex entries', () => {
  // Types and fields: biblatex manual, sections 2.1 and 2.2; the works are invented.
  it.each<[string, string, Partial<SourceRecord>]>([
    ['a newspaper article', '@article{a, title={T}, entrysubtype={newspaper}, journaltitle={N}}', { type: 'article-newspaper', 'container-title': 'N' }],
    ['titles in parts', '@book{a, title={Mills}, subtitle={A History}, titleaddon={Revised}}', { title: 'Mills: A History. Revised', 'title-short': 'Mills' }],
    ['a volume of a work', '@book{a, maintitle={Whole}, title={Part One}, volume=1}', { title: 'Whole', 'volume-title': 'Part One', volume: '1' }],
    ['a chapter of a volume', '@inbook{a, title={C}, booktitle={Part One}, maintitle={Whole}}', { title: 'C', 'container-title': 'Whole', 'volume-title': 'Part One' }],
    ['lists', '@book{a, title={T}, location={London and {Town and Country}}, publisher={A and B}}', { 'publisher-place': 'London; Town and Country', publisher: 'A; B' }],
    ['an arXiv print', '@online{a, title={T}, eprint={2101.00001v2}, eprinttype={arxiv}}', { type: 'webpage', URL: 'https://arxiv.org/abs/2101.00001v2' }],
    ['a thesis with a key', '@thesis{a, title={T}, type={mathesis}, institution={U}}', { type: 'thesis', genre: 'Master’s thesis', publisher: 'U' }],
    ['a patent', '@patent{a, title={T}, holder={Works, Ltd}, type={patentus}, location={countryus}, number={7}}', { type: 'patent', genre: 'U.S. patent', jurisdiction: 'United States', number: '7' }],
    ['an event', '@inproceedings{a, title={T}, eventtitle={Meeting}, eventdate={2019-06-03/2019-06-05}, venue={Kiel}}', { 'event-title': 'Meeting', 'event-place': 'Kiel', 'event-date': { 'date-parts': [[2019, 6, 3], [2019, 6, 5]] } }],
    ['a reprint', '@book{a, title={T}, date={1997}, origdate={1959}, origpublisher={W}, origlocation={N}}', { 'original-date': { 'date-parts': [[1959]] }, 'original-publisher': 'W', 'original-publisher-place': 'N' }],
    ['languages', '@book{a, title={T}, langid={english}, langidopts={variant=british}}', { language: 'en-GB' }],
    ['a supplement to an issue', '@suppperiodical{a, title={T}, journaltitle={J}}', { type: 'article-journal' }],
    ['a work of reference', '@inreference{a, title={T}, booktitle={E}}', { type: 'entry-encyclopedia', 'container-title': 'E' }],
    ['an open range', '@mvbook{a, title={T}, date={1998/}}', { issued: { 'date-parts': [[1998]], edtf: '1998/' } }],
    ['a season', '@article{a, title={T}, date={2003-22}}', { issued: { 'date-parts': [[2003]], season: 2 } }],
    ['an edition in words', '@book{a, title={T}, edition={Third}}', { edition: '3' }],
    ['publisher before organization, whatever comes first', '@inproceedings{a, title={T}, organization={O}, publisher={P}}', { publisher: 'P' }],
    ['two months', '@article{a, title={T}, year=1988, month = jun # "--" # aug}', { issued: { 'date-parts': [[1988, 6], [1988, 8]] } }],
    ['a PubMed number', '@article{a, title={T}, eprint={123}, eprinttype={pubmed}}', { PMID: '123' }],
  ])('reads %s', (_what, text, wanted) => expect(first(text)).toMatchObject(wanted)); // prettier-ignore
  // BibTeX's publisher and address are each one text (btxdoc, 3.2); lists came with biblatex.
  it('leaves publishers and places of BibTeX as they stand', () =>
    expect(
      first('@book{a, title={T}, publisher={Taylor and Francis}, address={London and New York}}', 'bibtex'),
    ).toMatchObject({ publisher: 'Taylor and Francis', 'publisher-place': 'London and New York' }));
  it('says that a publisher with “and” in it became a list', () => {
    const { entries } = read(
      '@book{a, title={T}, publisher={Taylor and Francis}}\n@book{b, title={T}, publisher={{Taylor and Francis}}}',
    );
    expect(entries.map((e) => e.notes)).toEqual([[expect.stringContaining('a list: Taylor; Francis')], []]);
    expect(entries[1]!.record.publisher).toBe('Taylor and Francis');
  });
  it.each(['Taylor and Francis', 'A; B', 'A; B; C', 'A and B and C', 'Wiley; Town and Country', 'Land & Sea', 'and', 'A AND B; C'])(
    'gives the publisher and the place “%s” back in either dialect',
    (text) => {
      const record = first('@book{a, title={T}}');
      const item = { key: 'a', record: { ...record, publisher: text, 'publisher-place': text } };
      for (const dialect of ['bibtex', 'biblatex'] as const)
        expect(first(writeFormat(dialect, [item]).text, dialect)).toMatchObject({
          publisher: text,
          'publisher-place': text,
        });
    },
  ); // prettier-ignore
  it('gives “and others” back, in either dialect, and tells a format that has no such thing', () => {
    const { record } = read(
      '@book{a, author={Hanne Brandt and others}, bookauthor={Uwe Thode and others}, editora={Moor, A. and others}, editoratype={compiler}, title={T}}',
    ).entries[0]!;
    const item = [{ key: 'a', record }];
    expect(writeFormat('bibtex', item).text).toContain('author = {Brandt, Hanne and others}');
    const { text, losses } = writeFormat('biblatex', item);
    expect(text).toContain('author = {Brandt, Hanne and others}');
    expect(text).toContain('bookauthor = {Thode, Uwe and others}');
    expect(text).toContain('editora = {Moor, A. and others}');
    expect(losses).toEqual([]);
    expect(first(text).retexa.kept).toEqual(record.retexa.kept);
    for (const format of ['ris', 'csl-json'] as const)
      expect(writeFormat(format, item).losses).toContainEqual({
        key: 'a',
        field: 'author',
        reason: expect.stringContaining('others') as string,
      });
  });
  it('forgets “and others” when the names are gone or a name was added', () => {
    const { record } = read('@book{a, author={Hanne Brandt and others}, title={T}}').entries[0]!;
    const { author, ...nobody } = record;
    expect(writeFormat('bibtex', [{ key: 'a', record: nobody }]).text).not.toContain('others');
    const two = { ...record, author: [...author!, { family: 'Thode', given: 'Uwe' }] };
    expect(writeFormat('bibtex', [{ key: 'a', record: two }]).text).not.toContain('others');
    expect(writeFormat('ris', [{ key: 'a', record: two }]).losses).toEqual([]);
  });
  it('tells a month that no date could take', () => {
    const notes = (fields: string) => read(`@book{a, title={T}, ${fields}}`).entries[0]!.notes;
    expect(notes('year={in press}, month={Jan}')).toEqual(['month “Jan” is left out of the date']);
    expect(notes('date={2020}, month=feb')).toEqual(['month “February” is left out of the date']);
    expect(notes('year=2020, month={Spring}')).toEqual([]);
    expect(notes('year=2020, month={05}')).toEqual([]);
  });
  it('passes over a set, and says so', () => {
    expect(read('@set{s, entryset={a,b}}').skipped).toMatchObject([
      { line: 1, reason: expect.stringContaining('set') as string },
    ]);
  });
  it('reads a key with spaces, and writes one that biber takes', () => {
    const { entries } = read('@book{Smith 2001 mills, title={T}}');
    expect(entries[0]).toMatchObject({ key: 'Smith 2001 mills', notes: [expect.stringContaining('spaces')] });
    const { text, losses } = writeFormat('bibtex', [{ key: 'Smith 2001 mills', record: entries[0]!.record }]);
    expect(text).toContain('@book{Smith-2001-mills,');
    expect(losses).toMatchObject([{ field: 'citekey' }]);
  });
});
