/** Properties that must hold of any record, date, name or text; inputs are generated. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromCslJson, reconcile } from './capture';
import { blocksOf, compare, mergeRecords, signatureOf, suggest } from './duplicates';
import { proof } from './proof';
import {
  alternativesOf,
  dateText,
  derive,
  makeCitekey,
  nameText,
  parseDate,
  parseName,
  sameValue,
  shownFields,
  sourceRecord,
  withEdit,
  type CslDate,
  type SourceRecord,
  type Variable,
} from './source';
import { fold, isShouting, sentenceCase, toCodePoint, toCodeUnit } from './text';

const AT = '2026-01-01T00:00:00.000Z';
const words = fc
  .array(
    fc.constantFrom('Tide', 'mills', 'of', 'the', 'NORTHERN', 'Ó', 'sounds:', '潮汐', 'ponds', 'marsh'),
    { minLength: 1, maxLength: 6 },
  )
  .map((w) => w.join(' '));
const name = fc.oneof(
  fc.record({
    family: fc.constantFrom('Ng', 'Ferreira', 'Zee', 'Ó Súilleabháin'),
    given: fc.constantFrom('Ana', 'A.', 'T. H.'),
  }),
  fc.record({ literal: fc.constantFrom('Harbour Council', 'Wulfstan') }),
);
const day = fc.tuple(
  fc.integer({ min: 1000, max: 2030 }),
  fc.integer({ min: 1, max: 12 }),
  fc.integer({ min: 1, max: 28 }),
);
const date: fc.Arbitrary<CslDate> = fc.oneof(
  day.chain((d) => fc.integer({ min: 1, max: 3 }).map((n) => ({ 'date-parts': [d.slice(0, n)] }))),
  fc.tuple(day, day).map(([a, b]) => ({ 'date-parts': [a.slice(0, 2), b.slice(0, 1)] })),
  day.map((d) => ({ 'date-parts': [[d[0]]], circa: true })),
  fc.tuple(day, fc.integer({ min: 1, max: 4 })).map(([d, season]) => ({ 'date-parts': [[d[0]]], season })),
);
const record: fc.Arbitrary<SourceRecord> = fc
  .record(
    {
      type: fc.constantFrom('article-journal', 'book', 'chapter', 'webpage', 'document'),
      title: words,
      author: fc.array(name, { minLength: 1, maxLength: 3 }),
      issued: date,
      volume: fc.constantFrom('1', '2'),
      edition: fc.constantFrom('2', '3rd ed.', 'Revised'),
      page: fc.constantFrom('7-24', 'pp. 7–24', 'e1'),
      DOI: fc.constantFrom('10.5555/a', 'https://doi.org/10.5555/A', '10.5555/b', 'nonsense'),
      ISBN: fc.constantFrom('978-0-306-40615-7', '0306406152', '1'),
      URL: fc.constantFrom('https://a.example/x', 'http://www.a.example/x/'),
    },
    { requiredKeys: ['type'] },
  )
  .map((r) => sourceRecord.parse(r));

const always = <T>(arbitrary: fc.Arbitrary<T>, check: (value: T) => void) =>
  fc.assert(
    fc.property(arbitrary, (value) => {
      check(value);
    }),
    { numRuns: 300 },
  );
const always2 = <A, B>(a: fc.Arbitrary<A>, b: fc.Arbitrary<B>, check: (a: A, b: B) => void) =>
  always(fc.tuple(a, b), ([x, y]) => check(x, y));

describe('text', () => {
  it('folds once and for all', () =>
    always(fc.string({ unit: 'grapheme' }), (t) => expect(fold(fold(t))).toBe(fold(t))));
  it('converts units there and back', () => {
    always2(fc.string({ unit: 'grapheme' }), fc.nat(50), (t, n) => {
      const points = [...t].length;
      expect(toCodePoint(t, toCodeUnit(t, n))).toBe(Math.min(n, points));
    });
  });
  it('never shouts after its capitals were lowered', () =>
    always(words, (t) => expect(isShouting(sentenceCase(t))).toBe(false)));
});

describe('dates and names', () => {
  it('read what they write', () => always(date, (d) => expect(parseDate(dateText(d))).toEqual(d)));
  it('never throw, and never invent a month or day', () => {
    always(fc.string(), (t) => {
      const parts = parseDate(t)?.['date-parts'] ?? [];
      for (const [, m, d] of parts) {
        expect(m === undefined || (m >= 1 && m <= 12)).toBe(true);
        expect(d === undefined || (d >= 1 && d <= 31)).toBe(true);
      }
      parseName(t);
    });
  });
  it('read a name as it sorts', () =>
    always(name, (n) => expect(nameText(parseName(nameText(n))!)).toBe(nameText(n))));
});

describe('records', () => {
  it('keep every value a person replaces', () => {
    always2(record, words, (r, title) => {
      const edited = withEdit(
        { ...r, retexa: { ...r.retexa, origins: { title: [{ kind: 'html', value: r.title, at: AT }] } } },
        { title },
        AT,
      );
      expect(edited.title).toBe(title);
      if (r.title !== undefined && r.title !== title)
        expect(alternativesOf(edited, 'title').map((s) => s.value)).toContain(r.title);
      expect(sourceRecord.safeParse(edited).success).toBe(true);
    });
  });
  it('show every field that holds a value', () =>
    always(record, (r) => {
      const shown = new Set<string>(shownFields(r));
      for (const key of Object.keys(r))
        if (key !== 'type' && key !== 'retexa') expect(shown.has(key), key).toBe(true);
    }));
  it('derive the same twice, and a citekey that is free and plain', () =>
    always2(record, fc.integer({ min: 0, max: 800 }), (r, used) => {
      expect(derive(r)).toEqual(derive(structuredClone(r)));
      const taken = new Set<string>();
      for (let i = 0; i < used; i += 100) taken.add(makeCitekey(r, (k) => taken.has(k)));
      const key = makeCitekey(r, (k) => taken.has(k));
      expect(taken.has(key)).toBe(false);
      expect(key).toMatch(/^[a-z0-9]+$/);
    }));
  it('have fixes that make their finding go away and keep the record valid', () =>
    always(record, (r) => {
      for (const finding of proof(r)) {
        if (!finding.fix) continue;
        const fixed = withEdit(r, finding.fix.edit, AT);
        expect(sourceRecord.safeParse(fixed).success).toBe(true);
        expect(proof(fixed).map((f) => f.check)).not.toContain(finding.check);
      }
    }));
});

describe('doubles', () => {
  it('are judged alike from both sides, and share a key', () =>
    always2(record, record, (a, b) => {
      const judged = compare(a, b);
      expect(compare(b, a).verdict).toBe(judged.verdict);
      if (judged.verdict === 'sure')
        expect(blocksOf(signatureOf(a)).some((k) => blocksOf(signatureOf(b)).includes(k))).toBe(true);
      if (judged.verdict !== 'different') expect(judged.reasons.length).toBeGreaterThan(0);
    }));
  it('merge into a valid record in which no value is lost', () =>
    always2(record, record, (a, b) => {
      const merged = mergeRecords(a, b, {}, AT);
      expect(sourceRecord.safeParse(merged).success).toBe(true);
      for (const { field } of suggest(a, b))
        for (const value of [a[field], b[field]])
          if (value !== undefined)
            expect(
              sameValue(merged[field], value) ||
                alternativesOf(merged, field).some((s) => sameValue(s.value, value)),
              field,
            ).toBe(true);
      for (const field of Object.keys({ ...a, ...b }) as Variable[])
        expect(merged[field], field).toBeDefined();
    }));
  it('merging a record with itself changes nothing', () =>
    always(record, (r) => expect(mergeRecords(r, structuredClone(r), {}, AT)).toEqual(r)));
});

describe('capture', () => {
  it('chooses only values that some candidate gave, and keeps all of them', () =>
    always2(record, record, (a, b) => {
      const candidates = [...fromCslJson(a as never, 'registry'), ...fromCslJson(b as never, 'json-ld')];
      const made = reconcile(candidates, 'https://a.example/', AT);
      expect(sourceRecord.safeParse(made).success).toBe(true);
      for (const [field, value] of Object.entries(made)) {
        if (field === 'retexa') continue;
        expect(
          candidates.some((c) => c.field === field && sameValue(c.value, value)),
          field,
        ).toBe(true);
        const taken = made.retexa.origins[field]!.filter(
          (s) => s.why && !/: not taken/.test(s.why) && /: /.test(s.why),
        );
        expect(taken.length, field).toBe(1);
      }
      for (const c of candidates)
        if (c.field !== 'type')
          expect(made.retexa.origins[c.field]!.some((s) => sameValue(s.value, c.value))).toBe(true);
    }));
});
