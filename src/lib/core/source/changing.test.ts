import { describe, expect, it } from 'vitest';
import { changeProblem, fieldChanged, type FieldChange } from './changing';
import { sourceRecord } from './schema';

const record = sourceRecord.parse({
  type: 'article-journal',
  title: 'Tide mills, a review (part 1)',
  'container-title': 'J. of Tides',
  author: [{ family: 'Pell', given: 'A.' }, { literal: 'Mill Trust' }],
  issued: { 'date-parts': [[1999]] },
});
const replace = (field: string, find: string, by: string, exact = false): FieldChange => ({
  act: 'replace',
  field,
  find,
  by,
  exact,
});

describe('a change of one field of many records', () => {
  it.each<[string, FieldChange, unknown]>([
    ['a value set', { act: 'set', field: 'publisher', value: ' Mole Press ' }, 'Mole Press'],
    [
      'a date set as it is typed',
      { act: 'set', field: 'issued', value: 'May 2001' },
      { 'date-parts': [[2001, 5]] },
    ],
    ['a field taken out', { act: 'clear', field: 'container-title' }, null],
    [
      'words, in capitals or not',
      replace('title', 'tide MILLS', 'Water mills'),
      'Water mills, a review (part 1)',
    ],
    ['signs, not a pattern', replace('title', '(part 1)', ''), 'Tide mills, a review'],
    [
      'what stands for something in a pattern',
      replace('title', 'review', '$&$1'),
      'Tide mills, a $&$1 (part 1)',
    ],
    ['all that is there', replace('container-title', 'J. of Tides', ' '), null],
    [
      'parts of names',
      replace('author', 'Pell', 'Pell-Sandor'),
      [{ family: 'Pell-Sandor', given: 'A.' }, { literal: 'Mill Trust' }],
    ],
    [
      'a name of which nothing is left',
      replace('author', 'Mill Trust', ''),
      [{ family: 'Pell', given: 'A.' }],
    ],
  ])('is %s', (_, change, value) => {
    expect(changeProblem(change)).toBeUndefined();
    expect(fieldChanged(record, change)).toEqual({ value });
  });
  it.each([...'\\^$.*+?()[]{}|/-#&~'])('finds the sign %s as it is written', (sign) => {
    const made = fieldChanged({ ...record, title: `Tide${sign}mills` }, replace('title', `e${sign}m`, 'e m'));
    expect(made).toEqual({ value: 'Tide mills' });
  });
  it.each<[string, FieldChange]>([
    ['the value is there already', { act: 'set', field: 'container-title', value: 'J. of Tides' }],
    ['there is none to take out', { act: 'clear', field: 'publisher' }],
    ['the words are not there', replace('title', 'windmill', 'x')],
    ['capitals differ and are told apart', replace('title', 'TIDE', 'x', true)],
    ['the record lacks the field', replace('publisher', 'a', 'b')],
  ])('is none where %s', (_, change) => {
    expect(fieldChanged(record, change)).toBeUndefined();
  });
  it.each<[FieldChange, string]>([
    [{ act: 'set', field: 'author', value: 'x' }, 'author: a value'],
    [{ act: 'set', field: 'publisher', value: ' ' }, 'publisher: say what'],
    [{ act: 'set', field: 'issued', value: '2001-13' }, ''],
    [replace('issued', '19', '20'), 'issued: words cannot'],
    [replace('title', '', 'x'), 'title: say which words'],
    [{ act: 'clear', field: 'constructor' }, 'constructor: is no field'],
  ])('is refused: %j', (change, words) => {
    expect(changeProblem(change)).toContain(words);
  });
});
