import type { Knex } from 'knex';
import { scoped, type Context } from '../access/context';
import { newId, now } from '../db/ids';

/** What is written down: of a library what was handed out, to whom and by whom; of a person how they come in. */
export type Act =
  | 'invited'
  | 'invitation withdrawn'
  | 'joined'
  | 'role changed'
  | 'removed'
  | 'left'
  | 'brought in'
  | 'library deleted'
  | 'account closed'
  | 'link made'
  | 'link withdrawn'
  | 'token made'
  | 'token taken back'
  | 'account made'
  | 'signed in'
  | 'pass phrase changed'
  | 'codes on'
  | 'codes off'
  | 'passkey added'
  | 'passkey taken off'
  | 'way back mailed'
  | 'way back given'
  | 'way back taken';

/** Writes down what was done; in the transaction of the act. Nothing of it is changed afterwards. */
export async function noted(
  db: Knex,
  given: { libraryId?: string; personId: string | null; act: Act; words?: string },
): Promise<void> {
  await db('audit').insert({
    id: newId(),
    library_id: given.libraryId ?? null,
    person_id: given.personId,
    at: now(),
    act: given.act,
    words: given.words ?? '',
  });
}

/** A line of what was written down, and who did it. */
export interface Noted {
  id: string;
  at: string;
  act: Act;
  words: string;
  who: string;
}

/** Lines of the list that are shown at once. */
const SHOWN = 200;

/** What was written down of the library, newest first. */
export const latestNoted = async (ctx: Context): Promise<Noted[]> =>
  (await scoped(ctx, 'audit')
    .leftJoin('person', 'person.id', 'audit.person_id')
    .orderBy('audit.at', 'desc')
    .orderBy('audit.id', 'desc')
    .limit(SHOWN)
    .select(
      'audit.id',
      'audit.at',
      'audit.act',
      'audit.words',
      ctx.db.raw(`COALESCE(person.name, '') AS who`),
    )) as Noted[];
