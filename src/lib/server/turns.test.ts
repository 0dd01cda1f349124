import { afterEach, expect, it, vi } from 'vitest';
import { inTurn } from './turns';

afterEach(() => vi.restoreAllMocks());

it('gives others a turn when it went on for long, and all items in their order', async () => {
  let clock = 0;
  vi.spyOn(performance, 'now').mockImplementation(() => clock);
  let served = 0;
  const servedAt: number[] = [];
  for await (const n of inTurn([1, 2, 3, 4])) {
    servedAt.push(served);
    if (n === 1) setImmediate(() => served++);
    // The first two items take no time, the third takes long.
    if (n === 3) clock += 1_000;
  }
  expect(servedAt).toEqual([0, 0, 0, 1]);
});

it('ends where its reader ends, without asking for more', async () => {
  let asked = 0;
  function* endless() {
    for (;;) yield ++asked;
  }
  for await (const n of inTurn(endless())) if (n === 3) break;
  expect(asked).toBe(3);
});
