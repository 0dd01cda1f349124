import {
  dateText,
  isDateVariable,
  isNameVariable,
  isTextVariable,
  parseDate,
  typedDate,
  type CslDate,
  type CslName,
  type CslType,
  type SourceRecord,
} from '../../source';
import { finish } from '../finish';
import type { Format, Loss, ReadResult, WriteItem, WriteResult } from '../types';
import { NAME_RULES, readRule, TYPE_RULES, WRITE_AS, writeRule } from './mapping';
import { namesFromTex, namesToTex } from './names';
import { parseBibtex, type RawEntry } from './parse';
import { texToText, textToTex } from './tex';

const pages = (text: string) => text.replace(/\s*(?:--+|[–—])\s*/g, '-');

function issuedOf(fields: Map<string, string>): CslDate | undefined {
  const date = fields.get('date');
  if (date) return parseDate(date) ?? typedDate(texToText(date));
  const year = texToText(fields.get('year') ?? '');
  if (!year) return undefined;
  const month = texToText(fields.get('month') ?? '');
  const day = texToText(fields.get('day') ?? '') || /\b(\d{1,2})\b/.exec(month.replace(/^\d+$/, ''))?.[1];
  const name = /^\d{1,2}$/.test(month) ? month : /\p{L}+/u.exec(month)?.[0];
  const whole =
    name &&
    (/^\d+$/.test(name)
      ? [year, name, day].filter(Boolean).join('-')
      : [day, name, year].filter(Boolean).join(' '));
  return (whole ? parseDate(whole) : undefined) ?? typedDate(year);
}

/** Fields read together with others, not by a rule of their own. */
const DATE_FIELDS = new Set(['year', 'month', 'day', 'date', 'urldate', 'keywords', 'origdate']);

function readEntry(raw: RawEntry) {
  const rule = TYPE_RULES.find((r) => r.bibtex === raw.type);
  const notes = [...raw.notes];
  let type: CslType = rule?.csl ?? 'document';
  if (!rule) notes.push(`entry type “${raw.type}” is not known; read as a document`);
  if (type === 'document' && raw.fields.has('url')) type = 'webpage';
  const fields: Record<string, unknown> = { type };
  const kept: Record<string, string> = {};
  if (rule?.genre) fields.genre = rule.genre;
  for (const [name, tex] of raw.fields) {
    const named = NAME_RULES.find((r) => r.bibtex === name);
    if (named) {
      const { names, others } = namesFromTex(tex);
      if (names.length) fields[named.csl] = names;
      if (others) notes.push(`“and others” in ${name}: more names than the file gives`);
      continue;
    }
    if (DATE_FIELDS.has(name)) continue;
    const fieldRule = readRule(name, type);
    const title = fieldRule?.titleCase ?? false;
    const text = fieldRule?.verbatim ? tex.trim().replace(/\\([_%#&~])/g, '$1') : texToText(tex, title);
    if (!text) continue;
    if (!fieldRule || (fields[fieldRule.csl] !== undefined && fieldRule.csl !== 'genre')) kept[name] = tex;
    else fields[fieldRule.csl] = fieldRule.csl === 'page' ? pages(text) : text;
  }
  if (raw.type === 'misc' && raw.fields.has('howpublished')) {
    const address = /https?:\/\/[^\s}]+/.exec(raw.fields.get('howpublished')!)?.[0];
    if (address && !fields.URL) Object.assign(fields, { URL: address, medium: undefined, type: 'webpage' });
  }
  const issued = issuedOf(raw.fields);
  if (issued) fields.issued = issued;
  for (const [name, variable] of [
    ['urldate', 'accessed'],
    ['origdate', 'original-date'],
  ] as const) {
    const date = parseDate(raw.fields.get(name) ?? '');
    if (date) fields[variable] = date;
  }
  const tags = texToText(raw.fields.get('keywords') ?? '')
    .split(/\s*[,;]\s*/)
    .filter(Boolean);
  for (const key of Object.keys(fields)) if (fields[key] === undefined) delete fields[key];
  return finish(
    fields as Partial<SourceRecord> & { type: CslType },
    { format: 'bibtex', fields: kept },
    {
      key: raw.key,
      line: raw.line,
      notes,
      text: raw.text,
      tags: tags.map((t) => t.slice(0, 120)),
    },
  );
}

/** Reads a BibTeX file. */
export function readBibtex(text: string): ReadResult {
  const { entries, skipped } = parseBibtex(text);
  const result: ReadResult = { entries: [], skipped: [...skipped] };
  for (const raw of entries) {
    const { entry, skipped: refused } = readEntry(raw);
    if (entry) result.entries.push(entry);
    if (refused) result.skipped.push(refused);
  }
  result.skipped.sort((a, b) => a.line - b.line);
  return result;
}

const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ');

function entryType(record: SourceRecord): string {
  const own = TYPE_RULES.find(
    (r) =>
      r.write &&
      r.csl === record.type &&
      (!r.genre || /master/i.test(record.genre ?? '') === /master/.test(r.bibtex)),
  );
  return own?.bibtex ?? WRITE_AS[record.type] ?? 'misc';
}

function writeEntry({ key, record }: WriteItem, losses: Loss[]): string {
  const type = entryType(record);
  const lines: [string, string][] = [];
  const readBack = TYPE_RULES.find((r) => r.bibtex === type)!;
  const lose = (field: string, reason: string) => losses.push({ key, field, reason });
  if (readBack.csl !== record.type && !(type === 'misc' && record.type === 'webpage' && record.URL))
    lose('type', `BibTeX has no entry type for ${record.type}; written as @${type}`);
  for (const [variable, value] of Object.entries(record)) {
    if (variable === 'type' || variable === 'retexa' || value === undefined) continue;
    if (isNameVariable(variable)) {
      const rule = NAME_RULES.find((r) => r.csl === variable);
      if (rule) lines.push([rule.bibtex, `{${namesToTex(value as CslName[])}}`]);
      else lose(variable, 'BibTeX has no field for these creators');
    } else if (isDateVariable(variable)) {
      const date = value as CslDate;
      const [from, to] = date['date-parts'] ?? [];
      if (variable === 'accessed') lines.push(['urldate', `{${dateText(date)}}`]);
      else if (variable === 'original-date') lines.push(['origdate', `{${dateText(date)}}`]);
      else if (variable !== 'issued') lose(variable, 'BibTeX has no field for this date');
      else if (from && !to && !date.season && !date.circa && from[0]! > 0) {
        lines.push(['year', `{${from[0]}}`]);
        if (from[1]) lines.push(['month', MONTHS[from[1] - 1]!]);
        if (from[2]) lines.push(['day', `{${from[2]}}`]);
      } else {
        lines.push(['year', `{${textToTex(from ? String(from[0]) : (date.literal ?? ''))}}`]);
        if (from) lines.push(['date', `{${dateText(date)}}`]);
      }
    } else if (isTextVariable(variable)) {
      const rule = writeRule(variable, readBack.csl);
      const text = String(value);
      if (readBack.genre && variable === 'genre' && text === readBack.genre) continue;
      if (!rule || lines.some(([name]) => name === rule.bibtex)) lose(variable, 'BibTeX has no field for it');
      else if (rule.verbatim) lines.push([rule.bibtex, `{${text.replace(/[{}]/g, encodeURIComponent)}}`]);
      else
        lines.push([
          rule.bibtex,
          `{${textToTex(variable === 'page' ? text.replace(/(\d)-(?=\d)/g, '$1–') : text)}}`,
        ]);
    } else lose(variable, 'BibTeX has no field for it');
  }
  if (record.retexa.tags.length)
    lines.push(['keywords', `{${record.retexa.tags.map(textToTex).join(', ')}}`]);
  for (const [name, tex] of Object.entries(record.retexa.kept.bibtex ?? {}))
    if (!lines.some(([n]) => n === name)) lines.push([name, `{${tex}}`]);
  return `@${type}{${key},\n${lines.map(([name, value]) => `  ${name} = ${value}`).join(',\n')}\n}\n`;
}

/** Writes a BibTeX file in UTF-8 and says what the format could not hold. */
export function writeBibtex(items: WriteItem[]): WriteResult {
  const losses: Loss[] = [];
  return { text: items.map((item) => writeEntry(item, losses)).join('\n'), losses };
}

export const bibtex: Format = {
  name: 'bibtex',
  label: 'BibTeX',
  extension: 'bib',
  mediaType: 'application/x-bibtex',
  read: readBibtex,
  write: writeBibtex,
};
