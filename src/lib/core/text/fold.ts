import { decodeHTMLStrict } from 'entities';
/** Letters that do not decompose under NFKD and still have a plain Latin counterpart. */
const LETTERS: Record<string, string> = {
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  ø: 'o',
  ł: 'l',
  đ: 'd',
  ð: 'd',
  þ: 'th',
  ı: 'i',
  ħ: 'h',
};
const LETTER = new RegExp(`[${Object.keys(LETTERS).join('')}]`, 'g');

/** Text in Unicode normalisation form C, the form everything is stored in. */
export function nfc(text: string): string {
  return text.normalize('NFC');
}

/** White space runs become one space; ends are trimmed. */
export function squash(text: string): string {
  return text.replace(/\s+/gu, ' ').trim();
}

/**
 * The one comparison form of the product: lower case, no diacritics, no punctuation, single spaces.
 * Letters and digits of every script are kept. Fields that differ only in these ways fold alike.
 */
export function fold(text: string): string {
  return text
    .normalize('NFKD')
    .replace(/\p{M}+/gu, '')
    .toLowerCase()
    .replace(LETTER, (c) => LETTERS[c] ?? c)
    .replace(/['’ʼ]/gu, '')
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
}

/** The words of a folded text. */
export function foldWords(text: string): string[] {
  const folded = fold(text);
  return folded === '' ? [] : folded.split(' ');
}

/** Character references, by name (those of HTML) or number, to characters; what ends without `;` is none. */
export const decodeEntities = (text: string): string => decodeHTMLStrict(text);

/** Characters that would be markup, as character references. */
export function escapeHtml(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
}

/** CSL rich text (`<i>`, `<b>`, `<sup>`, `<sub>`, `<span …>`, `<sc>`) without its markup. */
export function plain(text: string): string {
  return text.replace(/<\/?(?:i|b|sup|sub|sc|span)(?:\s[^<>]*)?>/gi, '');
}
