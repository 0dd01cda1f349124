import { describe, expect, it } from 'vitest';
import { CSL_TYPES, sourceRecord, toCsl, type CslType, type SourceRecord } from '../source';
import { FIELD_RULES, NAME_RULES, TYPE_RULES, WRITE_AS, writeRule } from './bibtex/mapping';
import { readFormat, writeFormat, type FormatName } from './index';
import { TAG_RULES, TYPE_RULES as RIS_TYPES, writeRule as writeTag } from './ris/mapping';

const there = (format: FormatName, fields: Partial<SourceRecord> & { type: CslType }) => {
  const record = sourceRecord.parse(fields);
  const { text, losses } = writeFormat(format, [{ key: 'k', record }]);
  const { entries, skipped } = readFormat(format, text);
  expect(skipped).toEqual([]);
  expect(entries).toHaveLength(1);
  return { text, losses, back: entries[0]!.record };
};

describe.each(['bibtex', 'biblatex'] as const)('the .bib table serves both directions: %s', (dialect) => {
  const own = TYPE_RULES.filter((r) => r.write?.includes(dialect));
  it.each(own.map((r) => [r.bib, r.csl, r] as const))('@%s is %s', (bib, csl, rule) => {
    const { text, back, losses } = there(dialect, {
      type: csl,
      title: 'T',
      ...(rule.genre ? { genre: rule.genre } : {}),
    });
    expect(text).toContain(`@${bib}{`);
    expect(losses).toEqual([]);
    expect(back.type).toBe(csl);
    expect(back.genre).toBe(rule.genre);
  });
  const cases = FIELD_RULES.flatMap((rule) =>
    (rule.types ?? (['book'] as CslType[]))
      .slice(0, 2)
      .filter((t) => writeRule(rule.csl, t, dialect) === rule && own.some((r) => r.csl === t))
      .map((type) => [type, rule.bib, rule.csl] as const),
  );
  it.each(cases)('%s: %s is %s', (type, bib, csl) => {
    const value =
      csl === 'page'
        ? '3-9'
        : csl === 'DOI'
          ? '10.5555/a_b'
          : csl === 'URL'
            ? 'https://a.example/x_y?z=1%20#f'
            : 'Value & 5% “so”';
    const { text, back, losses } = there(dialect, { type, title: 'T', genre: 'G', [csl]: value });
    expect(losses).toEqual([]);
    if (csl !== 'volume-title') expect(text).toMatch(new RegExp(`^  ${bib} = `, 'm'));
    expect(back[csl]).toBe(value);
  });
  it.each(NAME_RULES.map((r) => [r.bib, r.csl] as const))('%s is %s', (bib, csl) => {
    const names = [
      { family: 'Zee', 'non-dropping-particle': 'van der', given: 'M.' },
      { literal: 'Bread and Water Board' },
      { family: 'Tully', given: 'J.', suffix: 'Jr.' },
      { family: 'Ortega y Gasset', given: 'José' },
      { family: 'Wulfstan' },
      { family: 'de Souza', given: 'Ana, and Co' },
    ];
    const { text, back, losses } = there(dialect, { type: 'book', [csl]: names });
    expect(text).toContain(`  ${bib} = {`);
    expect(back[csl]).toEqual(names);
    expect(losses).toEqual([]);
  });
  it('writes every CSL type as some entry, and says when it is not its own', () => {
    for (const type of CSL_TYPES) {
      const { losses } = there(dialect, { type, title: 'T', ...(type === 'thesis' ? { genre: 'G' } : {}) });
      const has = dialect === 'biblatex' || own.some((r) => r.csl === type);
      expect(
        losses.some((l) => l.field === 'type'),
        type,
      ).toBe(!has);
      if (dialect === 'bibtex' && WRITE_AS[type]) expect(has, type).toBe(false);
    }
  });
  it('keeps dates of every kind', () => {
    for (const issued of [
      { 'date-parts': [[1771], [1779]] },
      { 'date-parts': [[900]], circa: true },
      { 'date-parts': [[1998]], season: 1 },
      { literal: 'reign of Edward' },
      { 'date-parts': [[-44, 3, 15]] },
      { 'date-parts': [[2004]], edtf: '2004/..' },
      { 'date-parts': [[1990], [1999]], edtf: '199X' },
      { 'date-parts': [[1984, 6]], circa: true, edtf: '1984-06?' },
    ])
      expect(there(dialect, { type: 'book', title: 'T', issued }).back.issued).toEqual(issued);
  });
});

describe('BibTeX as it is met', () => {
  const read = (text: string) => readFormat('bibtex', text);
  // Entries in the manner of btxdoc (Patashnik, "BibTeXing", 1988, sections 3 and 4): its forms, with invented works.
  it.each([
    [
      'a number for a month',
      '@article{a, title={T}, year=1998, month=3}',
      { issued: { 'date-parts': [[1998, 3]] } },
    ],
    [
      'a macro and a day',
      '@article{a, title={T}, year=1998, month = "10~" # jul}',
      { issued: { 'date-parts': [[1998, 7, 10]] } },
    ],
    [
      'a month in words',
      '@article{a, title={T}, year=1998, month={August}}',
      { issued: { 'date-parts': [[1998, 8]] } },
    ],
    [
      'a biblatex date',
      '@book{a, title={T}, date={2004-06/2006}}',
      { issued: { 'date-parts': [[2004, 6], [2006]] } },
    ],
    ['a year that is none', '@book{a, title={T}, year={in press}}', { issued: { literal: 'in press' } }],
    ['pages with two hyphens, a dash, spaces', '@article{a, title={T}, pages={7 -- 24}}', { page: '7-24' }],
    [
      'an address with TeX’s escapes',
      '@misc{a, title={T}, url={https://a.example/x\\_y\\%20z}}',
      { URL: 'https://a.example/x_y%20z', type: 'webpage' },
    ],
    [
      'an address in howpublished',
      '@misc{a, title={T}, howpublished={\\url{https://a.example/x}}}',
      { URL: 'https://a.example/x', type: 'webpage' },
    ],
    [
      'a value in quotes with braces',
      '@book{a, title = "The {"}quoted{"} mill"}',
      { title: 'The <span class="nocase">"</span>quoted' },
    ],
    [
      'keywords',
      '@book{a, title={T}, keywords={marsh; dams, law}}',
      { retexa: expect.objectContaining({ tags: ['marsh', 'dams', 'law'] }) as never },
    ],
    [
      'a master’s thesis',
      '@mastersthesis{a, title={T}, school={S}}',
      { type: 'thesis', genre: 'Master’s thesis', publisher: 'S' },
    ],
    [
      'a report',
      '@techreport{a, title={T}, institution={I}, number={7}}',
      { type: 'report', publisher: 'I', number: '7' },
    ],
    ['no key', '@book{, title={T}}', { title: 'T' }],
  ])('reads %s', (name, text, expected) => {
    const { entries, skipped } = read(text);
    expect(skipped).toEqual([]);
    if (name.startsWith('a value in quotes')) expect(entries[0]!.record.title).toContain('quoted');
    else expect(entries[0]!.record).toMatchObject(expected);
  });
  it('notes what it reads otherwise than written', () => {
    const { entries } = read('@unheard{a, title={T}, title={U}, year=nov2, author={A. One and others}}');
    expect(entries[0]!.notes.join('\n')).toMatch(/unheard[\s\S]*/);
    expect(entries[0]!.notes).toEqual(
      expect.arrayContaining([
        expect.stringContaining('given twice'),
        expect.stringContaining('nov2'),
        expect.stringContaining('others'),
        expect.stringContaining('unheard'),
      ]),
    );
    expect(entries[0]!.record.title).toBe('T');
  });
  it('says of each broken entry where it is and why, and goes on', () => {
    const text = [
      '@book{a title={x}}',
      '@book{b, title}',
      '@book{c, title=}',
      '@book{d, title={x} year=1}',
      '@book{ok, title={Fine}}',
      '@book{e, title={x',
    ].join('\n');
    const { entries, skipped } = read(text);
    expect(entries.map((e) => e.key)).toEqual(['ok']);
    expect(skipped.map((s) => [s.line, s.reason])).toEqual([
      [1, expect.stringContaining('comma')],
      [2, expect.stringContaining('=')],
      [3, expect.stringContaining('value')],
      [4, expect.stringContaining('comma')],
      [6, expect.stringContaining('never closed')],
    ]);
  });
  it('is not stopped by ten thousand braces or one very long line', () => {
    expect(read(`@book{a, title=${'{'.repeat(10_000)}`).skipped).toHaveLength(1);
    const long = `@book{a, title={${'tide '.repeat(1_000)}}} ${'@'.repeat(50_000)} @book{b, title={B}}`;
    expect(read(long).entries.map((e) => e.key)).toContain('b');
  });
});

describe('the RIS table serves both directions', () => {
  it.each(RIS_TYPES.filter(([tag, csl]) => RIS_TYPES.find(([, c]) => c === csl)![0] === tag))(
    'TY %s is %s',
    (tag, csl) => {
      const { text, back, losses } = there('ris', { type: csl, title: 'T' });
      expect(text).toContain(`TY  - ${tag}\r\n`);
      expect(back.type).toBe(csl);
      expect(losses).toEqual([]);
    },
  );
  const cases = TAG_RULES.filter((r) => !r.read).flatMap((rule) =>
    (rule.types ?? (['report'] as CslType[]))
      .slice(0, 1)
      .filter((t) => writeTag(rule.csl, t) === rule && RIS_TYPES.some(([, c]) => c === t))
      .map((type) => [type, rule.tag, rule.csl] as const),
  );
  it.each(cases)('%s: %s is %s', (type, tag, csl) => {
    const { text, back } = there('ris', { type, [csl]: 'Value – “so”' });
    expect(text).toContain(`${tag}  - Value`);
    expect(back[csl]).toBe('Value – “so”');
  });
  // Date form YYYY/MM/DD/other info: RIS format specification, tags Y1 and PY.
  it.each([
    ['2021/11/03/', { 'date-parts': [[2021, 11, 3]] }],
    ['2021/11//', { 'date-parts': [[2021, 11]] }],
    ['2021///', { 'date-parts': [[2021]] }],
    ['2021///Spring', { 'date-parts': [[2021]], season: 1 }],
    ['2021', { 'date-parts': [[2021]] }],
    ['2021-11-03', { 'date-parts': [[2021, 11, 3]] }],
  ])('reads the date %s', (text, issued) => {
    expect(readFormat('ris', `TY  - BOOK\r\nDA  - ${text}\r\nER  - \r\n`).entries[0]!.record.issued).toEqual(
      issued,
    );
  });
  it('reads line ends of every kind and tags without a value', () => {
    for (const end of ['\r\n', '\n', '\r'])
      expect(
        readFormat('ris', ['TY  - JOUR', 'TI  - T', 'AB  -', 'KW  - a', 'KW  - b', 'ER  -'].join(end))
          .entries[0]!.record,
      ).toMatchObject({ title: 'T', retexa: { tags: ['a', 'b'] } });
  });
  it('tells ISSN from ISBN by their check digits', () => {
    const both = readFormat('ris', 'TY  - CHAP\nSN  - 0317-8471\nSN  - 978-0-306-40615-7\nER  - \n')
      .entries[0]!.record;
    expect(both).toMatchObject({ ISSN: '0317-8471', ISBN: '978-0-306-40615-7' });
  });
  it('says what RIS cannot hold', () => {
    const { losses } = there('ris', {
      type: 'performance',
      title: 'T',
      director: [{ family: 'D' }],
      issued: { 'date-parts': [[1771], [1779]] },
      'event-date': { 'date-parts': [[1771]] },
      scale: '1:2',
    });
    expect(losses.map((l) => l.field).sort()).toEqual(['director', 'event-date', 'issued', 'scale', 'type']);
  });
});

describe('CSL-JSON holds everything', () => {
  it('reads the looser forms that are met', () => {
    const text = JSON.stringify([
      {
        id: 7,
        type: 'book',
        title: 'T',
        volume: 3,
        issued: { 'date-parts': [['2021', '11']] },
        accessed: { raw: '3 March 2026' },
      },
      {
        id: 'b',
        type: 'nonsense',
        issued: '2004/2006',
        author: [{ family: 'Zee', 'comma-suffix': true }],
        custom: { a: 1 },
        'x-own': [1],
      },
    ]);
    const { entries, skipped } = readFormat('csl-json', text);
    expect(skipped).toEqual([]);
    expect(entries[0]).toMatchObject({
      key: '7',
      record: {
        volume: '3',
        issued: { 'date-parts': [[2021, 11]] },
        accessed: { 'date-parts': [[2026, 3, 3]] },
      },
    });
    expect(entries[1]!.record).toMatchObject({
      type: 'document',
      issued: { 'date-parts': [[2004], [2006]] },
      custom: { a: 1 },
    });
    expect(entries[1]!.notes[0]).toContain('nonsense');
    const again = JSON.parse(
      writeFormat('csl-json', [{ key: 'b', record: entries[1]!.record }]).text,
    ) as Record<string, unknown>[];
    expect(again[0]).toMatchObject({ id: 'b', custom: { a: 1 }, 'x-own': [1] });
  });
  it('gives every variable back', () => {
    const record = sourceRecord.parse({
      type: 'song',
      title: '<i>A</i>',
      composer: [{ literal: 'X' }],
      'available-date': { 'date-parts': [[1958, 2]] },
      dimensions: '3 min',
      'part-number': '2',
    });
    const { back, losses } = there('csl-json', record);
    expect(losses).toEqual([]);
    expect(toCsl('k', back)).toEqual(toCsl('k', record));
  });
});
