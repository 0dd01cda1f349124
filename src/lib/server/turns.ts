import { setImmediate } from 'node:timers/promises';

/** How long work goes on before others get a turn, in milliseconds. */
const TURN = 20;

/**
 * Items of long work, one after the other, with turns for others between: the database answers at once, so that without
 * them nothing else would be served until the end. A request takes several turns: where it is waited for, they are short
 * (`turn`, in milliseconds).
 */
export async function* inTurn<T>(items: Iterable<T>, turn = TURN): AsyncGenerator<T, void> {
  let since = performance.now();
  for (const item of items) {
    if (performance.now() - since > turn) {
      await setImmediate();
      since = performance.now();
    }
    yield item;
  }
}
