import { languageTag, type TextVariable } from '../source';

const ORDINALS: [RegExp, string][] = [
  'first|1st|erste|première',
  'second|2nd|zweite|deuxième',
  'third|3rd|dritte|troisième',
  'fourth|4th|vierte',
  'fifth|5th|fünfte',
  'sixth|6th|sechste',
  'seventh|7th|siebte',
  'eighth|8th|achte',
  'ninth|9th|neunte',
  'tenth|10th|zehnte',
].map((words, i) => [new RegExp(`^(?:${words})$`, 'i'), String(i + 1)]);

function editionOf(text: string): string {
  const bare = text
    .replace(/[,.]?\s*\b(?:rev(?:ised)?\.?\s+)?(?:ed(?:ition|n)?|aufl(?:age)?|éd(?:ition)?)\b\.?$/i, (m) =>
      /rev/i.test(m) ? ' revised' : '',
    )
    .trim();
  const number = /^(\d{1,3})\s*(?:st|nd|rd|th|e|\.)?$/i.exec(bare)?.[1];
  return number ?? ORDINALS.find(([pattern]) => pattern.test(bare))?.[1] ?? bare;
}

/** A field's text freed of the words that styles print themselves: `Vol. 3` is 3, `3rd ed.` is 3, `en_GB` is en-GB. */
export function tidy(field: TextVariable, text: string): string {
  if (/^(?:null|undefined|n\/a|none|unknown|\[object object\])$/i.test(text)) return '';
  switch (field) {
    case 'volume':
      return text.replace(/^(?:vol(?:ume|\.)?|band|bd\.?|tome|t\.)\s*(?=[\divxlc])/i, '');
    case 'issue':
      return text.replace(/^(?:no\.?|nr\.?|n°|issue|number|heft|num\.?|iss\.)\s*(?=\w)/i, '');
    case 'edition':
      return editionOf(text);
    case 'language':
      return languageTag(text);
    case 'publisher-place':
      return text.replace(/\s*[:;,]\s*$/, '');
    case 'publisher':
      return text.replace(/\s*[;,]\s*$/, '').replace(/^(?:published by|©\s*\d{0,4})\s+/i, '');
    case 'URL':
      return /^https?:\/\//i.test(text) ? text : '';
    default:
      return text;
  }
}
