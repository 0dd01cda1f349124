import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { localeLabel, LOCALES, STYLES, styleLabel } from '../core/citing';
import { fold } from '../core/text';
import { config } from './config';
import { Refusal } from './access/refusal';

/** A style of the catalogue. `file` is the package's asset file it is in. */
export interface CatalogueStyle {
  title: string;
  format: string;
  fields: string[];
  file: string;
  hasList: boolean;
  locale?: string;
}

interface Catalogue {
  styles: Record<string, CatalogueStyle>;
  locales: Record<string, string>;
}

let loaded: Catalogue | undefined;

function catalogue(): Catalogue {
  loaded ??= JSON.parse(readFileSync(join(config.buildFolder, 'catalogue.json'), 'utf8')) as Catalogue;
  return loaded;
}

/** Styles people brought, by id; filled from the database at start and kept in step with it. */
const brought = new Map<string, OwnStyle>();

/** A style a person brought: its `file` is where its .csl is kept. */
export interface OwnStyle extends CatalogueStyle {
  id: string;
  libraryId: string;
}

/** Makes a brought style known here, or forgets it. */
export const knowStyle = (style: OwnStyle): void => void brought.set(style.id, style);
export const forgetStyle = (id: string): void => void brought.delete(id);

/** Whether the catalogue has a style. */
export const isStyle = (id: string): boolean =>
  brought.has(id) || ownEntry(catalogue().styles, id) !== undefined;

/** An entry of a table by a name from outside, which may be that of something every object has. */
const ownEntry = <T>(table: Record<string, T>, name: string): T | undefined =>
  Object.hasOwn(table, name) ? table[name] : undefined;

/** A style by its id; refuses when the catalogue has none. */
export function styleOf(id: string): CatalogueStyle {
  const style = brought.get(id) ?? ownEntry(catalogue().styles, id);
  if (!style) throw new Refusal(422, `There is no style “${id}” in the catalogue. Choose another style.`);
  return style;
}

/** The asset file of a language's locale; refuses when there is none. */
export function localeFile(id: string): string {
  const file = ownEntry(catalogue().locales, id);
  if (!file)
    throw new Refusal(422, `There is no language “${id}” in the catalogue. Choose another language.`);
  return file;
}

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
}

/** Styles that answer a query: favourites, then a person's own, then those offered first, then by name; at most `limit`. */
export function findStyles(
  { words = '', format, field }: StyleQuery,
  libraryId: string,
  favourites: Set<string>,
  limit = 60,
): FoundStyle[] {
  const wanted = fold(words).split(' ').filter(Boolean);
  const first = STYLES.map((s) => s.id);
  const own = [...brought.values()].filter((s) => s.libraryId === libraryId).map((s) => s.id);
  const ids = new Set([...favourites, ...own, ...first, ...Object.keys(catalogue().styles).sort()]);
  return [...ids]
    .flatMap((id) => {
      const style = brought.get(id) ?? catalogue().styles[id];
      if (!style || (format && style.format !== format) || (field && !style.fields.includes(field)))
        return [];
      const label = styleName(id);
      if (!wanted.every((w) => fold(`${label} ${id} ${style.title}`).includes(w))) return [];
      return [{ id, label, format: style.format, favourite: favourites.has(id), own: brought.has(id) }];
    })
    .slice(0, limit);
}

/** A style's name as shown anywhere. */
export const styleName = (id: string): string =>
  STYLES.some((s) => s.id === id)
    ? styleLabel(id)
    : (brought.get(id)?.title ?? ownEntry(catalogue().styles, id)?.title ?? id);

let offered: { id: string; label: string }[] | undefined;

/** All languages of the package, those offered first at the top. Every page asks for them. */
export const languages = (): { id: string; label: string }[] => (offered ??= allLanguages());

function allLanguages(): { id: string; label: string }[] {
  const rest = Object.keys(catalogue().locales)
    .filter((id) => !LOCALES.some((l) => l.id === id))
    .map((id) => ({ id, label: localeLabel(id) }))
    .sort((a, b) => a.label.localeCompare(b.label, 'en'));
  return [...LOCALES, ...rest];
}
