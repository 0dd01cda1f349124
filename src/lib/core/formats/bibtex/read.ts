import {
  AND_OTHERS,
  CSL_TYPES,
  dateProblem,
  parseDate,
  parseEdtf,
  typedDate,
  type CslDate,
  type CslName,
  type CslType,
  type SourceRecord,
} from '../../source';
import { finish } from '../finish';
import type { FormatName, ReadResult } from '../types';
import { withInheritance } from './inherit';
import {
  DATE_RULES,
  EDITOR_ROLES,
  EPRINT_ADDRESSES,
  LANGUAGES,
  LOCAL_WORDS,
  NAME_RULES,
  ORDINALS,
  readRuleAt,
  SECOND_CHOICES,
  TYPE_RULES,
  type FieldRule,
} from './mapping';
import { itemsOf, namesFromTex, type Dialect } from './names';
import { parseBibtex, type RawEntry } from './parse';
import { texToText } from './tex';

const pagesOf = (text: string) => text.replace(/\s*(?:-{2,}|[‐‑‒–—]+)\s*|(?<=\d)\s+-\s+(?=\d)/g, '-');

const verbatimOf = (tex: string) =>
  (/^\s*\\url\s*\{([\s\S]*)\}\s*$/.exec(tex)?.[1] ?? tex)
    .trim()
    .replace(/\{?\\textasciitilde\s*(?:\{\})?\}?|\\~\{\}|\\string~|\{\\~\}/g, '~')
    .replace(/\\([_%#&~{}])/g, '$1');

/** A date field of biblatex: EDTF, which is not TeX, or else a date in words. One that is no date stays as it stands. */
function dateOf(tex: string): CslDate | undefined {
  const text = texToText(tex);
  const read = parseEdtf(tex.replace(/[{}]/g, ''));
  return read ?? (dateProblem(text) ? { literal: text.trim() } : (parseDate(text) ?? typedDate(text)));
}

/** Year, month and day of BibTeX, or biblatex's date. A month may hold a day and, at a range, two months. */
function issuedOf(fields: Map<string, string>): CslDate | undefined {
  const date = fields.get('date');
  if (date) return dateOf(date);
  const year = texToText(fields.get('year') ?? '').replace(/^\{|\}$/g, '');
  if (!year) return undefined;
  const month = texToText(fields.get('month') ?? '');
  const day = texToText(fields.get('day') ?? '') || /\b(\d{1,2})\b/.exec(month.replace(/^\d+$/, ''))?.[1];
  const names = /^\d{1,2}$/.test(month) ? [month] : (month.match(/\p{L}+/gu) ?? []);
  const read = (name: string) =>
    parseDate(
      /^\d+$/.test(name)
        ? [year, name.padStart(2, '0'), day?.padStart(2, '0')].filter(Boolean).join('-')
        : [day, name, year].filter(Boolean).join(' '),
    );
  const [from, to] = [names[0], names.length > 1 && !day ? names[names.length - 1] : undefined].map((n) =>
    n ? read(n) : undefined,
  );
  const [a, b] = [from?.['date-parts']?.[0], to?.['date-parts']?.[0]];
  if (from && a && b && a[1] && b[1] && a[0] === b[0] && a[1] < b[1]) return { 'date-parts': [a, b] };
  return (
    from ??
    parseDate(year.replace(/\s*[–—]\s*(\d{2})$/, (_, end: string) => `/${year.slice(0, 2)}${end}`)) ??
    typedDate(year)
  );
}

/** Fields read together with others, not by a rule of their own. */
const JOINT = new Set(
  ('year month day keywords langid langidopts options crossref xdata key subtitle titleaddon maintitle mainsubtitle maintitleaddon ' +
    'booksubtitle booktitleaddon journalsubtitle issuesubtitle editortype editora editorb editorc editoratype editorbtype editorctype ' +
    'entrysubtype holder').split(' '),
); // prettier-ignore
for (const { bib } of DATE_RULES) JOINT.add(bib);
/** Of the joint ones, those that are given back as they were when the record is written again. */
const KEPT_TOO = new Set(['langidopts', 'options', 'key']);

const NAME_FIELDS = new Set(NAME_RULES.map((r) => r.bib));

/** A title with its subtitle and addition, as one. */
function wholeTitle(fields: Map<string, string>, stem: string): string {
  const read = (name: string) => texToText(fields.get(name) ?? '', true);
  const [title, subtitle, addon] = [read(`${stem}title`), read(`${stem}subtitle`), read(`${stem}titleaddon`)];
  const joint = /[.?!:…]$/.test(title) ? ' ' : ': ';
  const main = [title, subtitle].filter(Boolean).join(joint);
  return [main, addon].filter(Boolean).join(/[.?!]$/.test(main) ? ' ' : '. ');
}

/** The CSL types an `entrysubtype` of `@misc` may name. */
const TYPES = new Set<string>(CSL_TYPES);

/** The rule by which an entry type, with its subtype, is read. */
function typeRule(bib: string, subtype: string | undefined) {
  return (
    TYPE_RULES.find((r) => r.bib === bib && r.subtype && r.subtype === subtype) ??
    TYPE_RULES.find((r) => r.bib === bib && !r.subtype)
  );
}

/** The CSL type an entry is read as. `@misc` is a web page when it has an address and is no electronic print. */
export function typeRead(
  bib: string,
  subtype: string | undefined,
  hasAddress: boolean,
  hasEprint: boolean,
): CslType {
  const rule = typeRule(bib, subtype);
  const own = rule && rule.bib !== 'misc' ? rule.csl : undefined;
  if (own) return own;
  if (subtype && TYPES.has(subtype)) return subtype as CslType;
  return hasAddress && !hasEprint ? 'webpage' : 'document';
}

function typeOf(raw: RawEntry, notes: string[]): { type: CslType; genre?: string } {
  const subtype = raw.fields.get('entrysubtype')?.trim();
  const rule = typeRule(raw.type, subtype);
  if (!rule) notes.push(`entry type “${raw.type}” is not known; read as a document`);
  const hasAddress = raw.fields.has('url') || /\\url|https?:/.test(raw.fields.get('howpublished') ?? '');
  const type = typeRead(raw.type, subtype, hasAddress, raw.fields.has('eprint'));
  return { type, ...(rule?.genre ? { genre: rule.genre } : {}) };
}

/** Creators: plain name fields, and editors whose role stands in a field of its own. */
function creators(raw: RawEntry, notes: string[], kept: Record<string, string>) {
  const found: Partial<Record<string, CslName[]>> = {};
  const useprefix = !/useprefix\s*=\s*false/.test(raw.fields.get('options') ?? '');
  const take = (field: string, csl: string) => {
    const { names, others, unread } = namesFromTex(raw.fields.get(field)!, useprefix);
    for (const item of unread) notes.push(`“${item}” in ${field} gives no name; kept as it stands`);
    if (names.length) found[csl] = [...(found[csl] ?? []), ...names];
    if (!others) return;
    notes.push(`“and others” in ${field}: more names than the file gives`);
    kept[csl] = AND_OTHERS;
  };
  for (const { bib, csl } of NAME_RULES) {
    if (!raw.fields.has(bib)) continue;
    const role = bib === 'editor' ? EDITOR_ROLES[raw.fields.get('editortype') ?? 'editor'] : csl;
    if (bib === 'editor' && !role) kept.editortype = raw.fields.get('editortype')!;
    take(bib, role ?? csl);
  }
  for (const field of ['editora', 'editorb', 'editorc']) {
    if (!raw.fields.has(field)) continue;
    const word = raw.fields.get(`${field}type`) ?? '';
    const role = EDITOR_ROLES[word.trim().toLowerCase()];
    if (role) take(field, role);
    else {
      kept[field] = raw.fields.get(field)!;
      if (word) kept[`${field}type`] = word;
    }
  }
  if (raw.fields.has('holder'))
    if (raw.type === 'patent' && !found.author) take('holder', 'author');
    else kept.holder = raw.fields.get('holder')!;
  return found;
}

/** The value of a field by its rule, in the spelling records have. */
function textOf(rule: FieldRule, tex: string, format: FormatName, notes: string[]): string {
  if (rule.verbatim) return verbatimOf(tex);
  const list = rule.list && format === 'biblatex';
  const items = (list ? itemsOf(tex) : [tex]).map((item) => texToText(item, rule.titleCase));
  if (items.length > 1 && rule.csl === 'publisher')
    notes.push(
      `${rule.bib} is read as a list: ${items.join('; ')}. Braces around the whole keep it one name`,
    );
  const text = (rule.words ? items.map((item) => LOCAL_WORDS[item] ?? item) : items).join('; ');
  switch (rule.csl) {
    case 'page':
      return pagesOf(text);
    case 'language':
      return LANGUAGES[text.toLowerCase()] ?? text;
    case 'edition': {
      const ordinal = ORDINALS.findIndex((word) => word.toLowerCase() === text.toLowerCase());
      return ordinal === -1 ? text : String(ordinal + 1);
    }
    default:
      return text;
  }
}

function readEntry(raw: RawEntry, format: FormatName) {
  const notes = [...raw.notes];
  const { type, genre } = typeOf(raw, notes);
  const kept: Record<string, string> = {};
  const fields: Record<string, unknown> = {
    type,
    ...(genre ? { genre } : {}),
    ...creators(raw, notes, kept),
  };
  let names = [...raw.fields.keys()];
  if (names.some((name) => SECOND_CHOICES.has(name)))
    names = names.sort((a, b) => readRuleAt(a, type).order - readRuleAt(b, type).order);
  for (const name of names) {
    const tex = raw.fields.get(name)!;
    const { rule } = readRuleAt(name, type);
    if (KEPT_TOO.has(name) && tex.trim()) kept[name] = tex;
    if (JOINT.has(name) || NAME_FIELDS.has(name)) continue;
    const text = rule ? textOf(rule, tex, format, notes) : tex.trim();
    if (!text) continue;
    const before = rule && fields[rule.csl];
    if (!rule || (before !== undefined && rule.csl !== 'genre' && !rule.join)) kept[name] = tex.trim();
    else
      fields[rule.csl] = before !== undefined && rule.join ? `${before as string}${rule.join}${text}` : text;
  }
  titles(raw, fields, kept);
  const langid = raw.fields.get('langid')?.trim().toLowerCase();
  if (langid) {
    const variant = /variant\s*=\s*(\w+)/.exec(raw.fields.get('langidopts') ?? '')?.[1];
    fields.language = LANGUAGES[variant ?? ''] ?? LANGUAGES[langid] ?? langid;
  }
  if (
    raw.fields.has('howpublished') &&
    !fields.URL &&
    /^https?:\/\/\S+$/.test((fields.publisher as string | undefined) ?? '')
  ) {
    fields.URL = fields.publisher;
    delete fields.publisher;
  }
  eprint(raw, fields);
  const issued = issuedOf(raw.fields);
  if (issued) fields.issued = issued;
  const month = texToText(raw.fields.get('month') ?? '');
  if (month && !issued?.['date-parts']?.[0]?.[1] && !issued?.season)
    notes.push(`month “${month}” is left out of the date`);
  for (const { bib, csl } of DATE_RULES) {
    const tex = raw.fields.get(bib);
    if (bib === 'date' || !tex) continue;
    const date = dateOf(tex);
    if (date) fields[csl] = date;
  }
  const tags = texToText(raw.fields.get('keywords') ?? '').split(/\s*[,;]\s*/);
  for (const key of Object.keys(fields)) if (fields[key] === undefined) delete fields[key];
  return finish(
    fields as Partial<SourceRecord> & { type: CslType },
    { format, fields: kept },
    {
      key: raw.key,
      line: raw.line,
      notes,
      text: raw.text,
      tags: tags.filter(Boolean).map((t) => t.slice(0, 120)),
    },
  );
}

/** Titles with their subtitles; the title of a work in several volumes is the title, and the volume's stands beside it. */
function titles(raw: RawEntry, fields: Record<string, unknown>, kept: Record<string, string>) {
  const { fields: given } = raw;
  const put = (variable: string, text: string) => {
    if (text) fields[variable] = text;
  };
  if (given.has('subtitle') || given.has('titleaddon')) {
    // biblatex cites by the title without its subtitle where no shorter one is given (its manual, 4.5.2, "labeltitle").
    if (given.has('subtitle') && fields.title) fields['title-short'] ??= fields.title;
    put('title', wholeTitle(given, ''));
  }
  if (fields.type !== 'book' && (given.has('booksubtitle') || given.has('booktitleaddon')))
    put('container-title', wholeTitle(given, 'book'));
  else if (given.has('journalsubtitle')) {
    const journal = texToText(given.get('journaltitle') ?? given.get('journal') ?? '', true);
    put(
      'container-title',
      [journal, texToText(given.get('journalsubtitle')!, true)].filter(Boolean).join(': '),
    );
  }
  if (given.has('issuesubtitle')) put('volume-title', wholeTitle(given, 'issue'));
  if (given.has('maintitle')) {
    const main = wholeTitle(given, 'main');
    if (given.has('booktitle') && fields['container-title']) {
      put('volume-title', fields['container-title'] as string);
      put('container-title', main);
    } else {
      put('volume-title', (fields.title as string | undefined) ?? '');
      put('title', main);
      // The short title is the volume's, for which CSL has no variable.
      delete fields['title-short'];
      if (given.has('shorttitle')) kept.shorttitle = given.get('shorttitle')!;
    }
  }
}

/** The address of an electronic print, and the identifier of one in PubMed. The fields themselves are kept for writing back. */
function eprint(raw: RawEntry, fields: Record<string, unknown>) {
  const id = verbatimOf(raw.fields.get('eprint') ?? '');
  if (!id) return;
  const kind = (raw.fields.get('eprinttype') ?? raw.fields.get('archiveprefix') ?? '').trim().toLowerCase();
  if (kind === 'pubmed') fields.PMID ??= id;
  const prefix = EPRINT_ADDRESSES[kind];
  if (prefix) fields.URL ??= prefix + id.replace(/^arxiv:/i, '');
}

/** Whether a file uses what only biblatex has: its dates, its names of fields, its entry types. */
export function looksLikeBiblatex(text: string): boolean {
  const sample = text.slice(0, 200_000);
  return (
    /^\s*(?:date|journaltitle|urldate|eventdate|origdate|langid|maintitle|entrysubtype)\s*=/im.test(sample) ||
    /^\s*@\s*(?:online|thesis|report|mv\w+|collection|dataset|software|inreference|bookinbook|periodical|xdata)\s*[{(]/im.test(
      sample,
    )
  );
}

/** Reads a .bib file of either dialect; what no rule knows is kept under the one asked for. */
export function readBib(text: string, dialect: Dialect): ReadResult {
  const { entries, skipped } = parseBibtex(text);
  const result: ReadResult = { entries: [], skipped: [...skipped] };
  for (const raw of withInheritance(entries, dialect)) {
    if (raw.type === 'set') {
      result.skipped.push({
        line: raw.line,
        reason: 'a set of other entries, not a work of its own',
        text: raw.text.slice(0, 120),
      });
      continue;
    }
    const { entry, skipped: refused } = readEntry(raw, dialect);
    if (entry) result.entries.push(entry);
    if (refused) result.skipped.push(refused);
  }
  result.skipped.sort((a, b) => a.line - b.line);
  return result;
}
