import { languageOf, languageTag } from './languages';
import type { SourceRecord } from './schema';

/** Titles that may be told in other languages. */
export const TRANSLATED = ['title', 'container-title'] as const;
export type Translated = (typeof TRANSLATED)[number];

/** A language as its tag of two or three letters, with what follows. BCP 47, 2.1. */
export const LANGUAGE_TAG = /^[a-z]{2,3}(?:-[A-Za-z0-9]{2,8})*$/;

/** A title of a work in a language that is not the work’s own. */
export interface Translation {
  of: Translated;
  /** Its tag. */
  language: string;
  text: string;
}

/** Of a value, what plainly are translations. Asked wherever something prints, and so without the schema. */
function plainlyTranslations(value: unknown): Translation[] {
  if (!Array.isArray(value)) return [];
  return (value as Partial<Record<keyof Translation, unknown>>[]).filter(
    (one): one is Translation =>
      (TRANSLATED as readonly unknown[]).includes(one?.of) &&
      typeof one.language === 'string' &&
      LANGUAGE_TAG.test(one.language) &&
      typeof one.text === 'string' &&
      one.text !== '',
  );
}

/**
 * The titles of a work in other languages. A record has them in `custom`, where CSL-JSON 1.0.2 keeps what it has no field
 * for, as `translations`; what stands there in another shape is none.
 */
export const translationsOf = (record: Pick<SourceRecord, 'custom'>): Translation[] =>
  plainlyTranslations(record.custom?.translations);

/** A record with other translations; those without text, and all but the last of a title and a language, are left out. */
export function withTranslations(record: SourceRecord, given: readonly Translation[]): SourceRecord {
  const kept = new Map(given.map((one) => [`${one.of} ${languageOf(one.language)}`, one]));
  const told = [...kept.values()].filter(({ text }) => text);
  const { custom, ...rest } = record;
  const { translations: _before, ...others } = custom ?? {};
  const next = { ...others, ...(told.length ? { translations: told } : {}) };
  return Object.keys(next).length ? { ...rest, custom: next } : rest;
}

/** A title of a work in the language a list is in; nothing where the work is in that language itself. */
export function translationIn(
  item: { custom?: unknown; language?: string | undefined },
  of: string,
  lang: string,
): string {
  const told = (item.custom as { translations?: unknown } | undefined)?.translations;
  if (!told) return '';
  const wanted = languageOf(lang);
  if (item.language && languageOf(languageTag(item.language)) === wanted) return '';
  return plainlyTranslations(told).find((t) => t.of === of && languageOf(t.language) === wanted)?.text ?? '';
}

/** Translations in a line, for showing what was changed. */
export const translationsText = (told: readonly Translation[]): string =>
  told.map(({ language, text }) => `${language}: ${text}`).join('; ');
