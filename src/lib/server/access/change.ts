import { may, type Right } from '../../core/members';
import { checkHere, type Named } from './belongs';
import { transaction, type Context } from './context';
import { tell, type Topic } from './events';
import { Refusal } from './refusal';

export type { Right };

/** What a change is: what it takes, what it changes, and which ids it names. */
export interface Change {
  right: Right;
  /** What pages that show it depend on. */
  of: readonly Topic[];
  /** Ids the request names, which must be of the library. */
  names?: Named;
}

const REFUSED: Record<Right, string> = {
  lead: 'Only an owner of the library may do this.',
  edit: 'You may read this library and not change it. Ask its owner to make you an editor.',
  annotate: 'You may read this library and keep nothing in it. Ask its owner to make you an annotator.',
  own: 'You are not in this library.',
};

/** Refuses who may not do it. */
export function checkRight(ctx: Context, right: Right): void {
  if (!may(ctx.role, right)) throw new Refusal(403, REFUSED[right], [], 'not-allowed');
}

/** Refuses to change what another made, to who may change only their own. */
export function checkOwn(ctx: Context, ownerId: string): void {
  if (ownerId !== ctx.personId && !may(ctx.role, 'edit'))
    throw new Refusal(403, 'This is another’s. You may change what you made yourself.', [], 'not-allowed');
}

/**
 * The one door for change. In one transaction: who asks may do it, every id named is of the library, and the work is done,
 * all of it or nothing. When it is kept, pages are told what changed.
 */
export async function change<T>(
  ctx: Context,
  { right, of, names = {} }: Change,
  work: (inner: Context) => Promise<T>,
): Promise<T> {
  checkRight(ctx, right);
  return transaction(ctx, async (inner) => {
    await checkHere(inner, names);
    const result = await work(inner);
    tell(ctx.libraryId, ...of);
    return result;
  });
}
