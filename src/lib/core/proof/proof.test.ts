import { describe, expect, it } from 'vitest';
import { sourceRecord, withEdit, type SourceRecord } from '../source';
import { readFormat } from '../formats';
import { editionNumber } from './checks/edition';
import { checkedOf, CHECKS_MADE, letStand, mended, proof, proofAround, withSic } from './index';

const record = (fields: Partial<SourceRecord>) => sourceRecord.parse({ type: 'book', ...fields });
const whole: Partial<SourceRecord> = {
  title: 'Dredging and the law of the foreshore',
  author: [{ family: 'Brandt', given: 'Hanne' }],
  issued: { 'date-parts': [[2011]] },
  publisher: 'Foreshore Press',
};
const checks = (r: SourceRecord) => proof(r).map((f) => f.check);

describe('proof', () => {
  it('has nothing to say of a complete record', () => expect(proof(record(whole))).toEqual([]));
  it('finds a missing title, creator, date and publisher', () => {
    expect(checks(record({}))).toEqual([
      'title-missing',
      'publisher-missing',
      'author-missing',
      'issued-missing',
    ]);
  });
  it.each([
    ['title-capitals', { title: 'DREDGING AND THE LAW OF THE FORESHORE' }],
    ['edition-words', { edition: '3rd ed.' }],
    ['page-form', { page: 'pp. 7–24' }],
    ['doi-form', { DOI: 'https://doi.org/10.5555/x.1' }],
  ] as const)('%s goes away with its own fix', (check, fields) => {
    const r = record({ ...whole, ...fields });
    const finding = proof(r).find((f) => f.check === check);
    const fixed = withEdit(r, finding!.fix!.edit, '2026-01-01T00:00:00Z');
    expect(checks(fixed)).not.toContain(check);
  });
  const article: Partial<SourceRecord> = {
    ...whole,
    type: 'article-journal',
    'container-title': 'Marsh Letters',
    volume: '3',
    page: '7-24',
  };
  const seen = (year: number, kind: 'dublin-core' | 'registry') => ({
    kind,
    value: { 'date-parts': [[year]] },
    at: '2026-01-01T00:00:00Z',
  });
  const webArticle: Partial<SourceRecord> = { ...article, issue: '2', URL: 'https://a.example' };
  it.each<[check: string, fields: Partial<SourceRecord>, mended: Partial<SourceRecord>]>([
    ['capitals', { publisher: 'FORESHORE PRESS' }, { publisher: 'Foreshore Press' }],
    ['title-stop', { title: 'Dredging and the foreshore.' }, { title: 'Dredging and the foreshore' }],
    ['title-quoted', { title: '“Dredging and the foreshore”' }, { title: 'Dredging and the foreshore' }],
    ['markup', { title: 'Dredging &amp; the foreshore' }, { title: 'Dredging & the foreshore' }],
    ['title-site', { title: 'Dredging today | Foreshore Press' }, { title: 'Dredging today' }],
    [
      'title-colon',
      { title: 'The law of the foreshore: a history' },
      { title: 'The law of the foreshore: A history' },
    ],
    ['title-spaces', { title: 'Dredging  and the foreshore' }, { title: 'Dredging and the foreshore' }],
    ['title-short', { 'title-short': `${whole.title!} and more` }, {}],
    ['name-etal', { author: [...whole.author!, { literal: 'et al.' }] }, {}],
    ['name-by', { author: [{ family: 'Brandt', given: 'By Hanne' }] }, {}],
    ['name-degree', { author: [{ family: 'Brandt', given: 'Dr. Hanne' }] }, {}],
    ['name-degree', { author: [{ family: 'Brandt, PhD', given: 'Hanne' }] }, {}],
    [
      'name-unsplit',
      { author: [{ literal: 'Hanne Brandt and Uwe Thode' }] },
      { author: [...whole.author!, { family: 'Thode', given: 'Uwe' }] },
    ],
    ['name-capitals', { author: [{ family: 'BRANDT', given: 'Hanne' }] }, {}],
    [
      'name-institution',
      { author: [{ family: 'Council', given: 'Harbour' }] },
      { author: [{ literal: 'Harbour Council' }] },
    ],
    [
      'name-swapped',
      { author: [{ family: 'H.', given: 'Brandt' }] },
      { author: [{ family: 'Brandt', given: 'H.' }] },
    ],
    ['name-whole', { author: [{ literal: 'Brandt, Hanne' }] }, {}],
    ['name-twice', { author: [...whole.author!, ...whole.author!] }, {}],
    [
      'editor-as-author',
      { author: [{ family: 'Brandt', given: 'Hanne (ed.)' }] },
      { author: undefined, editor: whole.author },
    ],
    ['editor-and-author', { editor: whole.author }, {}],
    ['nobody', { author: [...whole.author!, { literal: 'Anonymous' }] }, {}],
    ['date-none', { issued: { literal: 'n.d.' } }, { issued: undefined }],
    [
      'date-upload',
      {
        retexa: {
          origins: { issued: [seen(2011, 'dublin-core'), seen(1998, 'registry')] },
          tags: [],
          kept: {},
        },
      },
      { issued: { 'date-parts': [[1998]] } },
    ],
    [
      'date-range',
      { 'event-date': { 'date-parts': [[2012], [2011]] } },
      { 'event-date': { 'date-parts': [[2011], [2012]] } },
    ],
    [
      'original-later',
      { 'original-date': { 'date-parts': [[2015]] } },
      { issued: { 'date-parts': [[2015]] }, 'original-date': { 'date-parts': [[2011]] } },
    ],
    ['page-reversed', { ...article, page: '24-17' }, { ...article, page: '17-24' }],
    ['page-short', { ...article, page: '123-7' }, { ...article, page: '123-127' }],
    ['page-open', { ...article, page: '12-' }, { ...article, page: '12' }],
    ['page-letters', { ...article, page: '1O4-l12' }, { ...article, page: '104-112' }],
    ['page-length', { page: 'xii, 312 pp.' }, { 'number-of-pages': '312' }],
    ['number-words', { ...article, volume: 'Vol. 3' }, { ...article, volume: '3' }],
    ['volume-issue', { ...article, volume: '12(3)' }, { ...article, volume: '12', issue: '3' }],
    ['volume-swapped', { ...article, volume: '2', issue: '48' }, { ...article, volume: '48', issue: '2' }],
    ['edition-first', { edition: '1st' }, {}],
    ['doi-address', { URL: 'https://doi.org/10.5555/x.1' }, { DOI: '10.5555/x.1' }],
    ['doi-resolver', { DOI: '10.5555/x.1', URL: 'http://dx.doi.org/10.5555/x.1' }, { DOI: '10.5555/x.1' }],
    ['issn-form', { ISSN: '03178471' }, { ISSN: '0317-8471' }],
    ['pmid-form', { PMID: 'PMID: 1234567' }, { PMID: '1234567' }],
    ['pmcid-form', { PMCID: '1234567' }, { PMCID: 'PMC1234567' }],
    ['address-form', { URL: 'press.example/dredging' }, { URL: 'https://press.example/dredging' }],
    [
      'address-visit',
      { URL: 'https://press.example/d;jsessionid=8A?id=4&utm_source=mail' },
      { URL: 'https://press.example/d?id=4' },
    ],
    ['publisher-place-in', { publisher: 'Skerry: Foreshore Press' }, { 'publisher-place': 'Skerry' }],
    ['publisher-in-place', { 'publisher-place': 'Skerry: Foreshore Press' }, { 'publisher-place': 'Skerry' }],
    ['publisher-address', { publisher: 'Foreshore Press, 12 Quay Street, 90210 Skerry' }, {}],
    ['publisher-form', { publisher: 'Foreshore Press, Ltd.' }, {}],
    ['placeholder', { edition: 'n/a' }, {}],
    ['language-form', { language: 'English' }, { language: 'en' }],
    ['language-other', { language: 'de' }, { language: 'en' }],
    [
      'language-unsaid',
      { title: 'Die Gezeitenmühlen und das Recht der Küste' },
      { title: 'Die Gezeitenmühlen und das Recht der Küste', language: 'de' },
    ],
    ['kind', { ...webArticle, type: 'webpage' }, webArticle],
  ])('%s is mended by its own fix', (check, fields, after) => {
    const r = record({ ...whole, ...fields });
    const finding = proof(r).find((f) => f.check === check);
    const fixed = withEdit(r, finding!.fix!.edit, '2026-01-01T00:00:00Z');
    const { retexa: _of, ...values } = fixed;
    const { retexa: _ours, ...wanted } = record({ ...whole, ...after });
    expect(values).toEqual(wanted);
    expect(checks(fixed)).not.toContain(check);
  });
  it.each<[check: string, fields: Partial<SourceRecord>]>([
    ['title-file', { title: 'scan_0042.pdf' }],
    ['title-container', { ...article, title: 'Marsh Letters' }],
    ['retracted', { title: 'RETRACTED: Dredging and the foreshore' }],
    ['correction', { title: 'Erratum to: Dredging and the foreshore' }],
    ['name-role', { author: [{ family: 'Brandt', given: 'Hanne (ed.)' }] }],
    ['name-address', { author: [{ family: 'hanne@press.example' }] }],
    ['name-part', { author: [{ family: 'Hanne' }] }],
    ['date-future', { issued: { 'date-parts': [[2031]] } }],
    ['date-early', { issued: { 'date-parts': [[201]] } }],
    ['date-words', { issued: { literal: 'some time after the war' } }],
    [
      'date-visit',
      {
        type: 'webpage',
        URL: 'https://a.example',
        issued: { 'date-parts': [[2026, 3, 4]] },
        accessed: { 'date-parts': [[2026, 3, 4]] },
      },
    ],
    ['accessed-early', { accessed: { 'date-parts': [[2010, 3, 4]] } }],
    ['place-address', { 'publisher-place': '12 Quay Street, 90210 Skerry' }],
    ['address-own', { URL: 'http://localhost:8080/a.pdf' }],
    ['address-proxy', { URL: 'https://press-example.proxy.university.example/d' }],
    ['address-search', { URL: 'https://find.example/search?q=dredging' }],
  ])('%s is found', (check, fields) => {
    expect(proof(record({ ...whole, ...fields }), { year: 2026 }).map((f) => f.check)).toContain(check);
  });
  it.each<[what: string, fields: Partial<SourceRecord>]>([
    ['an abbreviation at the end of a title', { title: 'Letters from Pell & Sons Co.' }],
    ['a French colon', { title: 'Les moulins de la côte : une histoire', language: 'fr' }],
    ['part of a title in quotation marks', { title: '“Dredging” and the foreshore' }],
    ['a tag of our own', { title: 'What <i>Zostera</i> left & took' }],
    [
      'one who had one name',
      { author: [{ family: 'Wulfstan' }], issued: { 'date-parts': [[900]], circa: true }, type: 'classic' },
    ],
    ['a name in a script that parts none', { author: [{ family: '山田太郎' }] }],
    ['a firm that is called after several', { author: [{ literal: 'Pell & Sons' }] }],
    ['initials that are no degree', { author: [{ family: 'Brandt', given: 'M. D.' }] }],
    ['a particle', { author: [{ family: 'Brandt', given: 'Hanne', 'non-dropping-particle': 'von' }] }],
    ['a DOI with brackets of its kind', { DOI: '10.5555/(SICI)1096(1998)19:4<377::AID-1>3.0.CO;2-P' }],
    ['pages of a supplement', { ...article, page: 'S12-S18' }],
    ['a year of access', { accessed: { 'date-parts': [[2011]] } }],
    ['a title in the language it says', { title: 'Dressing a millstone: A practical guide', language: 'en' }],
    [
      'an account book that nobody signed',
      { type: 'manuscript', title: 'Account book of the mill', author: undefined },
    ],
    ['a standard without author', { type: 'standard', number: '12', author: undefined }],
  ])('has nothing to say of %s', (_, fields) => {
    expect(checks(record({ ...whole, ...fields }))).toEqual([]);
  });
  it('looks for at least 45 things, and says of each what and why', () => {
    expect(CHECKS_MADE).toBeGreaterThanOrEqual(45);
    expect(checkedOf('name-by:editor').name).toBe('“By” before a name');
    expect(checkedOf('publisher-missing').name).toBe('Publisher missing');
    expect(checkedOf('publisher-place-asked').why).toContain('lacks it');
  });
  it('lets stand what somebody lets stand, as long as the value stays', () => {
    const r = record({ ...whole, title: 'DREDGING AND THE FORESHORE' });
    const [finding] = proof(r);
    const stands = withSic(r, finding!.check, finding);
    expect(proof(stands)).toEqual([]);
    expect(letStand(stands, finding!)).toBe(true);
    expect(checks({ ...stands, title: 'DREDGING AND THE SHORE' })).toEqual(['title-capitals']);
    expect(checks(withSic(stands, finding!.check, undefined))).toEqual(['title-capitals']);
    expect(sourceRecord.parse(stands)).toEqual(stands);
  });
  it('mends what is wrong in several ways at once, and leaves questions', () => {
    const r = record({ ...whole, title: '“DREDGING AND THE  FORESHORE.”', edition: '1', page: 'pp. 3–4' });
    expect(mended(r)).toEqual({ title: 'Dredging and the foreshore', page: '3-4' });
  });
  it('asks what stands around a record', () => {
    const page = record({
      type: 'webpage',
      title: 'Dressing a Millstone With Tools That Nobody Makes',
      URL: 'https://a.example',
    });
    const found = proofAround(page, {
      missing: ['author'],
      asks: ['accessed'],
      titleAsItStands: true,
      captured: [2026, 3, 4],
      copies: 0,
      placeless: 2,
      versionOfRecord: { id: 'x', label: 'Pell 1990' },
      spelled: [{ field: 'author', here: 'Pell, M.', elsewhere: 'Pell, Margaret' }],
    });
    expect(found.map((f) => f.check)).toEqual([
      'author-asked',
      'accessed-missing',
      'title-case',
      'version-of-record',
      'spelled-otherwise',
      'place-unsaid',
      'copy-missing',
    ]);
    expect(found[1]!.fix!.edit).toEqual({ accessed: { 'date-parts': [[2026, 3, 4]] } });
    expect(found[2]!.fix!.edit).toEqual({ title: 'Dressing a millstone with tools that nobody makes' });
    expect(proofAround(page, {})).toEqual([]);
  });
  it('checks digits', () => {
    expect(checks(record({ ...whole, ISBN: '978-0-306-40615-8' }))).toEqual(['isbn-invalid']);
    expect(checks(record({ ...whole, ISSN: '0317-8472', DOI: 'none' }))).toEqual([
      'doi-invalid',
      'issn-invalid',
    ]);
  });
  it('says that a file names not all the authors, until one is added', () => {
    const { entries } = readFormat(
      'bibtex',
      '@book{b, author={Hanne Brandt and Uwe Thode and others}, title={Foreshores}, publisher={P}, year=2011}',
    );
    const r = entries[0]!.record;
    expect(proof(r)).toMatchObject([{ check: 'author-others', pencil: 'red', field: 'author' }]);
    const [brandt, thode] = r.author!;
    const edited = (author: unknown) => withEdit(r, { author }, '2026-01-01T00:00:00Z');
    expect(checks(edited([{ ...brandt, given: 'H.' }, thode]))).toEqual(['author-others']);
    expect(checks(edited([brandt, thode, { family: 'Moor', given: 'A.' }]))).toEqual([]);
  });
  it('reads edition statements and leaves others as they are', () => {
    expect(['3rd ed.', 'Third edition', '2. Aufl.', '4', 'Revised edition'].map(editionNumber)).toEqual([
      '3',
      '3',
      '2',
      '4',
      undefined,
    ]);
    expect(checks(record({ ...whole, edition: 'Revised' }))).toEqual([]);
  });
  it('takes an article number for pages', () => {
    const article = {
      ...whole,
      type: 'article-journal' as const,
      'container-title': 'Marsh Letters',
      volume: '3',
    };
    expect(checks(record(article))).toEqual(['page-missing']);
    expect(checks(record({ ...article, number: 'e112' }))).toEqual([]);
  });
});
