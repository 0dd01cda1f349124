import { makeCitekey, USUAL_CITEKEY, type CitekeyPattern, type SourceRecord } from '../../core/source';
import { scoped, type Context } from '../context';

/** How the library makes citekeys. */
export async function citekeyPattern(ctx: Context): Promise<CitekeyPattern> {
  const row = (await ctx.db('library').where({ id: ctx.libraryId }).first('citekey_parts')) as
    { citekey_parts: string | null } | undefined;
  return row?.citekey_parts ? (JSON.parse(row.citekey_parts) as CitekeyPattern) : USUAL_CITEKEY;
}

/** Changes how citekeys are made from now on; keys that were given stay. */
export async function setCitekeyPattern(ctx: Context, pattern: CitekeyPattern): Promise<void> {
  await ctx
    .db('library')
    .where({ id: ctx.libraryId })
    .update({ citekey_parts: JSON.stringify(pattern) });
}

/** A citekey that nothing in the library has or had, but for `except`, which may keep its own. `wanted` is kept when it is free. */
export async function freeCitekey(
  ctx: Context,
  record: SourceRecord,
  options: { wanted?: string | undefined; except?: string } = {},
): Promise<string> {
  const pattern = await citekeyPattern(ctx);
  const stem = options.wanted ?? makeCitekey(record, () => false, pattern);
  // A key that is free is the stem with a letter or a number after it. A range, which the index answers, as LIKE does not.
  const near: [string, string] = [stem, options.wanted ? stem : `${stem}\u{10ffff}`];
  const [used, aliases] = await Promise.all([
    scoped<{ id: string; citekey: string }>(ctx, 'source')
      .whereBetween('citekey', near)
      .select('id', 'citekey') as Promise<{ id: string; citekey: string }[]>,
    scoped<{ alias: string; source_id: string }>(ctx, 'alias')
      .whereBetween('alias', near)
      .select('alias', 'source_id') as Promise<{ alias: string; source_id: string }[]>,
  ]);
  const taken = new Set([
    ...used.filter((r) => r.id !== options.except).map((r) => r.citekey),
    ...aliases.filter((r) => r.source_id !== options.except).map((r) => r.alias),
  ]);
  if (options.wanted)
    return taken.has(options.wanted)
      ? freeCitekey(ctx, record, { ...options, wanted: undefined })
      : options.wanted;
  return makeCitekey(record, (key) => taken.has(key), pattern);
}
