import { describe, expect, it } from 'vitest';
import { dateText, parseDate, typedDate } from './index';

describe('a date written by hand', () => {
  // What each stands for is a date of ISO 8601-2:2019 (EDTF): approximate ~, doubted ?, seasons 21 to 24, quarters 33 to 36, digits
  // not known X, an open end “..”, and the year 1 BC as 0. The spellings are common practice.
  it.each([
    ['c. 1890', '1890~'],
    ['ca.1890', '1890~'],
    ['c1890', '1890~'],
    ['about 1890', '1890~'],
    ['um 1890', '1890~'],
    ['[1890]', '1890'],
    ['[1890?]', '1890?'],
    ['[c. 1890]', '1890~'],
    ['c. 1890?', '1890%'],
    ['© 2019', '2019'],
    ['Spring 2019', '2019-21'],
    ['2019, Fall', '2019-23'],
    ['Herbst 2019', '2019-23'],
    ['Q1 2019', '2019-33'],
    ['4th quarter 2019', '2019-36'],
    ['1850s', '185X'],
    ['the 1850s', '185X'],
    ['19th century', '18XX'],
    ['19. Jahrhundert', '18XX'],
    ['1990–1995', '1990/1995'],
    ['1990–95', '1990/1995'],
    ['1990/91', '1990/1991'],
    ['1990-', '1990/..'],
    ['1985–present', '1985/..'],
    ['since 1985', '1985/..'],
    ['before 1850', '../1850'],
    ['from 1985 to 1990', '1985/1990'],
    ['c. 1850–1860', '1850/1860~'],
    ['March–April 2019', '2019-03/2019-04'],
    ['Mar-Apr 2019', '2019-03/2019-04'],
    ['Dec 2018–Jan 2019', '2018-12/2019-01'],
    ['12–14 March 2019', '2019-03-12/2019-03-14'],
    ['March 12-14, 2019', '2019-03-12/2019-03-14'],
    ['30 March – 2 April 2019', '2019-03-30/2019-04-02'],
    ['Mon, 12 Mar 2019', '2019-03-12'],
    ['12 de marzo de 2019', '2019-03-12'],
    ['1er mai 1999', '1999-05-01'],
    ['3/2019', '2019-03'],
    ['2019年3月12日', '2019-03-12'],
    ['2019년 3월', '2019-03'],
    ['44 BC', '-0043'],
    ['300–250 BC', '-0299/-0249'],
    ['AD 500', '0500'],
    ['12 v. Chr.', '-0011'],
  ])('%s is read whole, and back from what it is written as', (text, edtf) => {
    const date = typedDate(text)!;
    expect(dateText(date)).toBe(edtf);
    expect(parseDate(text)).toEqual(date);
    expect(typedDate(edtf)).toEqual(date);
  });

  it('is not found in a sentence by a word that is a month elsewhere', () => {
    for (const text of ['Set in 1999', 'checked out 2019', 'long ago, 1850']) {
      expect(parseDate(text)).toEqual({ 'date-parts': [[Number(/\d{4}/.exec(text)![0])]] });
      expect(typedDate(text)).toEqual({ literal: text });
    }
  });

  it.each([
    'n.d.',
    'in press',
    'early 1850s',
    'mid-19th century',
    'between 1850 and 1860',
    'Winter 2018/19',
    'Michaelmas 2019',
    '1789 [1799]',
    'reprinted 1960',
    'late 1990',
    '1995–1990',
    '12 March',
    '3 4 1999',
    '31 April 2019',
    'vol. 3, 1999',
  ])('%s stays as it stands, and is not cut to a part of it', (text) =>
    expect(typedDate(text)).toEqual({ literal: text }),
  );
});
