import { looksInstitutional, type CslName } from '../../source';
import { texToText, textToTex } from './tex';

/** Splits at a separator pattern outside braces. */
function splitOutside(text: string, separator: RegExp): string[] {
  const parts: string[] = [];
  let depth = 0;
  let from = 0;
  for (let i = 0; i < text.length; i++) {
    if (text[i] === '{') depth++;
    else if (text[i] === '}') depth--;
    else if (depth === 0) {
      separator.lastIndex = i;
      const m = separator.exec(text);
      if (m) {
        parts.push(text.slice(from, i));
        i += m[0].length - 1;
        from = i + 1;
      }
    }
  }
  parts.push(text.slice(from));
  return parts.map((p) => p.trim()).filter(Boolean);
}

const lower = (word: string) => /^\p{Ll}/u.test(texToText(word));
const parts = (von: string[], last: string, given: string, suffix: string): CslName => ({
  ...(von.length ? { 'non-dropping-particle': texToText(von.join(' ')) } : {}),
  family: texToText(last),
  ...(given ? { given: texToText(given) } : {}),
  ...(suffix ? { suffix: texToText(suffix) } : {}),
});

function oneName(tex: string): CslName {
  if (/^\{[^{}]*(?:\{[^{}]*\}[^{}]*)*\}$/.test(tex)) return { literal: texToText(tex) };
  const commas = splitOutside(tex, /,/y);
  if (commas.length === 1) {
    const words = splitOutside(tex, /[\s~]+/y);
    if (words.length === 1) {
      const only = texToText(tex);
      return looksInstitutional(only) ? { literal: only } : { family: only };
    }
    const firstLower = words.findIndex((w, i) => i < words.length - 1 && lower(w));
    if (firstLower === -1) return parts([], words[words.length - 1]!, words.slice(0, -1).join(' '), '');
    let lastLower = firstLower;
    for (let i = firstLower; i < words.length - 1; i++) if (lower(words[i]!)) lastLower = i;
    return parts(
      words.slice(firstLower, lastLower + 1),
      words.slice(lastLower + 1).join(' '),
      words.slice(0, firstLower).join(' '),
      '',
    );
  }
  const words = splitOutside(commas[0]!, /[\s~]+/y);
  let von = 0;
  while (von < words.length - 1 && lower(words[von]!)) von++;
  const suffix = commas.length > 2 ? commas[1]! : '';
  const given = commas.length > 2 ? commas.slice(2).join(', ') : commas[1]!;
  return parts(words.slice(0, von), words.slice(von).join(' '), given, suffix);
}

/**
 * The names of a BibTeX name field: `First von Last`, `von Last, First` and `von Last, Jr, First`, joined by `and`
 * (btxdoc, section 4, item 18). A name in braces is an institution. `and others` becomes a note, not a person.
 */
export function namesFromTex(tex: string): { names: CslName[]; others: boolean } {
  const all = splitOutside(tex, /\s+and(?=\s)/iy);
  const others = all.length > 0 && all[all.length - 1]!.toLowerCase() === 'others';
  return { names: (others ? all.slice(0, -1) : all).map(oneName), others };
}

const guarded = (part: string) => {
  const tex = textToTex(part);
  return /,|\sand\s/i.test(part) ? `{${tex}}` : tex;
};

/** Names to a BibTeX name field, in the form `von Last, Jr, First`. */
export function namesToTex(names: CslName[]): string {
  return names
    .map((n) => {
      if (n.literal) return `{${textToTex(n.literal)}}`;
      const von = [n['dropping-particle'], n['non-dropping-particle']].filter(Boolean).join(' ');
      const family = n.family ?? '';
      const last =
        !n.given && !n.suffix && /\s/.test(family) && !von ? `{${textToTex(family)}}` : guarded(family);
      return [
        [textToTex(von), last].filter(Boolean).join(' '),
        n.suffix && guarded(n.suffix),
        n.given && guarded(n.given),
      ]
        .filter(Boolean)
        .join(', ');
    })
    .join(' and ');
}
