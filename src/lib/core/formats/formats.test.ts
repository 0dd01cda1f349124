import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  CSL_TYPES,
  DATE_VARIABLES,
  looksInstitutional,
  NAME_VARIABLES,
  NUMBER_VARIABLES,
  parseEdtf,
  plainlyRecord,
  sourceRecord,
  TEXT_VARIABLES,
  toCsl,
  type CslName,
  type SourceRecord,
} from '../source';
import { FORMAT_NAMES, FORMATS, readFormat, sniff, writeFormat, type FormatName } from './index';
import { namesFromTex } from './bibtex/names';
import { texToText, textToTex } from './bibtex/tex';
import { plain } from '../text';
import { unsaid } from './unsaid';

const one = (format: FormatName, text: string) => {
  const { entries, skipped } = readFormat(format, text);
  expect(skipped).toEqual([]);
  expect(entries).toHaveLength(1);
  return entries[0]!;
};

describe('TeX', () => {
  it.each([
    ['\\"{o}\\"o{\\"o}', 'ööö'],
    ["\\'{\\i}", 'í'],
    ['\\v{S}koda \\c{c} \\aa{} {\\O}re', 'Škoda ç å Øre'],
    ["1540--1610 --- ``so''", '1540–1610 — “so”'],
    ['Smith~\\& Sons 5\\%', 'Smith\u00a0& Sons 5%'],
    ['\\emph{Zostera} in H\\textsubscript{2}O', '<i>Zostera</i> in H<sub>2</sub>O'],
    ['$10^{-3}$ m', '10<sup>-3</sup> m'],
    ['open { brace', 'open brace'],
  ])('reads %s', (tex, text) => expect(texToText(tex)).toBe(text));
  it('turns braces that protect case into nocase and back', () => {
    expect(texToText('The {DNA} of {Venice}', true)).toBe(
      'The <span class="nocase">DNA</span> of <span class="nocase">Venice</span>',
    );
    expect(textToTex('The <span class="nocase">DNA</span> & <i>x</i>')).toBe('The {DNA} \\& \\emph{x}');
    expect(texToText('{A Whole Title}', true)).toBe('A Whole Title');
  });
});

describe('BibTeX names', () => {
  // Forms and the "von" rule: btxdoc, section 4, item 18; "Charles Louis Xavier Joseph de la Vall{\'e}e Poussin" is its example.
  it.each([
    [
      "Charles Louis Xavier Joseph de la Vall{\\'e}e Poussin",
      { given: 'Charles Louis Xavier Joseph', 'non-dropping-particle': 'de la', family: 'Vallée Poussin' },
    ],
    ['van Beethoven, Ludwig', { 'non-dropping-particle': 'van', family: 'Beethoven', given: 'Ludwig' }],
    ['King, Jr, Martin Luther', { family: 'King', suffix: 'Jr', given: 'Martin Luther' }],
    ['{Barnes and Noble, Inc.}', { literal: 'Barnes and Noble, Inc.' }],
  ])('reads %s', (tex, name) => expect(namesFromTex(tex).names).toEqual([name]));
  it('splits at and, notes others', () => {
    expect(namesFromTex('A. One and B. Two and others')).toMatchObject({
      others: true,
      names: [{ family: 'One' }, { family: 'Two' }],
    });
  });
});

describe('BibTeX', () => {
  it('reads strings, concatenation, months, parentheses and text between entries', () => {
    const { entries, skipped } = readFormat(
      'bibtex',
      `\uFEFFA word before. @string{jce = "Journal of Coastal "}
@comment{ignored @article{x,}}
@preamble{"\\newcommand{x}"}
@article(barrow1998,
  Author = {Barrow, E. M. and Tully, Jr., J. Q.},
  title = {Grain, Toll and {Tide}},
  journal = jce # {Economics},
  year = 1998, month = mar, volume = 44, number = {2}, pages = {112--130},
  keywords = {leases, tolls},
  mrnumber = {77},
)`,
    );
    expect(skipped).toEqual([]);
    expect(entries[0]).toMatchObject({ key: 'barrow1998', line: 4 });
    expect(entries[0]!.record).toMatchObject({
      type: 'article-journal',
      'container-title': 'Journal of Coastal Economics',
      issued: { 'date-parts': [[1998, 3]] },
      issue: '2',
      page: '112-130',
      retexa: { tags: ['leases', 'tolls'], kept: { bibtex: { mrnumber: '77' } } },
    });
  });
  it('skips a broken entry, says where, and reads the rest', () => {
    const { entries, skipped } = readFormat(
      'bibtex',
      '@book{a, title = {One}}\n\n@book{b,\n title = {Two\n}\n@book{c, title = {Three}}\n@book{d title={Four}}\n@book{e, title={Five}}',
    );
    expect(entries.map((e) => e.key)).toEqual(['a', 'c', 'e']);
    expect(skipped.map((s) => s.line)).toEqual([3, 7]);
    expect(skipped[0]!.reason).toContain('never closed');
    expect(skipped[1]!.reason).toContain('comma');
  });
  it('says what it cannot hold', () => {
    const record = sourceRecord.parse({
      type: 'motion_picture',
      title: 'T',
      director: [{ family: 'D' }],
      'original-date': { 'date-parts': [[1950]] },
    });
    const { losses } = writeFormat('bibtex', [{ key: 'k', record }]);
    expect(losses.map((l) => l.field).sort()).toEqual(['director', 'type']);
  });
});

describe('RIS', () => {
  it('tells the name of a periodical from its abbreviation, and one keyword from the next', () => {
    const periodical = (...lines: string[]) =>
      readFormat('ris', ['TY  - JOUR', 'TI  - T', ...lines, 'ER  - '].join('\n')).entries[0]!.record;
    const both = { 'container-title': 'Marsh Letters', 'container-title-short': 'Marsh Lett.' };
    expect(periodical('JO  - Marsh Lett.', 'JF  - Marsh Letters')).toMatchObject(both);
    expect(periodical('T2  - Marsh Letters', 'JO  - Marsh Lett.')).toMatchObject(both);
    expect(periodical('JO  - Marsh Lett.')).toMatchObject({ 'container-title': 'Marsh Lett.' });
    const same = periodical('T2  - Marsh Letters', 'JF  - Marsh Letters', 'JO  - Marsh Letters');
    expect(same).not.toHaveProperty('container-title-short');
    expect(same.retexa.kept).toEqual({});
    expect(periodical('KW  - silt; salt marsh ;', 'KW  - ponds').retexa.tags).toEqual([
      'silt',
      'salt marsh',
      'ponds',
    ]);
  });
  it.each([
    ['bibtex', '@book{a, title={T}, doi={https://doi.org/10.5555/Ab.1}}'],
    ['ris', 'TY  - BOOK\nTI  - T\nDO  - doi: 10.5555/Ab.1\nER  - '],
    ['csl-json', '[{"id": "a", "type": "book", "title": "T", "DOI": "http://dx.doi.org/10.5555%2FAb.1"}]'],
  ] as const)('reads a DOI bare from %s, however it is written there', (format, text) =>
    expect(readFormat(format, text).entries[0]!.record.DOI).toBe('10.5555/Ab.1'),
  );
  it('reads tags, wrapped lines, dates and a missing ER', () => {
    const { entries, skipped } = readFormat(
      'ris',
      'junk\r\nTY  - JOUR\r\nAU  - Ferreira, Ana\r\nA1  - Ng, Tsz Ho\r\nTI  - Salt marsh recovery\r\nbehind breached dams\r\nT2  - Marsh Letters\r\nDA  - 2021/11//\r\nPY  - 2021\r\nSP  - 7\r\nEP  - 24\r\nSN  - 0317-8471\r\nKW  - marsh\r\nZZ  - 1\r\nTY  - BOOK\r\nTI  - Two\r\nER  - \r\n',
    );
    expect(skipped).toMatchObject([{ line: 1 }]);
    expect(entries.map((e) => e.line)).toEqual([2, 15]);
    expect(entries[0]!.notes.join()).toContain('ER');
    expect(entries[0]!.record).toMatchObject({
      title: 'Salt marsh recovery behind breached dams',
      author: [{ family: 'Ferreira' }, { family: 'Ng' }],
      issued: { 'date-parts': [[2021, 11]] },
      page: '7-24',
      ISSN: '0317-8471',
      retexa: { tags: ['marsh'], kept: { ris: { ZZ: '1' } } },
    });
  });
});

describe('what RIS is unsure of', () => {
  const issued = (date: string) => {
    const [entry] = readFormat('ris', `TY  - BOOK\r\nTI  - T\r\nDA  - ${date}\r\nER  - \r\n`).entries;
    return [entry!.record.issued, entry!.notes];
  };
  it('takes a season where no month says more, and tells what it leaves out of a date', () => {
    expect(issued('2019///Spring')).toEqual([{ 'date-parts': [[2019]], season: 1 }, []]);
    expect(issued('2019/02/03/Spring')).toEqual([
      { 'date-parts': [[2019, 2, 3]] },
      ['“Spring” in DA is left out'],
    ]);
    expect(issued('2019/02//received')).toEqual([
      { 'date-parts': [[2019, 2]] },
      ['“received” in DA is left out'],
    ]);
  });
  it('writes plain text, and tells that italics and kept case stay behind', () => {
    const title = 'The <span class="nocase">pH</span> of <i>Zostera</i> where a < b';
    const record = sourceRecord.parse({ type: 'book', title });
    const { text, losses } = writeFormat('ris', [{ key: 'k', record }]);
    expect(text).toContain('TI  - The pH of Zostera where a < b\r\n');
    expect(losses).toMatchObject([
      { key: 'k', field: 'title', reason: expect.stringContaining('plain text') as string },
    ]);
  });
});

describe('CSL-JSON', () => {
  it('names the line of a bad item and of broken JSON', () => {
    const { entries, skipped } = readFormat(
      'csl-json',
      `[\n{"id":1,"type":"book","title":"A","shelf":"x"},\n{"id":2,"type":"book","title":"${'long '.repeat(2_000)}"}\n]`,
    );
    expect(entries[0]!.record.retexa.kept['csl-json']).toEqual({ shelf: '"x"' });
    expect(skipped).toMatchObject([{ line: 3 }]);
    expect(
      readFormat(
        'csl-json',
        '[{"id":1,"type":"book","title":"[a, {b"},\n 5 ,\n"x", {"id":2,"type":"book","title":"T"}]',
      ).skipped,
    ).toMatchObject([
      { line: 2, reason: 'not an item', text: expect.stringMatching(/^5/) as string },
      { line: 3, text: expect.stringMatching(/^"x"/) as string },
    ]);
    expect(readFormat('csl-json', '[{"a":\n}').skipped[0]?.reason).toContain('not valid JSON');
  });
});

describe('CSL-JSON as registries give it', () => {
  const read = (item: object) => readFormat('csl-json', JSON.stringify(item)).entries[0]!;
  it('is read, and what CSL has no place for is told', () => {
    const { record, notes } = read({
      id: 1,
      type: 'journal-article',
      title: ['Glasswort comes home'],
      author: [
        {
          given: 'Femi',
          family: 'Adeyemi',
          sequence: 'first',
          affiliation: [],
          ORCID: 'https://orcid.example/1',
        },
        { name: 'Silt Group', sequence: 'additional' },
        'Tully, J. Q.',
        {},
      ],
      'container-title': ['Shore Life', 'Shore L.'],
      ISSN: ['0317-8471', '2049-3630'],
      volume: 88,
      publisher: null,
      DOI: 'https://doi.org/10.5555/sl.88',
    });
    expect(record).toMatchObject({
      type: 'article-journal',
      title: 'Glasswort comes home',
      author: [
        { family: 'Adeyemi', given: 'Femi' },
        { literal: 'Silt Group' },
        { family: 'Tully', given: 'J. Q.' },
      ],
      'container-title': 'Shore Life',
      ISSN: '0317-8471, 2049-3630',
      volume: '88',
      DOI: '10.5555/sl.88',
    });
    expect(record.retexa.kept).toEqual({ 'csl-json': { 'container-title': '["Shore Life","Shore L."]' } });
    expect(notes).toEqual([
      'author: a creator without a name is left out',
      'author: sequence, ORCID left out',
    ]);
    const written = (r: SourceRecord) =>
      (JSON.parse(writeFormat('csl-json', [{ key: 'a', record: r }]).text) as Record<string, unknown>[])[0];
    expect(written(record)).toMatchObject({ 'container-title': ['Shore Life', 'Shore L.'] });
    expect(written({ ...record, 'container-title': 'Shore' })).toMatchObject({ 'container-title': 'Shore' });
    const { 'container-title': _taken, ...without } = record;
    expect(written(without)).not.toHaveProperty('container-title');
  });
  it('takes no name of a type from what every object has', () =>
    expect(read({ type: 'constructor', title: 'T' })).toMatchObject({
      record: { type: 'document' },
      notes: ['type “constructor” is not known; read as a document'],
    }));
  it('keeps a value of a shape no text has, and marks of names however they are said', () => {
    const { record } = read({
      type: 'book',
      title: { x: 1 },
      author: [{ family: 'Li', given: 'Wei', 'static-ordering': 'true', 'comma-suffix': 0 }],
    });
    expect(record).not.toHaveProperty('title');
    expect(record.retexa.kept).toEqual({ 'csl-json': { title: '{"x":1}' } });
    expect(record.author).toEqual([{ family: 'Li', given: 'Wei', 'static-ordering': true }]);
  });
});

describe('round trips', () => {
  const letters = fc
    .stringMatching(/^[A-ZÄÖÉŁŠ][a-zäöéçšøß]{1,8}$/)
    .filter((w) => !looksInstitutional(w) && !/^[JS]r$/.test(w));
  const words = fc
    .array(
      fc.oneof(
        letters,
        fc.constantFrom('of', 'and', '50%', 'R&D', 'x_1', '#2', '“so”', 'to–fro', '<i>Zostera</i>'),
      ),
      { minLength: 1, maxLength: 6 },
    )
    .map((w) => w.join(' '));
  const name = fc.oneof(
    fc.record({ family: letters, given: letters }),
    fc.record({
      'non-dropping-particle': fc.constantFrom('van der', 'de la', 'von'),
      family: letters,
      given: letters,
    }),
    fc.record({ family: letters, given: letters, suffix: fc.constantFrom('Jr.', 'III') }),
    letters.map((w) => ({ literal: `${w} University` })),
  );
  const date = fc
    .oneof(
      fc.tuple(fc.integer({ min: 1000, max: 2030 })),
      fc.tuple(fc.integer({ min: 1000, max: 2030 }), fc.integer({ min: 1, max: 12 })),
      fc.tuple(
        fc.integer({ min: 1000, max: 2030 }),
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 1, max: 28 }),
      ),
    )
    .map((parts) => ({ 'date-parts': [[...parts]] }));
  const record = fc
    .record(
      {
        type: fc.constantFrom('article-journal', 'book', 'chapter', 'report', 'thesis', 'paper-conference'),
        title: words,
        author: fc.array(name, { minLength: 1, maxLength: 3 }),
        editor: fc.array(name, { minLength: 1, maxLength: 2 }),
        issued: date,
        volume: fc.nat(99).map(String),
        page: fc.constantFrom('7-24', '112', 'e44'),
        publisher: words,
        'publisher-place': letters,
        DOI: fc.constantFrom('10.5555/a.b_c', '10.5555/x(1)'),
        abstract: words,
        language: fc.constantFrom('en', 'de-DE'),
      },
      { requiredKeys: ['type', 'title', 'author'] },
    )
    .map((r) => sourceRecord.parse(r));

  /** RIS holds plain text only. */
  const withoutMarkup = (r: SourceRecord) =>
    JSON.parse(JSON.stringify(r), (_key, value: unknown) =>
      typeof value === 'string' ? plain(value) : value,
    ) as SourceRecord;

  it.each(FORMAT_NAMES)('%s gives back what it holds', (format) => {
    fc.assert(
      fc.property(record, (made: SourceRecord) => {
        const r = format === 'ris' ? withoutMarkup(made) : made;
        const { text, losses } = writeFormat(format, [{ key: 'key1', record: r }]);
        const back = one(format, text);
        const expected: Record<string, unknown> = toCsl('key1', r);
        const actual: Record<string, unknown> = toCsl('key1', back.record);
        // BibTeX has no thesis without a degree, and says so.
        const told = format === 'bibtex' && r.type === 'thesis' ? ['genre'] : [];
        expect(losses.map((l) => l.field)).toEqual(told);
        for (const field of told) delete actual[field];
        expect(actual).toEqual(expected);
        expect(back.key).toBe('key1');
      }),
      { numRuns: 300 },
    );
  });
  const anyDate = fc.oneof(
    date,
    fc.tuple(date, date).map(([a, b]) => ({ 'date-parts': [a['date-parts'][0]!, b['date-parts'][0]!] })),
    fc
      .constantFrom(
        '2004/..',
        '../1998',
        '-0043',
        '199X',
        '1984?',
        '2004-21',
        '2004-06~',
        '1999-XX',
        'Y12004',
        '1771/1779~',
      )
      .map((edtf) => parseEdtf(edtf)!),
    fc.constant({ literal: 'reign of Edward' }),
  );
  const anyName = fc.oneof(
    name,
    letters.map((family) => ({ family })),
    fc.record({ 'dropping-particle': fc.constant('von'), family: letters, given: letters }),
    fc.record({ 'non-dropping-particle': fc.constant('al-'), family: letters }),
    fc.constantFrom<CslName>(
      { family: 'Ortega y Gasset', given: 'José' },
      { family: 'Mac Giolla Bhríde', given: 'Áine' },
      { family: 'Press' },
      { family: 'Two Words' },
      { given: 'Madonna' },
      { literal: 'Barnes and Noble, Inc.' },
      { literal: 'others' },
      { family: 'King', suffix: 'Jr.' },
      { family: 'Zee', given: 'M.', 'static-ordering': true },
    ),
  );
  const anyText = fc.oneof(
    words,
    fc.constantFrom(
      'a--b---c', "it's ``so''", '‘’x’’', 'x {y} $z$ ~ ^', 'A and B', 'P; Q', '<i>a <b>b</b></i>', 'The <span class="nocase">DNA</span> of it', 'two\nlines',
      'https://a.example/{x}?y=%7B', '3rd', 'Second', 'phdthesis', 'english', 'de', '1-5, 7, 9-12', '7-7', 'S1-S9', 'H<sub>2</sub>O\u00a0x', '\\alpha', '50% & #1_2',
    ),
  ); // prettier-ignore
  const anything = fc
    .tuple(
      fc.constantFrom(...CSL_TYPES),
      fc.dictionary(fc.constantFrom(...TEXT_VARIABLES, ...NUMBER_VARIABLES), anyText, { maxKeys: 8 }),
      fc.dictionary(fc.constantFrom(...NAME_VARIABLES), fc.array(anyName, { minLength: 1, maxLength: 3 }), { maxKeys: 4 }),
      fc.dictionary(fc.constantFrom(...DATE_VARIABLES), anyDate, { maxKeys: 3 }),
    )
    .map(([type, texts, names, dates]) => sourceRecord.parse({ type, ...texts, ...names, ...dates })); // prettier-ignore

  // Fields read in more spellings than one: an odd value in them may come back in the usual one, which reading back tells.
  const SPELLINGS = ['page', 'edition', 'genre', 'status', 'language', 'collection-title', 'jurisdiction', 'ISBN', 'ISSN', 'title-short', 'tags']; // prettier-ignore
  // The tables say every other loss themselves: reading the file back shows none besides.
  it.each(FORMAT_NAMES)('%s foresees all it loses, for any record', (format) => {
    fc.assert(
      fc.property(anything, (r: SourceRecord) => {
        const items = [{ key: 'key1', record: r }];
        const { text, losses } = FORMATS[format].write(items);
        expect(FORMATS[format].read(text).skipped).toEqual([]);
        const besides = unsaid(FORMATS[format], text, items, losses);
        expect(besides.filter((l) => !SPELLINGS.includes(l.field))).toEqual([]);
      }),
      { numRuns: 600 },
    );
  });
  // The short way round the schema says yes only to what the schema would give back unchanged.
  it('plainly a record means one the schema accepts as it is', () => {
    fc.assert(
      fc.property(anything, fc.constantFrom('', 'e\u0301', 'x'.repeat(9_000)), (r: SourceRecord, odd) => {
        const { retexa: _ours, ...fields } = r;
        const given = odd ? { ...fields, title: odd } : fields;
        if (plainlyRecord(given, {}, []))
          expect(sourceRecord.parse(given)).toEqual({ ...given, retexa: r.retexa });
        if (odd) expect(plainlyRecord(given, {}, [])).toBe(false);
      }),
      { numRuns: 400 },
    );
    expect(plainlyRecord({ type: 'book', title: 'T', author: [{ family: 'A' }] }, {}, ['t'])).toBe(true);
    expect(plainlyRecord({ type: 'book', author: [{}] }, {}, [])).toBe(false);
    expect(plainlyRecord({ type: 'book', issued: { 'date-parts': [[2001, 13]] } }, {}, [])).toBe(false);
    expect(plainlyRecord({ type: 'book', issued: { 'date-parts': [[2001, 1, 2, 3]] } }, {}, [])).toBe(false);
    expect(plainlyRecord({ type: 'book', issued: { 'date-parts': [[1], [2], [3]] } }, {}, [])).toBe(false);
    expect(plainlyRecord({ type: 'book', odd: 'x' }, {}, [])).toBe(false);
  });
  it.each(['bibtex', 'biblatex', 'ris'] as const)(
    '%s loses no keywords: they are written with the tags',
    (format) => {
      const record = sourceRecord.parse({
        type: 'book',
        title: 'T',
        keyword: 'tides; <i>Salicornia</i>, mills',
        retexa: { tags: ['mills', 'law'] },
      });
      const { text, losses } = writeFormat(format, [{ key: 'k', record }]);
      expect(losses).toEqual([]);
      expect(readFormat(format, text).entries[0]!.record.retexa.tags).toEqual([
        'mills',
        'law',
        'tides',
        'Salicornia',
      ]);
      expect(unsaid(FORMATS[format], text, [{ key: 'k', record }], losses)).toEqual([]);
    },
  );
  it('never throws on cut or shuffled files', () => {
    const sample = FORMAT_NAMES.map(
      (f) =>
        writeFormat(f, [{ key: 'k', record: sourceRecord.parse({ type: 'book', title: 'A {B}' }) }]).text,
    ).join('\n');
    fc.assert(
      fc.property(
        fc.constantFrom(...FORMAT_NAMES),
        fc.nat(sample.length),
        fc.nat(sample.length),
        fc.string(),
        (f, a, b, noise) => {
          readFormat(f, sample.slice(a) + noise + sample.slice(0, b));
        },
      ),
      { numRuns: 300 },
    );
  });
});

describe('sniffing', () => {
  it('tells formats by their content', () => {
    expect(sniff('[{"id":1}]')).toBe('csl-json');
    expect(sniff('\n@book{x, title={Y}}')).toBe('bibtex');
    expect(sniff('TY  - BOOK\n')).toBe('ris');
    expect(sniff('hello', 'refs.bib')).toBe('bibtex');
    expect(sniff('hello')).toBeUndefined();
  });
});
