import { nfc, squash } from './fold';

/** Sounds of hesitation, which are no words in any of the languages spoken here; “um” is one in German, and is none before a comma. */
const HESITATION =
  /(?<![\p{L}\p{N}'’-])(?:u+h+m*|u+m{2,}|u+m(?=[,…])|e+r+m+|h+m{2,}|hm|mhm+|ä+h+m*|ö+h+m*|e+u+h+|heu+)(?![\p{L}\p{N}'’-])[,.…]*/giu;

/**
 * Words that were spoken, as they are written: hesitation taken out, blanks set, sentences begun with a capital and ended with
 * a stop. What was said is not changed otherwise.
 */
export function spokenText(text: string): string {
  const plain = squash(nfc(text).replace(HESITATION, ' '))
    .replace(/\s+([,.;:!?…])/g, '$1')
    .replace(/^[,.;:\s]+/, '')
    .replace(/([,;:])(?:\s*[,;:])+/g, '$1');
  if (!plain) return '';
  const capitals = plain.replace(
    /(^|[.!?…]["”’)]?\s+)(\p{Ll})/gu,
    (_whole, before: string, letter: string) => before + letter.toUpperCase(),
  );
  return /[.!?…]["”’)]?$/.test(capitals) ? capitals : `${capitals.replace(/[,;:]+$/, '')}.`;
}
