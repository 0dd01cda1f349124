import {
  keywordsOf,
  findIsbn,
  isDateVariable,
  isIssn,
  isNameVariable,
  isTextVariable,
  looksInstitutional,
  nameText,
  parseDate,
  parseName,
  typedDate,
  type CslDate,
  type CslName,
  type CslType,
  type SourceRecord,
} from '../../source';
import { inOneLine, plain, squash } from '../../text';
import { finish, otherKept } from '../finish';
import type { Format, Loss, ReadResult, WriteItem, WriteResult } from '../types';
import { ARTICLES, NAME_RULES, readRule, TAG_RULES, TYPE_RULES, writeRule } from './mapping';

/**
 * A RIS date, `YYYY/MM/DD/other`, as far as it is filled in; a season in its last part is taken where no month says more,
 * other text there is `left` out. Other forms are read as any date is, and kept as text when they are none.
 */
function risDate(text: string): { date?: CslDate | undefined; left?: string } {
  const [year = '', month = '', day = '', other = ''] = text.split('/').map((p) => p.trim());
  if (!/^\d{4}$/.test(year)) return { date: parseDate(text) ?? typedDate(text) };
  const parts = [year, month, day].filter((p) => /^\d{1,4}$/.test(p));
  const season =
    parts.length === 1 && /^(?:spring|summer|autumn|fall|winter)$/i.test(other)
      ? parseDate(`${other} ${year}`)
      : undefined;
  if (season) return { date: season };
  return { date: parseDate(parts.join('-')) ?? parseDate(year), ...(other ? { left: other } : {}) };
}

function risName(text: string): CslName | undefined {
  return text.includes(',') && !looksInstitutional(text)
    ? parseName(text)
    : looksInstitutional(text)
      ? { literal: text }
      : parseName(text);
}

const sameName = (a: CslName | undefined, b: CslName) =>
  a !== undefined &&
  Object.keys({ ...a, ...b }).every((part) => a[part as keyof CslName] === b[part as keyof CslName]);

interface RawRecord {
  line: number;
  type: string;
  tags: [string, string][];
  text: string;
  notes: string[];
}

/**
 * Splits a RIS file into records: a line is a tag, two spaces, a hyphen, a space, a value; `TY` begins, `ER` ends; a
 * line without a tag goes on with the value before it. Syntax: RIS format specification. A record without `ER` ends
 * at the next `TY`, with a note; lines before the first `TY` are skipped and said.
 */
function parseRis(source: string): { records: RawRecord[]; skipped: ReadResult['skipped'] } {
  const records: RawRecord[] = [];
  const skipped: ReadResult['skipped'] = [];
  let current: RawRecord | undefined;
  source
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\r|\n/)
    .forEach((text, i) => {
      const line = i + 1;
      const m = /^\s*([A-Z][A-Z0-9]) {1,2}-(?: (.*)|)$/.exec(text);
      if (!m) {
        if (text.trim() === '') return;
        const last = current?.tags[current.tags.length - 1];
        if (last) last[1] += (last[1] ? ' ' : '') + text.trim();
        else if (!current && skipped[skipped.length - 1]?.line !== line - 1)
          skipped.push({ line, reason: 'text outside a record', text: text.slice(0, 120) });
        return;
      }
      const [, tag = '', value = ''] = m;
      if (tag === 'TY') {
        if (current) {
          current.notes.push('“ER” is missing at the end of the record');
          records.push(current);
        }
        current = { line, type: value.trim(), tags: [], text, notes: [] };
      } else if (!current)
        skipped.push({ line, reason: `tag ${tag} outside a record`, text: text.slice(0, 120) });
      else if (tag === 'ER') {
        records.push(current);
        current = undefined;
      } else current.tags.push([tag, value.trim()]);
    });
  if (current)
    records.push({
      ...(current as RawRecord),
      notes: [...(current as RawRecord).notes, '“ER” is missing at the end of the record'],
    });
  return { records, skipped };
}

/** Keywords of a `KW` line: one, though many files put several in it, between semicolons (common practice). */
const wordsIn = (value: string): string[] =>
  value
    .split(';')
    .map((word) => word.trim().slice(0, 120))
    .filter(Boolean);

function readRecord(raw: RawRecord) {
  const notes = [...raw.notes];
  const type = TYPE_RULES.find(([tag]) => tag === raw.type)?.[1] ?? 'document';
  if (!TYPE_RULES.some(([tag]) => tag === raw.type))
    notes.push(`reference type “${raw.type}” is not known; read as a document`);
  const fields: Record<string, unknown> = { type };
  const kept: Record<string, string> = {};
  const tags: string[] = [];
  let [first, last, key, year] = ['', '', '', ''];
  const dated = (tag: string, value: string) => {
    const { date, left } = risDate(value);
    if (left) notes.push(`“${left}” in ${tag} is left out`);
    return date;
  };
  // Beside the full name of a periodical `JO` is its abbreviation; alone it is the name there is (common practice).
  const fullName =
    ARTICLES.includes(type) && raw.tags.find(([tag, value]) => value && (tag === 'T2' || tag === 'JF'))?.[1];
  for (const [tag, value] of raw.tags) {
    if (!value) continue;
    const named = NAME_RULES.find((r) => r.tag === tag && (!r.types || r.types.includes(type)));
    if (named) {
      const name = risName(value);
      if (name) ((fields[named.csl] ??= []) as CslName[]).push(name);
    } else if (tag === 'KW' || tag === 'K1') tags.push(...wordsIn(value));
    else if (tag === 'SP') first = value;
    else if (tag === 'EP') last = value;
    else if (tag === 'ID') key = value;
    else if (tag === 'LB' && !key) key = value;
    else if (tag === 'DA') fields.issued = dated(tag, value) ?? fields.issued;
    else if (tag === 'PY' || tag === 'Y1' || tag === 'YR') year = value;
    else if (tag === 'Y2') fields.accessed = dated(tag, value);
    else if (tag === 'SN') {
      if (findIsbn(value) && !fields.ISBN) fields.ISBN = value;
      else if (isIssn(value) && !fields.ISSN) fields.ISSN = value;
      else if (fields[type === 'book' || type === 'chapter' ? 'ISBN' : 'ISSN'] === undefined)
        fields[type === 'book' || type === 'chapter' ? 'ISBN' : 'ISSN'] = value;
    } else {
      const rule = readRule(tag === 'JO' && fullName ? 'JA' : tag, type);
      if (rule && fields[rule.csl] === value) continue;
      if (tag === 'JO' && value === fullName) continue;
      if (!rule) kept[tag] = kept[tag] ? `${kept[tag]}\n${value}` : value;
      else if (fields[rule.csl] === undefined) fields[rule.csl] = value;
      else if (rule.join) fields[rule.csl] = `${String(fields[rule.csl])}${rule.join}${value}`;
      else kept[tag] = kept[tag] ? `${kept[tag]}\n${value}` : value;
    }
  }
  if (year && fields.issued === undefined) fields.issued = dated('PY', year);
  if (first)
    fields.page =
      last && !first.includes('-') && last !== first
        ? `${first}-${last}`
        : squash(first).replace(/ ?[–—] ?/g, '-');
  for (const name of Object.keys(fields)) if (fields[name] === undefined) delete fields[name];
  return finish(
    fields as Partial<SourceRecord> & { type: CslType },
    { format: 'ris', fields: kept },
    { key, line: raw.line, notes, text: raw.text, tags },
  );
}

/** Reads a RIS file. */
export function readRis(text: string): ReadResult {
  const { records, skipped } = parseRis(text);
  const result: ReadResult = { entries: [], skipped };
  for (const raw of records) {
    const { entry, skipped: refused } = readRecord(raw);
    if (entry) result.entries.push(entry);
    if (refused) result.skipped.push(refused);
  }
  return result;
}

/** Tags whose lines are values of their own and are joined again when read. */
const REPEATED = new Set(TAG_RULES.filter((r) => r.join).map((r) => r.tag));

const SEASONS = ['Spring', 'Summer', 'Autumn', 'Winter'];

function writeRecord({ key, record }: WriteItem, losses: Loss[]): string {
  const lines: string[] = [];
  const put = (tag: string, value: string) => {
    const parts = REPEATED.has(tag) ? value.split(/\r?\n/) : [inOneLine(value)];
    for (const part of parts) if (part.trim()) lines.push(`${tag}  - ${part.trim()}`);
  };
  const lose = (field: string, reason: string) => losses.push({ key, field, reason });
  const type = TYPE_RULES.find(([, csl]) => csl === record.type)?.[0];
  if (!type) lose('type', `RIS has no reference type for ${record.type}; written as GEN`);
  put('TY', type ?? 'GEN');
  put('ID', key);
  const dated = (tag: string, field: string, date: CslDate) => {
    const [from, to] = date['date-parts'] ?? [];
    if (!from) {
      lose(field, 'RIS holds dates of the calendar only');
      return put(tag, `///${date.literal ?? ''}`);
    }
    if (from[0]! < 0 || from[0]! > 9999) {
      lose(field, 'RIS has years of four digits only, and none before Christ');
      return put(tag, `///${from[0]! < 0 ? `${-from[0]!} BC` : from[0]!}`);
    }
    const pad = (n: number | undefined) => (n === undefined ? '' : String(n).padStart(2, '0'));
    put(
      tag,
      `${String(from[0]).padStart(4, '0')}/${pad(from[1])}/${pad(from[2])}/${date.season ? SEASONS[date.season - 1] : ''}`,
    );
    if (date.edtf) lose(field, `RIS cannot say ${date.edtf}`);
    else if (to) lose(field, 'RIS holds one date, not a range');
    else if (date.circa) lose(field, 'RIS cannot say that a date is approximate');
  };
  for (const [variable, value] of Object.entries(record)) {
    if (['type', 'retexa', 'keyword'].includes(variable) || value === undefined) continue;
    if (isNameVariable(variable)) {
      const rule = NAME_RULES.find((r) => r.csl === variable && !r.read);
      if (rule)
        for (const name of value as CslName[]) {
          const text = nameText(name);
          put(rule.tag, text);
          if (!sameName(risName(text), name)) lose(variable, `RIS cannot tell the parts of the name ${text}`);
        }
      else lose(variable, 'RIS has no tag for these creators');
    } else if (isDateVariable(variable)) {
      const date = value as CslDate;
      if (variable === 'issued') {
        const year = date['date-parts']?.[0]?.[0];
        if (year !== undefined && year >= 0 && year <= 9999) put('PY', String(year).padStart(4, '0'));
        dated('DA', variable, date);
      } else if (variable === 'accessed') dated('Y2', variable, date);
      else lose(variable, 'RIS has no tag for this date');
    } else if (variable === 'page') {
      const ends = /^([^-,\s]+)-([^-,\s]+)$/.exec(String(value));
      if (ends && ends[1] !== ends[2]) {
        put('SP', ends[1]!);
        put('EP', ends[2]!);
      } else put('SP', String(value));
    } else if (variable === 'ISBN' || variable === 'ISSN') put('SN', String(value));
    else if (isTextVariable(variable)) {
      const rule = writeRule(variable, type ? record.type : 'document');
      if (rule) {
        const text = plain(String(value));
        if (text !== value)
          lose(variable, 'RIS holds plain text, without italics or words that keep their case');
        if (!rule.join && /[\r\n]/.test(text)) lose(variable, 'line breaks become spaces');
        put(rule.tag, text);
      } else lose(variable, 'RIS has no tag for it');
    } else lose(variable, 'RIS has no tag for it');
  }
  for (const word of keywordsOf(record)) put('KW', word);
  for (const [tag, value] of Object.entries(record.retexa.kept.ris ?? {}))
    for (const line of value.split('\n')) put(tag, line);
  for (const loss of otherKept(record, ['ris'], 'RIS')) losses.push({ key, ...loss });
  return `${lines.join('\r\n')}\r\nER  - \r\n`;
}

/** Writes a RIS file (line ends CRLF as the specification has them) and says what the format could not hold. */
export function writeRis(items: WriteItem[]): WriteResult {
  const losses: Loss[] = [];
  return { text: items.map((item) => writeRecord(item, losses)).join('\r\n'), losses };
}

export const ris: Format = {
  name: 'ris',
  label: 'RIS',
  extension: 'ris',
  mediaType: 'application/x-research-info-systems',
  read: readRis,
  write: writeRis,
};
