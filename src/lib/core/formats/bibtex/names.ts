import type { CslName } from '../../source';
import { bracesOf } from './macros';
import { texToText, textToTex } from './tex';

/** The two dialects of the .bib file. */
export type Dialect = 'bibtex' | 'biblatex';

/** Splits at a separator pattern outside braces. */
export function splitOutside(text: string, separator: RegExp): string[] {
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

/** The items of a list joined by `and`: names, publishers, places. */
export const itemsOf = (tex: string) => splitOutside(tex.replace(/\s{2,}/g, ' '), /\s+and(?=\s)/iy);

/** Whether a word belongs to the particle: its first letter outside protecting braces is small (btxdoc, section 4, item 18). */
const lower = (word: string) => !/^\{(?!\\)/.test(word) && /^\p{Ll}/u.test(texToText(word));
const braced = (tex: string) => tex.startsWith('{') && bracesOf(tex)(0)?.end === tex.length;

const parts = (von: string[], last: string, given: string, suffix: string): CslName => {
  const name = {
    'non-dropping-particle': texToText(von.join(' ')),
    family: texToText(last),
    given: texToText(given),
    suffix: texToText(suffix),
  };
  return Object.fromEntries(Object.entries(name).filter(([, v]) => v)) as CslName;
};

/** `family=…, given=…, prefix=…, suffix=…, useprefix=…`: the extended name format (biblatex manual, 3.7). */
function extendedName(tex: string): CslName | undefined {
  const fields = new Map<string, string>();
  for (const part of splitOutside(tex, /,/y)) {
    const m = /^"?\s*([a-z]+(?:-i)?)\s*=\s*([\s\S]*?)\s*"?$/i.exec(part);
    if (!m) return undefined;
    fields.set(m[1]!.toLowerCase(), m[2]!);
  }
  const get = (field: string) => texToText(fields.get(field) ?? '');
  const particle =
    fields.get('useprefix')?.trim() === 'false' ? 'dropping-particle' : 'non-dropping-particle';
  const name = {
    [particle]: get('prefix'),
    family: get('family'),
    given: get('given'),
    suffix: get('suffix'),
  };
  const known = Object.entries(name).filter(([, v]) => v);
  return known.length ? (Object.fromEntries(known) as CslName) : undefined;
}

/** Longest text that is taken apart as a name, in characters; a longer one is kept whole. */
const LONGEST_NAME = 2_000;

function oneName(tex: string): CslName | undefined {
  if (braced(tex)) {
    const literal = texToText(tex);
    return literal ? { literal } : undefined;
  }
  if (tex.length > LONGEST_NAME) {
    const literal = texToText(tex);
    return literal ? { literal } : undefined;
  }
  if (/^"?\s*(?:family|given|prefix|suffix)\s*=/i.test(tex)) {
    const extended = extendedName(tex);
    if (extended) return extended;
  }
  const commas = splitOutside(tex, /,/y);
  const words = splitOutside(commas[0] ?? '', /[\s~]+/y);
  if (words.length === 0) return undefined;
  if (commas.length === 1) {
    if (words.length === 1) return parts([], tex, '', '');
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
  let von = 0;
  while (von < words.length - 1 && lower(words[von]!)) von++;
  const suffix = commas.length > 2 ? commas[1]! : '';
  const given = commas.length > 2 ? commas.slice(2).join(', ') : commas[1]!;
  return parts(words.slice(0, von), words.slice(von).join(' '), given, suffix);
}

/** The last of a list of names that goes on (btxdoc, section 4, item 18). */
export const OTHERS = 'others';

/**
 * The names of a name field: `First von Last`, `von Last, First` and `von Last, Jr, First`, joined by `and`
 * (btxdoc, section 4, item 18), and the extended format of biblatex. A name in braces is an institution. `and others`
 * is no person. What gives no name, such as a macro that is not known, is kept whole and told in `unread`. `useprefix` false makes particles ones that drop from the family name.
 */
export function namesFromTex(
  tex: string,
  useprefix = true,
): { names: CslName[]; others: boolean; unread: string[] } {
  const all = itemsOf(tex);
  const others = all.length > 0 && all[all.length - 1]!.toLowerCase() === OTHERS;
  const unread: string[] = [];
  const names = (others ? all.slice(0, -1) : all).map((item): CslName => {
    const name = oneName(item);
    if (name && (name.family || name.given || name.literal)) return name;
    // A macro nobody knows is no name, and yet somebody: it stays as it stands.
    unread.push(item);
    return { literal: item };
  });
  if (useprefix) return { names, others, unread };
  return {
    names: names.map(({ 'non-dropping-particle': particle, ...n }) => ({
      ...n,
      ...(particle ? { 'dropping-particle': particle } : {}),
    })),
    others,
    unread,
  };
}

const joins = /(?:^|\s)and(?=\s|$)|,/i;
const guarded = (part: string) => (joins.test(part) ? `{${textToTex(part)}}` : textToTex(part));
/** A family name whose words would be taken for a particle, or that is several words, guarded where it must be. */
const familyTex = (family: string) =>
  /(?:^|\s)\p{Ll}\S*/u.test(family) ? `{${textToTex(family)}}` : guarded(family);

function extendedTex(n: CslName): string {
  const particle = n['dropping-particle'] ?? n['non-dropping-particle'];
  return [
    ['family', n.family],
    ['given', n.given],
    ['prefix', particle],
    ['suffix', n.suffix],
  ]
    .flatMap(([part, value]) => (value ? `${part}={${textToTex(value)}}` : []))
    .concat(n['dropping-particle'] ? ['useprefix=false'] : [])
    .join(', ');
}

/**
 * Names to a name field, in the form `von Last, Jr, First`. What that form cannot say goes in biblatex's extended
 * format, and in BibTeX is reported: `lose` is called with the reason.
 */
export function namesToTex(names: CslName[], dialect: Dialect, lose: (reason: string) => void): string {
  return names
    .map((n) => {
      if (n['static-ordering'] || n['comma-suffix'])
        lose(`the order or comma set by hand for ${n.family ?? n.literal ?? ''} is not kept`);
      if (n.literal) {
        if (n.family) lose(`of ${n.literal} and ${n.family} only the first is kept`);
        return `{${textToTex(n.literal)}}`;
      }
      const family = n.family ?? '';
      const particles = [n['dropping-particle'], n['non-dropping-particle']].filter(Boolean);
      const several = !n.given && !n.suffix && particles.length === 0 && /\s|^others$|,/.test(family);
      const oddParticle = particles.some((p) => !p!.split(' ').every((w) => /^\p{Ll}/u.test(w)));
      if (
        !family ||
        several ||
        oddParticle ||
        n['dropping-particle'] ||
        (n.suffix && !n.given && dialect === 'biblatex')
      ) {
        if (dialect === 'biblatex' && particles.length < 2) return extendedTex(n);
        if (n['dropping-particle'] || oddParticle)
          lose(
            `${dialect === 'bibtex' ? 'BibTeX' : 'BibLaTeX'} cannot tell how the particle “${particles.join(' ')}” belongs to ${family}`,
          );
        else if (several) lose(`BibTeX cannot tell the single name ${family} from an institution`);
        else if (!family) lose(`BibTeX takes ${n.given ?? ''} for a family name`);
      }
      if (several) return `{${textToTex(family)}}`;
      const last = [textToTex(particles.join(' ')), familyTex(family)].filter(Boolean).join(' ');
      const given = n.given ? guarded(n.given) : '';
      if (!family) return given;
      if (n.suffix) return `${last}, ${guarded(n.suffix)}, ${given || '{}'}`;
      return given ? `${last}, ${given}` : last;
    })
    .join(' and ');
}
