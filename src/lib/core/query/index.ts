import { fold, foldWords, squash } from '../text';
import { CSL_TYPES, TYPE_LABELS, type CslType } from '../source';

/** What a query can ask a source for by name, and what may stand behind it. */
export const QUERY_FIELDS = {
  author: { what: 'a creator’s name, of any role', example: 'author:pell' },
  title: { what: 'words of the title', example: 'title:"tide mills"' },
  from: { what: 'what it appeared in, or its publisher', example: 'from:"marsh letters"' },
  year: { what: 'a year, or from one to another', example: 'year:1990-2005' },
  person: { what: 'a person of any role, by the whole name', example: 'person:"Pell, Anna"' },
  container: { what: 'the whole title of what it appeared in', example: 'container:"Marsh Letters"' },
  language: { what: 'its language, by its code', example: 'language:de' },
  tag: { what: 'a tag', example: 'tag:silt' },
  type: { what: 'a kind of source', example: 'type:book' },
  in: { what: 'a project or a section', example: 'in:introduction' },
  has: { what: 'what hangs on it', example: 'has:pdf' },
  state: { what: 'the state it is in', example: 'state:unchecked' },
  reading: { what: 'how far you are with it', example: 'reading:to-read' },
  priority: { what: 'how much it matters to you', example: 'priority:high' },
  finding: { what: 'what the proof found', example: 'finding:title-capitals' },
  key: { what: 'the beginning of its citekey', example: 'key:pell19' },
  added: { what: 'when it was added, also from a day to another', example: 'added:2026-11' },
} as const;
export type QueryField = keyof typeof QUERY_FIELDS;

/** What `has:` can ask for. */
export const HAS = [
  'pdf',
  'page',
  'copy',
  'passages',
  'notes',
  'tasks',
  'doi',
  'isbn',
  'date',
  'tags',
] as const;
export type Has = (typeof HAS)[number];
/** What `state:` can ask for. */
export const STATES = ['checked', 'unchecked', 'found', 'clean'] as const;
export type State = (typeof STATES)[number];

/** How far somebody is with reading a source. */
export const READING_STATES = ['to-read', 'reading', 'read', 'aside'] as const;
export type ReadingState = (typeof READING_STATES)[number];
/** How much a source matters to somebody, where it is not as usual. */
export const PRIORITIES = ['high', 'low'] as const;
export type Priority = (typeof PRIORITIES)[number];

/** What fields with few values can be. `none` is what has not been said. */
export const ONE_OF: Partial<Record<QueryField, readonly string[]>> = {
  has: HAS,
  state: STATES,
  reading: [...READING_STATES, 'none'],
  priority: [...PRIORITIES, 'none'],
};

/** One thing a query asks for. All of them must hold; `not` turns one round. Of several values of a field one must. */
export type Term =
  | { kind: 'words'; words: string; phrase: boolean; not: boolean }
  | { kind: 'field'; field: QueryField; values: string[]; not: boolean };

/** A query of sources, as a value: what it is printed as is parsed to the same. */
export interface Query {
  terms: Term[];
}

/** Longest query, in characters; what is behind is not asked. */
export const MOST_QUERY = 600;

const isField = (name: string): name is QueryField => Object.hasOwn(QUERY_FIELDS, name);

/** A value in quotation marks, or up to the next blank or comma; where it ends. */
function valueAt(text: string, at: number): { value: string; end: number } {
  if (text[at] === '"') {
    const close = text.indexOf('"', at + 1);
    const end = close === -1 ? text.length : close;
    return { value: squash(text.slice(at + 1, end)), end: Math.min(end + 1, text.length) };
  }
  let end = at;
  while (end < text.length && !/[\s,"]/.test(text[end]!)) end++;
  return { value: text.slice(at, end), end };
}

/**
 * A query as a person writes it: words, all of which must be there; `"words in a row"`; `-` before what must not be; and
 * fields, such as `author:pell year:1990-2005 tag:silt,"salt marsh" has:pdf`. Quotation marks that are not closed end with the text; what is
 * no field is a word, as in an address. Any text is a query.
 */
export function parseQuery(given: string): Query {
  const text = given.slice(0, MOST_QUERY);
  const terms: Term[] = [];
  for (let at = 0; at < text.length;) {
    if (/[\s,]/.test(text[at]!)) {
      at++;
      continue;
    }
    const not = text[at] === '-' && at + 1 < text.length && !/[\s,-]/.test(text[at + 1]!);
    if (not) at++;
    if (text[at] === '"') {
      const { value, end } = valueAt(text, at);
      if (fold(value)) terms.push({ kind: 'words', words: value, phrase: true, not });
      at = end;
      continue;
    }
    const name = /^([a-z]+):(?=[^\s,])/i.exec(text.slice(at, at + 24))?.[1]?.toLowerCase();
    if (name && isField(name)) {
      at += name.length + 1;
      const values: string[] = [];
      for (;;) {
        const { value, end } = valueAt(text, at);
        if (value && !values.includes(value)) values.push(value);
        at = end;
        if (text[at] !== ',' || at + 1 >= text.length || /[\s,]/.test(text[at + 1]!)) break;
        at++;
      }
      if (values.length) terms.push({ kind: 'field', field: name, values, not });
      continue;
    }
    const { value, end } = valueAt(text, at);
    at = Math.max(end, at + 1);
    if (fold(value)) terms.push({ kind: 'words', words: value, phrase: false, not });
  }
  return { terms };
}

const quoted = (value: string) => (/[\s,"]/.test(value) ? `"${squash(value.replace(/"/g, ' '))}"` : value);

/** A query as it is written. */
export function printQuery({ terms }: Query): string {
  return terms
    .map((term) => {
      const sign = term.not ? '-' : '';
      if (term.kind === 'field') return `${sign}${term.field}:${term.values.map(quoted).join(',')}`;
      return sign + (term.phrase ? `"${squash(term.words.replace(/"/g, ' '))}"` : term.words);
    })
    .join(' ');
}

/** What the controls of a view narrow by, as they stand in its address, as one query in words and fields. */
export function filtersAsQuery(given: Readonly<Record<string, string | undefined>>): string {
  const { q = '', type, tag, state, from, to } = given;
  const terms: Term[] = [...parseQuery(q).terms];
  const add = (field: QueryField, value: string | undefined) => {
    if (value) terms.push({ kind: 'field', field, values: [squash(value.replace(/"/g, ' '))], not: false });
  };
  add('type', type);
  add('tag', tag);
  add('state', state === 'findings' ? 'found' : state === 'intake' ? 'unchecked' : undefined);
  if (from || to) add('year', from === to ? from : `${from ?? ''}-${to ?? ''}`);
  return printQuery({ terms });
}

/** A query with a term set in place of those of its field, or without them. */
export function withField(query: Query, field: QueryField, values: string[]): Query {
  const terms = query.terms.filter((term) => term.kind !== 'field' || term.field !== field || term.not);
  return { terms: values.length ? [...terms, { kind: 'field', field, values, not: false }] : terms };
}

/** The query that asks for fields, each with any of its values, as it is written. */
export const asking = (...fields: [field: QueryField, values: readonly string[]][]): string =>
  printQuery({
    terms: fields.map(([field, values]) => ({ kind: 'field', field, values: [...values], not: false })),
  });

/** The values of a field that a query asks for; those it turns round are not among them. */
export const valuesOf = ({ terms }: Query, field: QueryField): string[] =>
  terms.flatMap((term) => (term.kind === 'field' && term.field === field && !term.not ? term.values : []));

/** A query that asks for a value of a field beside those it asks for, or no longer, where it did. */
export function toggled(query: Query, field: QueryField, value: string): Query {
  const values = valuesOf(query, field);
  const left = values.filter((one) => one.toLowerCase() !== value.toLowerCase());
  return withField(query, field, left.length < values.length ? left : [...values, value]);
}

/** The words that must be there, for showing where they stand. */
export const wordsSought = ({ terms }: Query): string =>
  terms.flatMap((term) => (term.kind === 'words' && !term.not ? [term.words] : [])).join(' ');

/** Whether a query asks for anything. */
export const asksAnything = ({ terms }: Query): boolean => terms.length > 0;

/** The first and the last year of a value: `1990`, `1990-2005`, `1990-`, `-2005`, also with an en dash or two points; years before Christ are not written so. */
export function yearsIn(value: string): { from?: number; to?: number } | undefined {
  const m = /^(\d{1,4})?(-|–|\.\.)?(\d{1,4})?$/.exec(value.trim());
  if (!m || (!m[1] && !m[3])) return undefined;
  const [from, to] = [m[1], m[3]].map((year) => (year ? Number(year) : undefined));
  if (!m[2]) return { from: from!, to: from! };
  return { ...(from === undefined ? {} : { from }), ...(to === undefined ? {} : { to }) };
}

/** From when and up to when a value is: a year, month or day, or from one to another, as `2026-11-02..2026-11-08`; both ends are in it. */
export function addedIn(value: string): { from: string; to: string } | undefined {
  const m = /^(\d{4}(?:-\d{2}){0,2})(?:\.\.(\d{4}(?:-\d{2}){0,2}))?$/.exec(value.trim());
  return m ? { from: m[1]!, to: m[2] ?? m[1]! } : undefined;
}

/** The kinds of source a value names, by their CSL name or the beginning of what they are called here. */
export function typesNamed(value: string): CslType[] {
  const exact = CSL_TYPES.find((type) => type === value.toLowerCase());
  if (exact) return [exact];
  const wanted = fold(value);
  return wanted ? CSL_TYPES.filter((type) => fold(TYPE_LABELS[type]).startsWith(wanted)) : [];
}

/** What of a query cannot be asked as it is written, in words; nothing is found by it. */
export function problemsIn({ terms }: Query): string[] {
  return terms.flatMap((term) => {
    if (term.kind === 'words') return [];
    const { field, values } = term;
    return values.flatMap((value) => {
      const says = `${field}:${quoted(value)}`;
      if (field === 'year' && !yearsIn(value))
        return [`${says} is no year. Write ${QUERY_FIELDS.year.example}.`];
      const oneOf = ONE_OF[field];
      if (oneOf && !oneOf.includes(value.toLowerCase()))
        return [`${says}: ${field} can be ${oneOf.join(', ')}.`];
      if (field === 'type' && typesNamed(value).length === 0) return [`${says} is no kind of source.`];
      if (field === 'added' && !addedIn(value))
        return [`${says} is no date. Write ${QUERY_FIELDS.added.example}.`];
      return [];
    });
  });
}

/** Scripts written without blanks between words: each letter is looked for by itself, and several in a row. */
const UNSPACED =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Khmer}\p{Script=Lao}\p{Script=Myanmar}]/u;
const EACH = new RegExp(UNSPACED.source, 'gu');

/** A text as it is looked through: folded, with blanks around each letter of scripts that have none. */
export const searchForm = (text: string): string => {
  const folded = fold(text);
  return UNSPACED.test(folded) ? squash(folded.replace(EACH, ' $& ')) : folded;
};

/** What is looked for in a text for some words: each a word or letters in a row, the last perhaps the beginning of one. */
export function partsSought(words: string): { inRow: string[]; begins: boolean }[] {
  return foldWords(words).map((word) => {
    const inRow = searchForm(word).split(' ');
    return { inRow, begins: inRow.length === 1 && !UNSPACED.test(word) };
  });
}

/** Longest word that is compared with others, in letters. */
const LONGEST_WORD = 40;

/** The word of some that is nearest to one that was not found: at most a third of its letters differ. Nothing where none is. */
export function nearestWord(word: string, others: readonly string[]): string | undefined {
  if (word.length > LONGEST_WORD) return undefined;
  const most = Math.max(1, Math.floor(word.length / 3));
  let best: { word: string; far: number } | undefined;
  for (const other of others) {
    if (Math.abs(other.length - word.length) > most || other === word) continue;
    const far = distance(word, other, best ? best.far - 1 : most);
    if (far !== undefined) best = { word: other, far };
    if (best?.far === 1) break;
  }
  return best?.word;
}

/** How many letters must be set, taken out, put in or swapped with their neighbour to make one word of another; nothing when more than `most`. */
function distance(a: string, b: string, most: number): number | undefined {
  let [before, last] = [[] as number[], Array.from({ length: b.length + 1 }, (_, i) => i)];
  for (let i = 1; i <= a.length; i++) {
    const row = [i];
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      row[j] = Math.min(last[j]! + 1, row[j - 1]! + 1, last[j - 1]! + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        row[j] = Math.min(row[j]!, before[j - 2]! + 1);
    }
    if (Math.min(...row) > most) return undefined;
    [before, last] = [last, row];
  }
  return last[b.length]! <= most ? last[b.length] : undefined;
}
