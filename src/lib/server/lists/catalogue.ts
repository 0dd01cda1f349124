import { styleLanguage, type Tree } from '../../core/citing';
import { fold } from '../../core/text';
import { localeTree, styleTree } from '../../reading/styles';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import {
  isLanguage,
  localeFile,
  shippedName,
  shippedStyle,
  shippedStyles,
  type CatalogueStyle,
} from '../catalogue';
import { favouriteStyles, findOwnStyle, listOwnStyles } from './repository';

/** A style by its id, one that ships or one of the library's own; refuses when there is none. */
export async function styleOf(ctx: Context, id: string): Promise<CatalogueStyle> {
  const style = shippedStyle(id) ?? (await findOwnStyle(ctx, id));
  if (!style) throw new Refusal(422, `There is no style “${id}” in the catalogue. Choose another style.`);
  return style;
}

/** A style's name as shown anywhere, its id where there is none, and the language it is written for, where it says one. */
export async function styleSaid(
  ctx: Context,
  id: string,
): Promise<{ title: string; language: string | undefined }> {
  const style = shippedStyle(id) ?? (await findOwnStyle(ctx, id));
  return {
    title: shippedName(id) ?? style?.title ?? id,
    language: style && styleLanguage(style, isLanguage),
  };
}

/** A style's name as shown anywhere; its id where there is none. */
export const styleName = async (ctx: Context, id: string): Promise<string> =>
  (await styleSaid(ctx, id)).title;

/** What styles are asked for: words of their name, how they cite, a field of study. */
export interface StyleQuery {
  words?: string;
  format?: string;
  field?: string;
}

export interface FoundStyle {
  id: string;
  label: string;
  format: string;
  favourite: boolean;
  own: boolean;
  /** The language it is written for, where it says one. */
  language: string | undefined;
}

/** Styles that answer a query: favourites, then the library's own, then those offered first, then by name; at most `limit`. */
export async function findStyles(
  ctx: Context,
  { words = '', format, field }: StyleQuery,
  limit = 60,
): Promise<FoundStyle[]> {
  const wanted = fold(words).split(' ').filter(Boolean);
  const favourites = await favouriteStyles(ctx);
  const own = new Map((await listOwnStyles(ctx)).map((style) => [style.id, style]));
  const ids = new Set([...favourites, ...own.keys(), ...shippedStyles()]);
  return [...ids]
    .flatMap((id) => {
      const style = own.get(id) ?? shippedStyle(id);
      if (!style || (format && style.format !== format) || (field && !style.fields.includes(field)))
        return [];
      const label = own.get(id)?.title ?? shippedName(id) ?? id;
      if (!wanted.every((w) => fold(`${label} ${id} ${style.title}`).includes(w))) return [];
      const language = styleLanguage(style, isLanguage);
      return [{ id, label, format: style.format, favourite: favourites.has(id), own: own.has(id), language }];
    })
    .slice(0, limit);
}

/** A style and the locale of a language as they are, for printing where they are sent. */
export async function styleSent(
  ctx: Context,
  { style, locale }: { style: string; locale: string },
): Promise<{ style: Tree; locale: Tree; lang: string }> {
  const { file } = await styleOf(ctx, style);
  return { style: styleTree(style, file), locale: localeTree(localeFile(locale)), lang: locale };
}
