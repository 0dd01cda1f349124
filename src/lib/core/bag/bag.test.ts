import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bagInfo, DECLARATION, infoOf, leadsOut, manifest, oxum, problemsOfBag, readManifest } from '.';

const A = 'a'.repeat(64);
const B = 'b'.repeat(64);
/** SHA-256 of nothing (FIPS 180-4; from memory, as everyone's). */
const EMPTY = 'e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855';

describe('a bag', () => {
  it('declares itself as RFC 8493, 2.1.1 says', () => {
    expect(DECLARATION).toBe('BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n');
  });

  it('has manifests like the example of RFC 8493 (4.1; its path from memory): a sum, blanks, a path', () => {
    expect(manifest(new Map([['data/27613-h/images/q172.png', A]]))).toBe(
      `${A}  data/27613-h/images/q172.png\n`,
    );
    expect(readManifest(`${EMPTY.toUpperCase()} data/x\n\n${A}\tdata/y z\r\n`)).toEqual(
      new Map([
        ['data/x', EMPTY],
        ['data/y z', A],
      ]),
    );
  });

  it('writes and reads any path, line ends in it percent-encoded (RFC 8493, 2.1.3)', () => {
    expect(manifest(new Map([['data/a\nb%0A', A]]))).toBe(`${A}  data/a%0Ab%250A\n`);
    fc.assert(
      fc.property(
        fc.array(
          fc.string({ minLength: 1 }).filter((s) => s.trim() === s),
          { maxLength: 5 },
        ),
        (names) => {
          const sums = new Map(
            names.map((name) => [`data/x${name.replaceAll('..', '').replaceAll('\\', '')}y`, A]),
          );
          expect(readManifest(manifest(sums))).toEqual(sums);
        },
      ),
    );
  });

  it('is refused where a line is none, or leads out (RFC 8493, 5.1)', () => {
    expect(() => readManifest(`${A}  data/a\nnothing\n`)).toThrow('line 2');
    for (const path of ['../etc/passwd', '/etc/passwd', 'data/../../x', '~/x', 'C:\\x', 'data\\x'])
      expect([path, leadsOut(path)]).toEqual([path, true]);
    expect(() => readManifest(`${A}  data/../../x`)).toThrow('leads out');
    expect(leadsOut('data/a..b/c')).toBe(false);
  });

  it('says what is missing, damaged or not listed, and nothing where it is whole', () => {
    const said = new Map([
      ['data/a', A],
      ['data/b', B],
    ]);
    expect(problemsOfBag(DECLARATION, said, said)).toEqual([]);
    const found = new Map([
      ['data/a', B],
      ['data/c', A],
    ]);
    expect(problemsOfBag(DECLARATION, said, found)).toEqual([
      'data/a is damaged: its checksum is another',
      'data/b is missing',
      'data/c stands in no manifest',
    ]);
    expect(problemsOfBag(undefined, new Map(), new Map())).toEqual(['bagit.txt is missing: this is no bag']);
    expect(problemsOfBag('BagIt-Version: 7.0\n', new Map(), new Map())).toHaveLength(1);
  });

  it('says what it holds in lines that are read in any case', () => {
    const text = bagInfo({
      'Bagging-Date': '2026-11-28',
      'External-Description': 'two\nlines',
      'Payload-Oxum': oxum(10, 2),
    });
    expect(text).toBe('Bagging-Date: 2026-11-28\nExternal-Description: two lines\nPayload-Oxum: 10.2\n');
    expect(infoOf(text, 'payload-oxum')).toBe('10.2');
    expect(infoOf(text, 'Contact-Name')).toBeUndefined();
  });
});
