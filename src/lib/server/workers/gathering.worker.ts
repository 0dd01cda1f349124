import { config } from '../config';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { openReading } from '../db/open';
import {
  exportFile,
  referenceList,
  toldApart,
  type Look,
  type Output,
  type Scope,
  type Setting,
} from '../lists';
import print from './citing.worker';
import { workHere } from './pools';

/** A list to gather, and for whom: as a view shows it, or as a file. */
export interface GatherTask {
  who: Pick<Context, 'libraryId' | 'personId' | 'role'>;
  scope: Scope;
  look: Look;
  setting: Setting;
  /** What it is saved as; a list to be looked at has none. */
  output?: Output;
  /** Not the list itself, but what tells its works apart. */
  told?: boolean;
}

/** What it is, in JSON; or why there is none, since of an error only its words cross from one thread to another. */
export type Gathered = Uint8Array | { refused: Pick<Refusal, 'status' | 'message' | 'details' | 'code'> };

/**
 * Whole lists are read out of the database, printed and written down here, in a thread of their own, so that nobody else waits while
 * ten thousand records are opened. What was printed of them stays, and a list that is shown again prints what changed.
 */
workHere(print);
let db: Context['db'] | undefined;

export default async function gather({
  who,
  scope,
  look,
  setting,
  output,
  told,
}: GatherTask): Promise<Gathered> {
  const ctx: Context = { ...who, db: (db ??= openReading(config.databaseFile)) };
  try {
    const made = output
      ? await exportFile(ctx, scope, look, output, setting)
      : told
        ? await toldApart(ctx, scope, look)
        : await referenceList(ctx, scope, look, setting);
    return new TextEncoder().encode(JSON.stringify(made));
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    const { status, message, details, code } = error;
    return { refused: { status, message, details, code } };
  }
}
