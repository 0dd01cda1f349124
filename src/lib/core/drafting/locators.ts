/** Terms before a place in a work, as one writes them in English; long, short and signs of CSL 1.0.2, `locales-en-US.xml`. */
const TERMS: Record<string, string> = {
  act: 'act', appendix: 'appendix', 'app.': 'appendix', art: 'article-locator', 'art.': 'article-locator', article: 'article-locator',
  book: 'book', books: 'book', 'bk.': 'book', 'bks.': 'book', chapter: 'chapter', chapters: 'chapter', 'chap.': 'chapter', 'chaps.': 'chapter', 'ch.': 'chapter',
  column: 'column', columns: 'column', 'col.': 'column', 'cols.': 'column', equation: 'equation', 'eq.': 'equation', figure: 'figure', figures: 'figure', 'fig.': 'figure', 'figs.': 'figure',
  folio: 'folio', folios: 'folio', 'fol.': 'folio', 'fols.': 'folio', issue: 'issue', line: 'line', lines: 'line', 'l.': 'line', 'll.': 'line', note: 'note', notes: 'note', 'n.': 'note', 'nn.': 'note',
  number: 'issue', 'no.': 'issue', 'nos.': 'issue', opus: 'opus', 'op.': 'opus', page: 'page', pages: 'page', 'p.': 'page', 'pp.': 'page',
  paragraph: 'paragraph', paragraphs: 'paragraph', 'para.': 'paragraph', 'paras.': 'paragraph', '¶': 'paragraph', '¶¶': 'paragraph', part: 'part', parts: 'part', 'pt.': 'part', 'pts.': 'part',
  rule: 'rule', scene: 'scene', section: 'section', sections: 'section', 'sec.': 'section', 'secs.': 'section', '§': 'section', '§§': 'section', 'sub verbo': 'sub-verbo', 's.v.': 'sub-verbo', 'vv.': 'verse', 'v.': 'verse', verse: 'verse', verses: 'verse',
  table: 'table', 'tbl.': 'table', timestamp: 'timestamp', title: 'title-locator', volume: 'volume', volumes: 'volume', 'vol.': 'volume', 'vols.': 'volume',
}; // prettier-ignore

/** A place in a work, and what is said behind it. */
export interface Located {
  label?: string;
  locator?: string;
  suffix: string;
}

const LONGEST_TERM = 14;
const NUMBER = String.raw`\p{L}?\d+\p{L}?|[ivxlcdm]+`;
const RANGE = String.raw`(?:${NUMBER})(?:\s?(?:--?|[\u2013:.\/])\s?(?:${NUMBER}))?`;
/** Numbers and ranges in a row. */
const PLACES = new RegExp(
  String.raw`^(?:${RANGE})(?:(?:,\s?|\s?&\s?)(?:${RANGE})(?![\p{L}\p{N}]))*(?![\p{L}\p{N}])`,
  'iu',
);

/** The term a text begins with, and how long it is. */
function termIn(text: string): { label: string; length: number } | undefined {
  for (let length = Math.min(LONGEST_TERM, text.length); length > 0; length--) {
    const label = TERMS[text.slice(0, length).toLowerCase()];
    // A word is a term where it ends.
    if (label && (!/\p{L}/u.test(text[length - 1]!) || !/\p{L}/u.test(text[length] ?? ' ')))
      return { label, length };
  }
  return undefined;
}

/** A text that is a place as a whole, its term before it. */
function wholly(text: string): Omit<Located, 'suffix'> {
  const trimmed = text.trim();
  const term = termIn(trimmed);
  const locator = term ? trimmed.slice(term.length).trim() : trimmed;
  return locator ? { label: term?.label ?? 'page', locator } : {};
}

/**
 * What stands behind a citekey: a place in the work and what follows it. In braces it is a place as a whole, and empty braces
 * say that there is none; else a term with numbers, or numbers alone, which are pages. Pandoc User's Guide, "Citation syntax".
 */
export function parseLocated(text: string): Located {
  const braced = /^(?:,?\s*)\{([^{}]*)\}/.exec(text);
  if (braced) return { ...wholly(braced[1]!), suffix: text.slice(braced[0].length) };
  const lead = /^,?\s*/.exec(text)![0];
  const rest = text.slice(lead.length);
  const term = termIn(rest);
  const gap = term ? /^\s*/.exec(rest.slice(term.length))![0].length : 0;
  const from = (term?.length ?? 0) + gap;
  const places = PLACES.exec(rest.slice(from, from + 400));
  // Without a term, letters alone are words.
  if (!places || (!term && !/\d/.test(places[0]))) return { suffix: text };
  return {
    label: term?.label ?? 'page',
    locator: places[0],
    suffix: rest.slice(from + places[0].length),
  };
}
