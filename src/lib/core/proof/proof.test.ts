import { describe, expect, it } from 'vitest';
import { sourceRecord, withEdit, type SourceRecord } from '../source';
import { readFormat } from '../formats';
import { editionNumber } from './checks/edition';
import { proof } from './index';

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
