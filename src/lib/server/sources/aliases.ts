import { scoped, type Context } from '../access/context';

/** A citekey that leads to a source beside its own. */
export interface Alias {
  alias: string;
  source_id: string;
}

/** Makes a citekey lead to a source beside its own; says whether it was free for that. */
export async function leadTo(ctx: Context, alias: string, sourceId: string): Promise<boolean> {
  if (await scoped(ctx, 'source').where({ citekey: alias }).whereNot({ id: sourceId }).first('id'))
    return false;
  const led = (await ctx
    .db('alias')
    .insert({ library_id: ctx.libraryId, alias, source_id: sourceId })
    .onConflict(['library_id', 'alias'])
    .ignore()
    .returning('alias')) as unknown[];
  return led.length > 0;
}

/** Makes the id or the citekey of a source that went into another lead there, wherever it led before. */
export async function leadOver(ctx: Context, alias: string, sourceId: string): Promise<void> {
  await ctx
    .db('alias')
    .insert({ library_id: ctx.libraryId, alias, source_id: sourceId })
    .onConflict(['library_id', 'alias'])
    .merge();
}

/** Takes back that a citekey leads to a source. */
export async function leadNoMore(ctx: Context, alias: string, sourceId: string): Promise<void> {
  await scoped(ctx, 'alias').where({ alias, source_id: sourceId }).delete();
}

/** Whether a citekey belongs to a source other than one, or leads to one. */
export async function keyTaken(ctx: Context, key: string, except: string): Promise<boolean> {
  return Boolean(
    (await scoped(ctx, 'source').where({ citekey: key }).whereNot({ id: except }).first('id')) ??
    (await scoped(ctx, 'alias').where({ alias: key }).whereNot({ source_id: except }).first('alias')),
  );
}
