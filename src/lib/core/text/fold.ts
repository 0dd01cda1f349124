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

const ENTITIES: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'", nbsp: '\u00a0' };

/** Named (the five of XML, and `nbsp`) and numeric character references to characters. */
export function decodeEntities(text: string): string {
  return text.replace(/&(?:#x([0-9a-f]{1,6})|#(\d{1,7})|(\w+));/gi, (whole, hex, dec, name: string) => {
    if (name) return ENTITIES[name.toLowerCase()] ?? whole;
    const code = hex ? parseInt(hex, 16) : Number(dec);
    return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : whole;
  });
}

/** Characters that would be markup, as character references. */
export function escapeHtml(text: string): string {
  return text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;');
}

/** CSL rich text (`<i>`, `<b>`, `<sup>`, `<sub>`, `<span …>`, `<sc>`) without its markup. */
export function plain(text: string): string {
  return text.replace(/<\/?(?:i|b|sup|sub|sc|span)(?:\s[^<>]*)?>/gi, '');
}
