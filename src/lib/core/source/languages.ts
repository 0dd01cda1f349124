/**
 * Bibliographic codes of ISO 639-2, which differ from the terminological ones that BCP 47 knows, and what they are there.
 * Source: Library of Congress, "Codes for the Representation of Names of Languages", codes marked (B).
 */
const BIBLIOGRAPHIC: Readonly<Record<string, string>> = {
  alb: 'sq', arm: 'hy', baq: 'eu', bur: 'my', chi: 'zh', cze: 'cs', dut: 'nl', fre: 'fr', geo: 'ka', ger: 'de', gre: 'el',
  ice: 'is', mac: 'mk', mao: 'mi', may: 'ms', per: 'fa', rum: 'ro', slo: 'sk', tib: 'bo', wel: 'cy',
}; // prettier-ignore

let names: Map<string, string> | undefined;

/** Languages by their names in English and in themselves, as Unicode CLDR has them (through Intl). */
function byName(): Map<string, string> {
  if (names) return names;
  names = new Map();
  const english = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'none' });
  const letters = [...'abcdefghijklmnopqrstuvwxyz'];
  for (const a of letters)
    for (const b of letters) {
      const code = a + b;
      const name = english.of(code);
      // Codes that were given up are other names of those in use.
      if (!name || Intl.getCanonicalLocales(code)[0] !== code) continue;
      for (const one of [
        name,
        new Intl.DisplayNames([code], { type: 'language', fallback: 'none' }).of(code),
      ])
        if (one && !names.has(one.toLowerCase())) names.set(one.toLowerCase(), code);
    }
  return names;
}

/**
 * A language as pages and files name it, as a tag of BCP 47: `fin`, `Finnish`, `suomi` are `fi`; `en_GB` is `en-GB`. Empty
 * when it names no language.
 */
export function languageTag(text: string): string {
  const t = text.trim().slice(0, 60);
  let tag = tags.get(t);
  if (tag === undefined) {
    if (tags.size >= MOST_TAGS) tags.clear();
    tags.set(t, (tag = tagOf(t)));
  }
  return tag;
}

/** The language of a tag, without where and how it is written: `de` of `de-AT`. */
export const languageOf = (tag: string): string => tag.split('-', 1)[0]!.toLowerCase();

/** What was asked before: a library says the same few languages thousands of times. */
const tags = new Map<string, string>();
const MOST_TAGS = 2_000;

function tagOf(t: string): string {
  const named = byName().get(t.toLowerCase());
  if (named) return named;
  const m = /^([a-z]{2,3})((?:[-_][a-z0-9]{2,8})*)$/i.exec(t);
  if (!m) return '';
  const base = m[1]!.toLowerCase();
  try {
    const [tag] = Intl.getCanonicalLocales((BIBLIOGRAPHIC[base] ?? base) + m[2]!.replace(/_/g, '-'));
    const known = new Intl.DisplayNames(['en'], { type: 'language', fallback: 'none' }).of(
      tag!.split('-')[0]!,
    );
    return known ? tag! : '';
  } catch {
    return '';
  }
}
