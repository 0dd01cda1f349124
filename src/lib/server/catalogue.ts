import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { localeLabel, LOCALES, STYLES, styleLabel } from '../core/citing';
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

/** An entry of a table by a name from outside, which may be that of something every object has. */
const ownEntry = <T>(table: Record<string, T>, name: string): T | undefined =>
  Object.hasOwn(table, name) ? table[name] : undefined;

/** A style that ships with the catalogue, if there is one of the id. */
export const shippedStyle = (id: string): CatalogueStyle | undefined => ownEntry(catalogue().styles, id);

/** The ids of the styles that ship, those offered first at the top, then by name. */
export const shippedStyles = (): string[] => [
  ...new Set([...STYLES.map((s) => s.id), ...Object.keys(catalogue().styles).sort()]),
];

/** What a style that ships is called, wherever it is named; nothing when there is none. */
export const shippedName = (id: string): string | undefined =>
  STYLES.some((s) => s.id === id) ? styleLabel(id) : shippedStyle(id)?.title;

/** The asset file of a language's locale; refuses when there is none. */
export function localeFile(id: string): string {
  const file = ownEntry(catalogue().locales, id);
  if (!file)
    throw new Refusal(422, `There is no language “${id}” in the catalogue. Choose another language.`);
  return file;
}

/** Whether there are terms in a language. */
export const isLanguage = (id: string): boolean => ownEntry(catalogue().locales, id) !== undefined;

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
