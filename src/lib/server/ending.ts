import { closeDatabase } from './db/open';
import { log } from './log';
import { stopAll } from './jobs/runner';
import { closePools } from './workers/pools';

/** Longest that work under way is given to end by itself, in milliseconds. */
const GIVEN = 3_000;

const ending = new AbortController();

/** Aborted when the server begins to end. */
export const whenEnding: AbortSignal = ending.signal;

/** Tells what holds connections open that the server ends, and stops long work, which the next start goes on with. */
export function beginEnding(): void {
  ending.abort();
}

let ended: Promise<void> | undefined;

/** Stops what goes on, notes it in its job, and closes processes and database. */
export function end(): Promise<void> {
  beginEnding();
  ended ??= (async () => {
    await Promise.race([stopAll(), new Promise((resolve) => setTimeout(resolve, GIVEN).unref())]);
    await closePools();
    await closeDatabase();
  })().catch((error: unknown) => log.error({ err: error }, 'the server did not end in order'));
  return ended;
}

/**
 * Ends the process in order when it is told to. Requests are finished by the server first (it says `sveltekit:shutdown`
 * then); a second signal ends it at once.
 */
export function endWithProcess(): void {
  let told = false;
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.on(signal, () => {
      if (told) process.exit(signal === 'SIGINT' ? 130 : 143);
      told = true;
      beginEnding();
    });
  process.on('sveltekit:shutdown' as 'exit', () => void end().then(() => process.exit(0)));
}
