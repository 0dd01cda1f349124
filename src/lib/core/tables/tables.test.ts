import { describe, expect, it } from 'vitest';
import { odsFiles, toCsv } from './index';

describe('comma-separated values', () => {
  // RFC 4180, 2: lines end with CRLF; fields with quotation marks, commas or line breaks are quoted, quotation marks doubled.
  it.each([
    ['a plain text', 'aaa', 'aaa'],
    ['a comma', 'Pell, M.', '"Pell, M."'],
    ['quotation marks (the example of RFC 4180, 2.7)', 'b"bb', '"b""bb"'],
    ['a line break (the example of RFC 4180, 2.6)', 'b\r\nbb', '"b\r\nbb"'],
    ['what begins like a formula', '=1+1', "'=1+1"],
    ['what begins like one and has a comma', '-a,b', '"\'-a,b"'],
    ['a number below nought', -320, '-320'],
  ])('write %s', (_, value, written) => {
    expect(toCsv({ heads: ['Year'], rows: [[value]] })).toBe(`\ufeffYear\r\n${written}\r\n`);
  });
});

describe('an OpenDocument spreadsheet', () => {
  it('has its type first, numbers as numbers and texts as texts, line by line', () => {
    const files = odsFiles({ heads: ['Title', 'Year'], rows: [['A & <b>\nsecond', 1998]] }, 'Sources');
    expect([...files.keys()][0]).toBe('mimetype');
    const content = files.get('content.xml')!;
    expect(content).toContain('<text:p>A &amp; &lt;b&gt;</text:p><text:p>second</text:p>');
    expect(content).toContain('office:value-type="float" office:value="1998"');
    expect(content.match(/<table:table-row>/g)).toHaveLength(2);
  });
});
