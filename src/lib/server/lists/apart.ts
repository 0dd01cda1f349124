import type { Context } from '../access/context';
import { gather } from '../workers/pools';
import type { Output } from './outputs';
import type { Look } from './printing';
import type { Scope, Setting } from './index';

const whoAsks = ({ libraryId, personId, role }: Context) => ({ libraryId, personId, role });

/** A scope as a file, in JSON, as `exportFile` gives it. */
export const savedList = (
  ctx: Context,
  scope: Scope,
  look: Look,
  output: Output,
  setting: Setting = {},
): Promise<Uint8Array> => gather({ who: whoAsks(ctx), scope, look, setting, output });

/** What tells the works of a scope apart, in JSON, as `toldApart` gives it. */
export const toldOfView = (ctx: Context, scope: Scope, look: Look): Promise<Uint8Array> =>
  gather({ who: whoAsks(ctx), scope, look, setting: {}, told: true });

/** What the views that are open wait for, by view: the look they want their list in, and how to give it up. */
const awaited = new Map<string, { look: string; unwanted: AbortController; waiting: number }>();

/** The list of a view in JSON, as `referenceList` gives it; one it waits for in another style or language is given up, and refused. */
export async function listOfView(
  ctx: Context,
  view: string,
  scope: Scope,
  look: Look,
  setting: Setting = {},
): Promise<Uint8Array> {
  const wanted = `${look.style} ${look.locale}`;
  const before = awaited.get(view);
  const other = before && before.look !== wanted;
  if (other) before.unwanted.abort();
  const mine = before && !other ? before : { look: wanted, unwanted: new AbortController(), waiting: 0 };
  mine.waiting++;
  awaited.set(view, mine);
  try {
    return await gather({ who: whoAsks(ctx), scope, look, setting }, mine.unwanted.signal);
  } finally {
    if (--mine.waiting === 0 && awaited.get(view) === mine) awaited.delete(view);
  }
}
