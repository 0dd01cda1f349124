import { describe, expect, it } from 'vitest';
import { dateText, parseDate, parseEdtf, typedDate } from './index';

describe('EDTF', () => {
  // Examples of the EDTF specification of the Library of Congress (2019), which is ISO 8601-2 annex A, and what CSL holds of each.
  it.each([
    ['1985-04-12', { 'date-parts': [[1985, 4, 12]] }],
    ['1985-04', { 'date-parts': [[1985, 4]] }],
    ['1985-04-12T23:20:30Z', { 'date-parts': [[1985, 4, 12]] }],
    ['1964/2008', { 'date-parts': [[1964], [2008]] }],
    ['2004-02-01/2005', { 'date-parts': [[2004, 2, 1], [2005]] }],
    ['Y170000002', { 'date-parts': [[170000002]] }],
    ['2001-21', { 'date-parts': [[2001]], season: 1 }],
    ['1984?', { 'date-parts': [[1984]], circa: true, edtf: '1984?' }],
    ['2004-06~', { 'date-parts': [[2004, 6]], circa: true }],
    ['2004-06-11%', { 'date-parts': [[2004, 6, 11]], circa: true, edtf: '2004-06-11%' }],
    ['201X', { 'date-parts': [[2010], [2019]], edtf: '201X' }],
    ['20XX', { 'date-parts': [[2000], [2099]], edtf: '20XX' }],
    ['2004-XX', { 'date-parts': [[2004]], edtf: '2004-XX' }],
    ['1985-04-XX', { 'date-parts': [[1985, 4]], edtf: '1985-04-XX' }],
    ['1985-04-12/..', { 'date-parts': [[1985, 4, 12]], edtf: '1985-04-12/..' }],
    ['1985/', { 'date-parts': [[1985]], edtf: '1985/' }],
    ['../1985-04-12', { 'date-parts': [[1985, 4, 12]], edtf: '../1985-04-12' }],
    ['-1985', { 'date-parts': [[-1986]] }],
    ['0000', { 'date-parts': [[-1]] }],
    ['2001-34', { 'date-parts': [[2001]], edtf: '2001-34' }],
  ])('%s', (text, date) => {
    expect(parseEdtf(text)).toEqual(date);
    expect(parseEdtf(dateText(date))).toEqual(date);
  });
  it.each(['2021-13', '2021-02-30', '12', 'X', '2021/x', 'spring', '', '1/2/3'])('%s is none', (text) =>
    expect(parseEdtf(text)).toBeUndefined(),
  );
  it('is what a person may type for a date', () => {
    expect(typedDate('199X')).toMatchObject({ edtf: '199X' });
    expect(parseDate('1998/..')).toMatchObject({ edtf: '1998/..' });
  });
});
