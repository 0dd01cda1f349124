import type { Knex } from 'knex';
import { transaction, type Context } from '../access/context';
import { whenEnding } from '../ending';
import { tell } from '../access/events';
import { log } from '../log';
import { renewDerived } from './repository';

/** How many sources are brought up to date in one transaction: others write between them. */
const AT_ONCE = 100;

/**
 * Brings what was derived by an earlier version up to date, library by library, a few sources at a time. Gives how many
 * there were. Run at start, beside the requests that are served.
 */
export async function renewAll(db: Knex): Promise<number> {
  const members = (await db('membership').distinct('library_id')) as { library_id: string }[];
  let renewed = 0;
  for (const { library_id: libraryId } of members) {
    const [owner] = (await db('library').where({ id: libraryId }).select('owner_id')) as {
      owner_id: string;
    }[];
    const ctx: Context = { db, libraryId, personId: owner!.owner_id, role: 'owner' };
    for (;;) {
      if (whenEnding.aborted) return renewed;
      const part = await transaction(ctx, (inner) => renewDerived(inner, AT_ONCE));
      renewed += part;
      if (part === 0) break;
    }
    if (renewed) tell(libraryId, 'sources', 'duplicates');
  }
  if (renewed) log.info({ renewed }, 'brought what is derived up to date');
  return renewed;
}
