import { nodesNamed, type Tree } from './tree';

export type TermForm = 'long' | 'short' | 'verb' | 'verb-short' | 'symbol';
export type Gender = 'masculine' | 'feminine' | 'neuter';

interface Term {
  single: string;
  multiple: string;
  gender?: Gender;
  match?: 'last-digit' | 'last-two-digits' | 'whole-number';
}

/** What a language says for a style: terms, its two forms of dates, and its ways with quotation marks and first days. */
export interface Locale {
  lang: string;
  /** A term in a form, or in the next form there is one of; nothing when the language has none. CSL 1.0.2, "Terms". */
  term(name: string, form?: TermForm, plural?: boolean, gender?: Gender): string | undefined;
  /** A term in this very form. */
  own(name: string, form: TermForm): string | undefined;
  genderOf(name: string): Gender | undefined;
  /** What stands behind a number: "st", "nd". CSL 1.0.2, "Ordinal Suffixes". */
  ordinalSuffix(number: number, gender?: Gender): string;
  date(form: string): Tree | undefined;
  punctuationInQuote: boolean;
  limitDayOrdinals: boolean;
  quotes: { outer: [string, string]; inner: [string, string] };
}

/** Which form stands in for one that is missing. CSL 1.0.2, "Terms". */
const NEXT: Record<TermForm, TermForm | undefined> = {
  'verb-short': 'verb',
  symbol: 'short',
  verb: 'long',
  short: 'long',
  long: undefined,
};

const textIn = (tree: Tree | undefined) =>
  tree ? tree.children.filter((c) => typeof c === 'string').join('') : '';

/** Languages of two letters, and the dialect that stands for them; CSL locales, "primary dialects". */
const PRIMARY: Record<string, string> = {
  af: 'af-ZA', ar: 'ar', bg: 'bg-BG', ca: 'ca-AD', cs: 'cs-CZ', cy: 'cy-GB', da: 'da-DK', de: 'de-DE', el: 'el-GR', en: 'en-US',
  es: 'es-ES', et: 'et-EE', eu: 'eu', fa: 'fa-IR', fi: 'fi-FI', fr: 'fr-FR', he: 'he-IL', hr: 'hr-HR', hu: 'hu-HU', id: 'id-ID',
  is: 'is-IS', it: 'it-IT', ja: 'ja-JP', km: 'km-KH', ko: 'ko-KR', lt: 'lt-LT', lv: 'lv-LV', mn: 'mn-MN', nb: 'nb-NO',
  nl: 'nl-NL', nn: 'nn-NO', pl: 'pl-PL', pt: 'pt-PT', ro: 'ro-RO', ru: 'ru-RU', sk: 'sk-SK', sl: 'sl-SI', sr: 'sr-RS',
  sv: 'sv-SE', th: 'th-TH', tr: 'tr-TR', uk: 'uk-UA', vi: 'vi-VN', zh: 'zh-CN',
}; // prettier-ignore

/** A language as the dialect whose locale is meant. */
export const dialectOf = (lang: string): string => PRIMARY[lang.toLowerCase()] ?? lang;

/**
 * The parts of a style that speak for a language, nearest first: of the dialect, of the main one of its language (common
 * practice, which citeproc-js and pandoc share), of its language, of all. CSL 1.0.2, "Locale Fallback".
 */
export function localesIn(style: Tree, lang: string): Tree[] {
  const own = style.children.filter((c): c is Tree => typeof c !== 'string' && c.name === 'locale');
  const base = lang.slice(0, 2).toLowerCase();
  const of = (wanted: string | undefined) =>
    own.filter((l) => l.attrs['xml:lang']?.toLowerCase() === wanted?.toLowerCase());
  const spoken = new Set([lang, dialectOf(base), base].map((l) => l.toLowerCase()));
  return [...[...spoken].flatMap(of), ...of(undefined)];
}

/** What one locale says, or one part of a style that speaks for a language. */
interface Layer {
  /** By name, form and gender, `|` between. */
  terms: Map<string, Term>;
  /** By name and gender. */
  ordinals: Map<string, Term>;
  dates: Map<string, Tree>;
  options: Record<string, string>;
}

/** Locales are read once, however many styles are compiled for them. */
const layers = new WeakMap<Tree, Layer>();

function layerOf(tree: Tree): Layer {
  const known = layers.get(tree);
  if (known) return known;
  const layer: Layer = { terms: new Map(), ordinals: new Map(), dates: new Map(), options: {} };
  for (const term of nodesNamed(tree, 'term')) {
    const { name = '', form = 'long', gender, 'gender-form': genderForm, match } = term.attrs;
    const [single] = nodesNamed(term, 'single');
    const [multiple] = nodesNamed(term, 'multiple');
    const plain = textIn(term);
    const made: Term = {
      single: single ? textIn(single) : multiple ? textIn(multiple) : plain,
      multiple: multiple ? textIn(multiple) : single ? textIn(single) : plain,
      ...(gender ? { gender: gender as Gender } : {}),
      ...(match ? { match: match as 'last-digit' } : {}),
    };
    if (/^ordinal(?:-\d\d)?$/.test(name)) layer.ordinals.set(`${name}|${genderForm ?? ''}`, made);
    else layer.terms.set(`${name}|${form}|${genderForm ?? ''}`, made);
  }
  for (const date of nodesNamed(tree, 'date')) {
    const { form } = date.attrs;
    if (form && !layer.dates.has(form)) layer.dates.set(form, date);
  }
  for (const option of nodesNamed(tree, 'style-options'))
    for (const [name, value] of Object.entries(option.attrs)) layer.options[name] ??= value;
  layers.set(tree, layer);
  return layer;
}

/**
 * A locale of layers, nearest first: what a nearer one says stands before what a farther one says, term by term and form
 * by form; ordinals are taken whole from the nearest that has any, but for the general one it may lack. CSL 1.0.2, "Locale Fallback" and "Ordinal Suffixes".
 */
export function openLocale(trees: Tree[], lang: string): Locale {
  const all = trees.map(layerOf);
  const nearest = <T>(said: (layer: Layer) => T | undefined): T | undefined => {
    for (const layer of all) {
      const found = said(layer);
      if (found !== undefined) return found;
    }
    return undefined;
  };
  const termAt = (key: string) => nearest(({ terms }) => terms.get(key));
  const ordinals = all.find((layer) => layer.ordinals.size > 0)?.ordinals;
  const option = (name: string) => nearest(({ options }) => options[name]);
  /** Terms without a gender by their name and form, as they were found. */
  const known = new Map<string, Map<TermForm, Term | undefined>>();
  const find = (name: string, form: TermForm, gender: string): Term | undefined => {
    for (let f: TermForm | undefined = form; f; f = NEXT[f]) {
      const found = termAt(`${name}|${f}|${gender}`) ?? (gender ? termAt(`${name}|${f}|`) : undefined);
      if (found) return found;
    }
    return undefined;
  };
  const ungendered = (name: string, form: TermForm): Term | undefined => {
    let forms = known.get(name);
    if (!forms) known.set(name, (forms = new Map<TermForm, Term | undefined>()));
    if (!forms.has(form)) forms.set(form, find(name, form, ''));
    return forms.get(form);
  };
  const term: Locale['term'] = (name, form = 'long', plural = false, gender) => {
    const found = gender ? find(name, form, gender) : ungendered(name, form);
    return found && (plural ? found.multiple : found.single);
  };
  const ordinalSuffix = (number: number, gender?: Gender): string => {
    // Some languages have no form that is neither.
    const of = (name: string) =>
      ordinals?.get(`${name}|${gender ?? ''}`) ??
      ordinals?.get(`${name}|`) ??
      (gender ? undefined : ordinals?.get(`${name}|feminine`));
    for (const ending of [number % 100, number % 10]) {
      const term = of(`ordinal-${String(ending).padStart(2, '0')}`);
      if (!term) continue;
      const match = term.match ?? (ending >= 10 ? 'last-two-digits' : 'last-digit');
      const meant = match === 'whole-number' ? number : match === 'last-digit' ? number % 10 : number % 100;
      if (meant === ending) return term.single;
    }
    return (of('ordinal') ?? nearest(({ ordinals }) => ordinals.get('ordinal|')))?.single ?? '';
  };
  const quote = (name: string, usual: string) => term(name) ?? usual;
  return {
    lang,
    term,
    own: (name, form) => termAt(`${name}|${form}|`)?.single,
    genderOf: (name) => find(name, 'long', '')?.gender,
    ordinalSuffix,
    date: (form) => nearest(({ dates }) => dates.get(form)),
    punctuationInQuote: option('punctuation-in-quote') === 'true',
    limitDayOrdinals: option('limit-day-ordinals-to-day-1') === 'true',
    quotes: {
      outer: [quote('open-quote', '“'), quote('close-quote', '”')],
      inner: [quote('open-inner-quote', '‘'), quote('close-inner-quote', '’')],
    },
  };
}
