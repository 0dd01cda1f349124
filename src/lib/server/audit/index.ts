import { checkRight } from '../access/change';
import type { Context } from '../access/context';
import { latestNoted, type Noted } from './repository';

export { noted, type Act, type Noted } from './repository';

/** What was handed out of a library, to whom and by whom, newest first: for its owners. */
export async function auditOf(ctx: Context): Promise<Noted[]> {
  checkRight(ctx, 'lead');
  return latestNoted(ctx);
}
