import { describe, expect, it } from 'vitest';
import { mergeAll, withoutMerge } from '../duplicates';
import { credibility, credibilityText, emptyRecord, joinedCredibility, sourceRecord } from './index';

describe('how far a source can be trusted', () => {
  it('is said in sentences, the verdict first', () => {
    expect(
      credibilityText({
        trust: 'with care',
        why: 'its figures are those of one mill',
        reviewed: 'editors',
        behind: 'The millers’ league.',
      }),
    ).toBe(
      'To be trusted with care: its figures are those of one mill. Read by editors. Who is behind it: The millers’ league.',
    );
    expect(credibilityText({ why: 'Only heard of?' })).toBe('Only heard of?');
    expect(credibilityText({})).toBe('');
  });
  it('is printed in the language of a list, in what was written as it was written', () => {
    const said = { trust: 'with care', why: 'its figures', reviewed: 'editors', aim: 'To sell' } as const;
    expect(credibilityText(said, 'de-AT')).toBe(
      'Mit Vorsicht zu gebrauchen: its figures. Von einer Redaktion gelesen. Worauf es aus ist: To sell.',
    );
    expect(credibilityText(said, 'fr-FR')).toBe(
      'À utiliser avec prudence\u00a0: its figures. Relu par une rédaction. Ce qu’il vise\u00a0: To sell.',
    );
    expect(credibilityText(said, 'fi-FI')).toBe(credibilityText(said));
  });
  it('keeps what is said without what was left empty', () => {
    expect(credibility.parse({ behind: '  ', why: ' so\u0000 ', trust: 'fully' })).toEqual({
      why: 'so',
      trust: 'fully',
      behind: undefined,
    });
    expect(credibility.safeParse({ trust: 'perhaps' }).success).toBe(false);
  });
  it('is joined where sources are, and parted again with what was said since', () => {
    const one = { behind: 'A league', trust: 'fully' as const };
    const other = { behind: 'A museum', reviewed: 'peers' as const };
    expect(joinedCredibility([undefined, one])).toBe(one);
    expect(joinedCredibility([undefined])).toBeUndefined();
    expect(joinedCredibility([one, other])).toEqual({
      behind: 'A league; A museum',
      trust: 'fully',
      reviewed: 'peers',
    });
    const record = (said: typeof one | undefined) => {
      const empty = emptyRecord('book');
      return sourceRecord.parse({
        ...empty,
        retexa: { ...empty.retexa, ...(said ? { credibility: said } : {}) },
      });
    };
    const merged = mergeAll([record(undefined), record(one)], {}, '2026-01-01T00:00:00Z');
    expect(merged.retexa.credibility).toEqual(one);
    expect(withoutMerge(record(undefined), merged, merged).record.retexa.credibility).toBeUndefined();
    const since = { ...merged, retexa: { ...merged.retexa, credibility: { why: 'Seen since' } } };
    expect(withoutMerge(record(undefined), merged, since).record.retexa.credibility).toEqual({
      why: 'Seen since',
    });
  });
});
