import type { Check } from '../types';

const ORDINALS = 'first second third fourth fifth sixth seventh eighth ninth tenth'.split(' ');

/**
 * The number in an edition statement such as `3rd ed.` or `Third edition`; `undefined` where other words remain
 * (`Revised edition`), which styles print as they are.
 */
export function editionNumber(edition: string): string | undefined {
  const m =
    /^(?:(\d+)(?:st|nd|rd|th|\.)?|(\p{L}+))(?:\s+(?:ed(?:ition|n)?\.?|Aufl(?:age)?\.?|éd(?:ition)?\.?))?$/iu.exec(
      edition.trim(),
    );
  if (!m) return undefined;
  if (m[1]) return m[1];
  const at = ORDINALS.indexOf((m[2] ?? '').toLowerCase());
  return at === -1 ? undefined : String(at + 1);
}

/**
 * Styles add "ed." to an edition in the language of the list. When the record says it too, some styles print it twice
 * and all print it in the record's language.
 */
export const editionWords: Check = (record) => {
  const { edition } = record;
  if (!edition) return [];
  if (/^0*1$/.test(edition) || editionNumber(edition) === '1')
    return [
      {
        check: 'edition-first',
        pencil: 'blue',
        field: 'edition',
        message: 'First edition said',
        fix: { label: 'Leave it out', edit: { edition: null } },
      },
    ];
  if (/^\d+$/.test(edition)) return [];
  const number = editionNumber(edition);
  const doubled = /\b(?:ed\.?|edition|edn\.?|Aufl\.?|Auflage)\s*$/i.test(edition);
  if (!number && !doubled) return [];
  return [
    {
      check: 'edition-words',
      pencil: doubled ? 'red' : 'blue',
      field: 'edition',
      message: doubled ? 'The edition holds “ed.” itself' : 'Edition in words',
      ...(number ? { fix: { label: `Make it ${number}`, edit: { edition: number } } } : {}),
    },
  ];
};
