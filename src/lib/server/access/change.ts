import { checkHere, type Named } from './belongs';
import { transaction, type Context, type Role } from './context';
import { tell, type Topic } from './events';
import { Refusal } from './refusal';

/** What someone must be allowed to, to make a change: to edit what is in a library, or to lead it. */
export type Right = 'edit' | 'lead';

const ALLOWED: Record<Right, readonly Role[]> = { edit: ['owner', 'editor'], lead: ['owner'] };

/** What a change is: what it takes, what it changes, and which ids it names. */
export interface Change {
  right: Right;
  /** What pages that show it depend on. */
  of: readonly Topic[];
  /** Ids the request names, which must be of the library. */
  names?: Named;
}

/** Refuses who may not do it. */
export function checkRight(ctx: Context, right: Right): void {
  if (!ALLOWED[right].includes(ctx.role))
    throw new Refusal(
      403,
      right === 'edit'
        ? 'You may read this library and not change it. Ask its owner to make you an editor.'
        : 'Only the owner of the library may do this.',
      [],
      'not-allowed',
    );
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
