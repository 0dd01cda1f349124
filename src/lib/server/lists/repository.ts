import { resolve } from 'node:path';
import type { StyleFacts } from '../../core/citing';
import type { CatalogueStyle } from '../catalogue';
import { scoped, type Context } from '../access/context';
import { newId, now } from '../db/ids';
import { placeOf } from '../files/store';
import { notHere, Refusal } from '../access/refusal';

interface Row {
  id: string;
  library_id: string;
  title: string;
  sha256: string;
  format: string;
  has_list: 0 | 1;
  fields: string;
  locale: string | null;
  binned: string | null;
}

/** A style a person brought: its `file` is where its .csl is kept. */
export interface OwnStyle extends CatalogueStyle {
  id: string;
}

const opened = (row: Row): OwnStyle => ({
  id: row.id,
  title: row.title,
  format: row.format,
  fields: JSON.parse(row.fields) as string[],
  file: resolve(placeOf(row.sha256)),
  hasList: Boolean(row.has_list),
  ...(row.locale ? { locale: row.locale } : {}),
});

/** The styles people brought to the library, by title. */
export const listOwnStyles = async (ctx: Context): Promise<OwnStyle[]> =>
  ((await scoped<Row>(ctx, 'own_style').whereNull('binned').orderBy('title')) as Row[]).map(opened);

/** A style that was brought to the library. */
export async function findOwnStyle(ctx: Context, id: string): Promise<OwnStyle | undefined> {
  const row = (await scoped<Row>(ctx, 'own_style').where({ id }).whereNull('binned').first()) as
    Row | undefined;
  return row && opened(row);
}

/** Keeps a style; one of the same title is replaced, and what is printed in it is printed in the new one from now on. */
export async function keepOwnStyle(
  ctx: Context,
  style: { title: string; sha256: string; facts: StyleFacts },
): Promise<OwnStyle> {
  const before = (await scoped<Row>(ctx, 'own_style').where({ title: style.title }).first()) as
    Row | undefined;
  const row = {
    id: before?.id ?? `own-${newId()}`,
    library_id: ctx.libraryId,
    title: style.title,
    sha256: style.sha256,
    format: style.facts.format,
    has_list: style.facts.hasList ? (1 as const) : (0 as const),
    fields: JSON.stringify(style.facts.fields),
    locale: style.facts.locale ?? null,
    binned: null,
  };
  await ctx
    .db('own_style')
    .insert({ ...row, owner_id: ctx.personId, added: now() })
    .onConflict('id')
    .merge(['sha256', 'format', 'has_list', 'fields', 'locale', 'binned']);
  return opened(row);
}

/** Takes a style out of the catalogue; one that a project prints in stays, since nothing of the project could be printed. */
export async function takeOutOwnStyle(ctx: Context, id: string): Promise<void> {
  const using = (await scoped<{ style: string; name: string }>(ctx, 'project')
    .where({ style: id })
    .select('name')) as { name: string }[];
  if (using.length)
    throw new Refusal(
      409,
      `${using.map((p) => p.name).join(', ')} prints in this style. Choose another there first.`,
    );
  const changed = await scoped<Row>(ctx, 'own_style').where({ id }).update({ binned: now() });
  if (changed !== 1) throw notHere('style');
}

/** The styles a person keeps at hand, last chosen first. */
export async function favouriteStyles(ctx: Context): Promise<Set<string>> {
  const rows = (await scoped<{ style: string; at: string; person_id: string }>(ctx, 'favourite_style')
    .where({ person_id: ctx.personId })
    .orderBy('at', 'desc')) as { style: string }[];
  return new Set(rows.map((r) => r.style));
}

/** Keeps a style at hand, or no longer. */
export async function setFavourite(ctx: Context, style: string, favourite: boolean): Promise<void> {
  const row = { library_id: ctx.libraryId, person_id: ctx.personId, style };
  if (favourite)
    await ctx
      .db('favourite_style')
      .insert({ ...row, at: now() })
      .onConflict(['library_id', 'person_id', 'style'])
      .ignore();
  else await ctx.db('favourite_style').where(row).delete();
}
