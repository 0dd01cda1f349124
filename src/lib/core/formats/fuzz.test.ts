/** Files that are no files: whatever comes in, reading ends, does not throw, and says what it could not read. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sourceRecord } from '../source';
import { FORMAT_NAMES, READABLE_NAMES, readFormat, sniff, writeFormat, type TextFormatName } from './index';

const SAMPLES: Record<string, string> = Object.fromEntries(
  FORMAT_NAMES.map((format) => [
    format,
    writeFormat(
      format,
      Array.from({ length: 6 }, (_, i) => ({
        key: `key${i}`,
        record: sourceRecord.parse({
          type: i % 2 ? 'book' : 'article-journal',
          title: `A {B} & "C" ${i} <i>d</i>`,
          author: [{ family: 'Ng', given: 'T. H.' }, { literal: 'Board of Sluices' }],
          issued: { 'date-parts': [[1990 + i, 2]] },
          'container-title': 'Marsh Letters',
          abstract: 'x'.repeat(200),
        }),
      })),
    ).text,
  ]),
);
SAMPLES.medline = 'PMID- 1\nTI  - A\n      b\nAU  - Ng TH\nDP  - 2001 Mar\n\nPMID- 2\nTI  - C\n';
SAMPLES.coins = '<span title="ctx_ver=Z39.88-2004&amp;rft.atitle=A&amp;rft.jtitle=B"></span>';

const reads = (format: TextFormatName, text: string) => {
  sniff(text);
  const { entries, skipped } = readFormat(format, text);
  for (const { line, reason } of skipped) {
    expect(line).toBeGreaterThan(0);
    expect(reason.length).toBeGreaterThan(3);
  }
  for (const { line } of entries) expect(line).toBeGreaterThan(0);
  return { entries, skipped };
};
const FUZZED = READABLE_NAMES.filter((f): f is TextFormatName => SAMPLES[f] !== undefined);

// The limit of a test is the limit of patience: none may take five seconds.
describe.each(FUZZED)('%s', { timeout: 5_000 }, (format) => {
  const sample = SAMPLES[format]!;
  it('cut anywhere', () => {
    for (let i = 0; i < sample.length; i += 7) reads(format, sample.slice(0, i));
  });
  it('shuffled, line by line and in pieces', () =>
    fc.assert(
      fc.property(
        fc.shuffledSubarray(sample.split(/(?<=\n)/)),
        fc.array(fc.nat(sample.length)),
        (lines, cuts) => {
          reads(format, lines.join(''));
          reads(format, cuts.map((at) => sample.slice(at, at + 40)).join(''));
        },
      ),
      { numRuns: 60 },
    ));
  it('with signs put in and taken out', () =>
    fc.assert(
      fc.property(
        fc.nat(sample.length),
        fc.nat(30),
        fc.string({ unit: 'binary', maxLength: 30 }),
        (at, gone, noise) => {
          reads(format, sample.slice(0, at) + noise + sample.slice(at + gone));
        },
      ),
      { numRuns: 150 },
    ));
  it('random bytes', () =>
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 4_000 }), (bytes) => {
        reads(format, new TextDecoder('latin1').decode(bytes));
      }),
      { numRuns: 60 },
    ));
  it('ten megabytes on one line', () => {
    reads(format, 'tide mill '.repeat(1_000_000));
    reads(format, sample.replace(/\r?\n/g, ' ') + 'x'.repeat(10_000_000));
    reads(format, sample.replace(/x{200}/, 'y '.repeat(5_000_000)));
  });
  it('ten thousand braces, brackets, quotes and signs of every kind', () => {
    for (const sign of ['{', '}', '[', '(', '"', '@', '@a{', '@book{k, title=', '@book{k, title="', '\\', '$', '\\emph{', '<i>', 'TY  - ', '#', ',', '\\"{'])
      reads(format, sign.repeat(10_000));
    reads(format, `@book{k, title={${'{'.repeat(10_000)}x${'}'.repeat(10_000)}}, author={${'{a and '.repeat(5_000)}}}`);
    reads(format, `@book{k, author={${'A, B and '.repeat(1_500)}C, D}}`);
    reads(format, `@book{k, title={$${'\\frac{'.repeat(5_000)}$}}`);
  }); // prettier-ignore
});
