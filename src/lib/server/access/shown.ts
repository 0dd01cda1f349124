import { scoped, type Context } from './context';
import { Refusal } from './refusal';

/** Who sees something: all of the library, or its owner alone with some by name. */
export interface Shown {
  visibility: 'private' | 'library';
  /** Ids of those who see it beside its owner, where it is private. */
  shownTo: readonly string[];
}

/** Ids of who sees something beside its owner, as they are stored. */
export const shownOf = (stored: string | null | undefined): string[] =>
  stored ? (JSON.parse(stored) as string[]) : [];

/** As they are stored: nothing where it is for all, or for nobody else. */
export const shownAs = ({ visibility, shownTo }: Shown): string | null =>
  visibility === 'private' && shownTo.length ? JSON.stringify([...new Set(shownTo)].sort()) : null;

/** Refuses to say for another who sees what is theirs. */
export function checkWhoSees(ctx: Context, ownerId: string, before: Shown, after: Shown): void {
  if (
    ownerId !== ctx.personId &&
    (before.visibility !== after.visibility || shownAs(before) !== shownAs(after))
  )
    throw new Refusal(403, 'Who sees this is for the one to say whose it is.', [], 'not-allowed');
}

/** Those of some who are in the library, without who asks: somebody may have left since. */
export async function membersAmong(ctx: Context, ids: readonly string[]): Promise<string[]> {
  if (ids.length === 0) return [];
  const here = (await scoped(ctx, 'membership')
    .whereIn('person_id', [...new Set(ids)])
    .whereNot('person_id', ctx.personId)
    .pluck('person_id')) as unknown as string[];
  return here.sort();
}
