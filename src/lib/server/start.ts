import { database } from './db/open';
import { sweepParts } from './files/store';
import { log } from './log';
import { endInterrupted } from './jobs/repository';
import { sweepShared } from './capture/shared';
import { knowOwnStyles } from './lists/repository';
import { takeBackInterrupted } from './imports';
import { countFirst } from './sources/tallies';
import { sweepLeaving } from './bin';
import { renewAll } from './sources/renewing';

let started: Promise<void> | undefined;

/** Brings the data into a known state after whatever happened before: once, before the first request is served. */
export function start(): Promise<void> {
  started ??= (async () => {
    const db = await database();
    const [swept, ended] = [await sweepParts(), await endInterrupted(db)];
    await takeBackInterrupted(db);
    await knowOwnStyles(db);
    await sweepLeaving(db);
    await sweepShared(db);
    await countFirst(db);
    // Beside the requests: a library of an earlier version may be large.
    renewAll(db).catch((err: unknown) => log.error({ err }, 'what is derived is not up to date'));
    if (swept || ended) log.warn({ swept, ended }, 'ended what an earlier run left in the middle');
  })();
  return started;
}
