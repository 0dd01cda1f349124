import { database } from './db/open';
import { sweepParts } from './files/store';
import { log } from './log';
import { endInterrupted } from './repositories/jobs';
import { sweepShared } from './repositories/shared';
import { knowOwnStyles } from './repositories/styles';
import { sweepLeaving } from './services/bin';

let started: Promise<void> | undefined;

/** Brings the data into a known state after whatever happened before: once, before the first request is served. */
export function start(): Promise<void> {
  started ??= (async () => {
    const db = await database();
    const [swept, ended] = [await sweepParts(), await endInterrupted(db)];
    await knowOwnStyles(db);
    await sweepLeaving(db);
    await sweepShared(db);
    if (swept || ended) log.warn({ swept, ended }, 'ended what an earlier run left in the middle');
  })();
  return started;
}
