import {
  citekeyStem,
  nthCitekey,
  USUAL_CITEKEY,
  type CitekeyPattern,
  type SourceRecord,
} from '../../core/source';
import { setLibrary } from '../access/members';
import { scoped, type Context } from '../access/context';

/** How the library makes citekeys. */
export async function citekeyPattern(ctx: Context): Promise<CitekeyPattern> {
  const row = (await ctx.db('library').where({ id: ctx.libraryId }).first('citekey_parts')) as
    { citekey_parts: string | null } | undefined;
  return row?.citekey_parts ? (JSON.parse(row.citekey_parts) as CitekeyPattern) : USUAL_CITEKEY;
}

/** Changes how citekeys are made from now on; keys that were given stay. */
export async function setCitekeyPattern(ctx: Context, pattern: CitekeyPattern): Promise<void> {
  await setLibrary(ctx, { citekey_parts: JSON.stringify(pattern) });
}

/** A citekey that nothing in the library has or had, but for `except`, which may keep its own. `wanted` is kept when it is free. */
export async function freeCitekey(
  ctx: Context,
  record: SourceRecord,
  { wanted, except }: { wanted?: string | undefined; except?: string } = {},
): Promise<string> {
  const isTaken = async (key: string) => {
    const own = scoped<{ id: string; citekey: string }>(ctx, 'source').where({ citekey: key });
    const led = scoped<{ alias: string; source_id: string }>(ctx, 'alias').where({ alias: key });
    if (except) {
      void own.whereNot({ id: except });
      void led.whereNot({ source_id: except });
    }
    return Boolean((await own.first('id')) ?? (await led.first('alias')));
  };
  if (wanted && !(await isTaken(wanted))) return wanted;
  const stem = citekeyStem(record, await citekeyPattern(ctx));
  const nth = (n: number) => isTaken(nthCitekey(stem, n));
  if (!(await nth(0))) return stem;
  // Of one stem there may be thousands: the first free one behind the taken ones is looked for in leaps.
  let [taken, free] = [0, 1];
  while (await nth(free)) [taken, free] = [free, free * 2];
  while (free - taken > 1) {
    const middle = Math.floor((taken + free) / 2);
    if (await nth(middle)) taken = middle;
    else free = middle;
  }
  return nthCitekey(stem, free);
}
