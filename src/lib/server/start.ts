import { database } from './db/open';
import { sweepParts } from './files/store';
import { log } from './log';
import { goOn } from './jobs/runner';
import { sweepOpened } from './backup';
import { sweepShared } from './capture/shared';
import './capture';
import './duplicates';
import './imports';
import { countFirst } from './sources/tallies';
import { sweepLeaving } from './files/leaving';
import { renewAll } from './sources/renewing';

let started: Promise<void> | undefined;

/** Brings the data into a known state after whatever happened before: once, before the first request is served. */
export function start(): Promise<void> {
  started ??= (async () => {
    const db = await database();
    const swept = await sweepParts();
    await sweepLeaving(db);
    await sweepShared(db);
    await sweepOpened();
    await countFirst(db);
    const left = await goOn(db);
    // Beside the requests: a library of an earlier version may be large.
    renewAll(db).catch((err: unknown) => log.error({ err }, 'what is derived is not up to date'));
    if (swept || left) log.warn({ swept, left }, 'goes on with what an earlier run left in the middle');
  })();
  return started;
}
