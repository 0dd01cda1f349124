import { describe, expect, it } from 'vitest';
import { standings, thinness, type Evidence } from './index';

const SECTIONS = [
  { id: 'mills', parentId: null },
  { id: 'tide', parentId: 'mills' },
  { id: 'decline', parentId: null },
  { id: 'empty', parentId: null },
];
let n = 0;
const put = (sectionId: string, kind: Evidence['kind'], rest: Partial<Evidence> = {}): Evidence => ({
  sectionId,
  ref: `${kind}${++n}`,
  kind,
  ...rest,
});

describe('what a section stands on', () => {
  it('counts works once, with what stands under it', () => {
    const found = standings(SECTIONS, [
      put('mills', 'source', { sourceId: 'ng' }),
      put('mills', 'passage', { sourceId: 'ng' }),
      put('tide', 'passage', { sourceId: 'ng', inOwnWords: true }),
      put('tide', 'passage', { sourceId: 'pell' }),
      put('tide', 'question'),
    ]);
    expect(found.get('tide')).toMatchObject({ sources: 2, passages: 2, ownWords: 1, questions: 1 });
    expect(found.get('mills')).toMatchObject({ sources: 2, passages: 3, ownWords: 1, questions: 1 });
    expect(thinness(found.get('mills')!)).toBeUndefined();
    expect(thinness(found.get('empty')!)).toBe('nothing in it');
  });

  it('names sentences that nothing bears out behind them in their section, also those under it', () => {
    const borne = put('decline', 'sentence');
    const shared = put('decline', 'sentence');
    const bare = put('decline', 'sentence');
    const last = put('tide', 'sentence');
    const found = standings(SECTIONS, [
      borne,
      put('decline', 'question'),
      put('decline', 'passage', { sourceId: 'ng' }),
      shared,
      put('decline', 'source', { sourceId: 'pell' }),
      bare,
      put('decline', 'question'),
      last,
    ]);
    expect(found.get('decline')!.bare).toEqual([bare.ref]);
    expect(found.get('mills')!.bare).toEqual([last.ref]);
    expect(thinness(found.get('decline')!)).toBe('claims without evidence');
  });

  it('says where it is one work alone, or nothing of the works was kept', () => {
    const thin = (...items: Evidence[]) => thinness(standings(SECTIONS, items).get('decline')!);
    expect(thin(put('decline', 'passage', { sourceId: 'ng' }))).toBe('one source only');
    expect(
      thin(put('decline', 'source', { sourceId: 'ng' }), put('decline', 'source', { sourceId: 'pell' })),
    ).toBe('nothing quoted or noted');
    expect(thin(put('decline', 'question'))).toBeUndefined();
  });
});
