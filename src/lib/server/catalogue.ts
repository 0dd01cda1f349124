import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { LOCALES, STYLES, styleLabel } from '../core/citing';
import { fold } from '../core/text';
import { config } from './config';
import { Refusal } from './refusal';

/** A style of the catalogue. `file` is the package's asset file it is in. */
export interface CatalogueStyle {
  title: string;
  format: string;
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

/** A style by its id; refuses when the catalogue has none. */
export function styleOf(id: string): CatalogueStyle {
  const style = catalogue().styles[id];
  if (!style) throw new Refusal(422, `There is no style “${id}” in the catalogue. Choose another style.`);
  return style;
}

/** The asset file of a language's locale; refuses when there is none. */
export function localeFile(id: string): string {
  const file = catalogue().locales[id];
  if (!file)
    throw new Refusal(422, `There is no language “${id}” in the catalogue. Choose another language.`);
  return file;
}

/** Styles whose name has all the words, the ones offered first at the top; at most `limit`. */
export function findStyles(words: string, limit = 40): { id: string; label: string; format: string }[] {
  const wanted = fold(words).split(' ').filter(Boolean);
  const first = STYLES.map((s) => s.id);
  const { styles } = catalogue();
  const all = [
    ...first,
    ...Object.keys(styles)
      .filter((id) => !first.includes(id))
      .sort(),
  ];
  return all
    .map((id) => ({
      id,
      label: first.includes(id) ? styleLabel(id) : styles[id]!.title,
      format: styles[id]!.format,
    }))
    .filter(({ id, label }) => wanted.every((w) => fold(`${label} ${id} ${styles[id]!.title}`).includes(w)))
    .slice(0, limit);
}

/** A style's name as shown anywhere. */
export const styleName = (id: string): string =>
  STYLES.some((s) => s.id === id) ? styleLabel(id) : (catalogue().styles[id]?.title ?? id);

/** All languages of the package, those offered first at the top. */
export function languages(): { id: string; label: string }[] {
  const names = new Intl.DisplayNames(['en'], { type: 'language' });
  const rest = Object.keys(catalogue().locales)
    .filter((id) => !LOCALES.some((l) => l.id === id))
    .map((id) => ({ id, label: names.of(id) ?? id }))
    .sort((a, b) => a.label.localeCompare(b.label, 'en'));
  return [...LOCALES, ...rest];
}
