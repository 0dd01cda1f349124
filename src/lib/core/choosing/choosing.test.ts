import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { agreement, openTo, orderPoints, outcomes, strengthOf, type Ballot, type Says } from '.';

const ballot = (more: Partial<Ballot>): Ballot => ({
  way: 'opinion',
  candidates: ['a', 'b', 'c'],
  voters: ['x', 'y'],
  votes: [],
  ...more,
});
const said = (person: string, verdicts: Record<string, Says>) =>
  Object.entries(verdicts).map(([candidate, says]) => ({ candidate, person, says, place: null, reason: '' }));
const ordered = (person: string, order: string[]) =>
  order.map((candidate, place) => ({ candidate, person, says: null, place, reason: '' }));
/** Two people whose verdicts fall into a table of so many: both include, only the first, only the second, both exclude. */
const screened = (counts: [number, number, number, number]): Ballot => {
  const pairs = (
    ['include include', 'include exclude', 'exclude include', 'exclude exclude'] as const
  ).flatMap((pair, i) => Array.from({ length: counts[i]! }, () => pair.split(' ') as [Says, Says]));
  return ballot({
    way: 'screening',
    candidates: pairs.map((_, i) => String(i)),
    votes: pairs.flatMap(([x, y], i) => [...said('x', { [i]: x }), ...said('y', { [i]: y })]),
  });
};

describe('agreement of two', () => {
  it('is Cohen’s kappa', () => {
    // The worked example of fifty proposals read by two that is reprinted in many courses (here from memory): 20, 5, 10, 15 gives .40.
    const found = agreement(screened([20, 5, 10, 15]))!;
    expect(found).toMatchObject({ both: 50, alike: 35, observed: 0.7, expected: 0.5 });
    expect(found.kappa).toBeCloseTo(0.4, 12);
    // Two tables with the same part alike and different kappas, printed beside it (from memory): .1304 and .2593.
    expect(agreement(screened([45, 15, 25, 15]))!.kappa).toBeCloseTo(0.1304, 4);
    expect(agreement(screened([25, 35, 5, 35]))!.kappa).toBeCloseTo(0.2593, 4);
  });

  it('is nothing where both always say the same one thing, or nothing was judged by both', () => {
    expect(agreement(screened([7, 0, 0, 0]))).toMatchObject({ observed: 1, kappa: null });
    expect(agreement(screened([0, 0, 0, 0]))).toMatchObject({ both: 0, observed: null, kappa: null });
    expect(agreement(ballot({ way: 'screening', voters: ['x'] }))).toBeUndefined();
    expect(agreement(ballot({}))).toBeUndefined();
  });

  it('lies between −1 and 1, is 1 when all is alike, and does not ask who is the first', () => {
    const n = fc.integer({ min: 0, max: 30 });
    fc.assert(
      fc.property(n, n, n, n, (a, b, c, d) => {
        const { kappa } = agreement(screened([a, b, c, d]))!;
        const turned = agreement(screened([a, c, b, d]))!.kappa;
        expect(turned).toEqual(kappa);
        if (kappa === null) return;
        expect(kappa).toBeGreaterThanOrEqual(-1);
        expect(kappa).toBeLessThanOrEqual(1);
        if (b + c === 0) expect(kappa).toBe(1);
      }),
    );
  });

  it('is called by the words of Landis and Koch', () => {
    expect([-0.1, 0, 0.2, 0.21, 0.4, 0.41, 0.6, 0.61, 0.8, 0.81, 1].map(strengthOf)).toEqual([
      'poor', 'slight', 'slight', 'fair', 'fair', 'moderate', 'moderate', 'substantial', 'substantial', 'almost perfect', 'almost perfect',
    ]); // prettier-ignore
  });
});

describe('an order', () => {
  it('adds up the points of everybody’s', () => {
    const votes = [...ordered('x', ['a', 'b', 'c']), ...ordered('y', ['b', 'a', 'c'])];
    expect([...orderPoints(ballot({ way: 'order', votes }))]).toEqual([
      ['a', 3],
      ['b', 3],
      ['c', 0],
    ]);
  });

  it('shares what is left among those somebody did not put in their order', () => {
    const votes = ordered('x', ['c']);
    expect([...orderPoints(ballot({ way: 'order', votes }))]).toEqual([
      ['a', 0.5],
      ['b', 0.5],
      ['c', 2],
    ]);
  });

  it('hands out the same points for every order, whatever was left out', () => {
    const candidates = ['a', 'b', 'c', 'd', 'e'];
    fc.assert(
      fc.property(fc.shuffledSubarray(candidates, { minLength: 1 }), (order) => {
        const points = orderPoints(
          ballot({ way: 'order', candidates, voters: ['x'], votes: ordered('x', order) }),
        );
        expect([...points.values()].reduce((a, b) => a + b)).toBe(10);
      }),
    );
  });
});

describe('what comes of it', () => {
  it('proposes what more would keep than leave, the best first', () => {
    const votes = [
      ...said('x', { a: 'leave', b: 'keep', c: 'perhaps' }),
      ...said('y', { a: 'keep', b: 'keep' }),
    ];
    expect(outcomes(ballot({ votes })).map(({ candidate, proposed }) => [candidate, proposed])).toEqual([
      ['b', true],
      ['a', false],
      ['c', false],
    ]);
  });

  it('leaves open what two screen differently, until it is settled', () => {
    const votes = [
      ...said('x', { a: 'include', b: 'include' }),
      ...said('y', { a: 'exclude', b: 'include' }),
    ];
    const of = (settled?: Map<string, Says>) =>
      Object.fromEntries(outcomes(ballot({ way: 'screening', votes }), settled).map((o) => [o.candidate, o]));
    expect(of().a).toMatchObject({ proposed: false, disputed: true });
    expect(of().b).toMatchObject({ proposed: true, disputed: false });
    expect(of(new Map([['a', 'include']])).a).toMatchObject({ proposed: true, disputed: false });
    expect(of(new Map([['b', 'exclude']])).b).toMatchObject({ proposed: false });
  });

  it('counts nobody who is not asked, and nothing said of what is no candidate', () => {
    const votes = [...said('z', { a: 'keep' }), ...said('x', { gone: 'keep' })];
    expect(outcomes(ballot({ votes })).every(({ judged }) => judged === 0)).toBe(true);
  });
});

describe('what others said', () => {
  it('is hidden until one said something oneself of the same', () => {
    const votes = [...said('x', { a: 'keep' }), ...said('y', { b: 'keep' })];
    expect(openTo(ballot({ votes }), 'x', false)('a')).toBe(true);
    expect(openTo(ballot({ votes }), 'x', false)('b')).toBe(false);
    expect(openTo(ballot({ votes }), 'x', true)('b')).toBe(true);
  });

  it('is hidden in screening until both have judged everything', () => {
    const one = { a: 'include', b: 'exclude', c: 'include' } as const;
    const part = [...said('x', one), ...said('y', { a: 'include' })];
    expect(openTo(ballot({ way: 'screening', votes: part }), 'x', false)('a')).toBe(false);
    const votes = [...said('x', one), ...said('y', one)];
    expect(openTo(ballot({ way: 'screening', votes }), 'x', false)('a')).toBe(true);
  });

  it('is hidden to who is not asked until all have judged everything', () => {
    const votes = said('x', { a: 'keep', b: 'keep', c: 'keep' });
    expect(openTo(ballot({ votes }), 'z', false)('a')).toBe(false);
    expect(openTo(ballot({ voters: ['x'], votes }), 'z', false)('a')).toBe(true);
    expect(openTo(ballot({ voters: [], votes: [] }), 'z', false)('a')).toBe(false);
  });
});
