import {
  cslTypeOf,
  DATE_VARIABLES,
  edtfOf,
  isDateVariable,
  isNameVariable,
  isTextVariable,
  nameFromCsl,
  parseDate,
  parseEdtf,
  type CslItem,
  type CslName,
  type CslType,
  type SourceRecord,
  toCsl,
} from '../../source';
import { finish, otherKept } from '../finish';
import type { Format, Loss, ReadResult, WriteItem, WriteResult } from '../types';

/** Where the string of JSON ends that begins at a quotation mark. */
function endOfString(text: string, from: number): number {
  for (let at = text.indexOf('"', from + 1); at >= 0; at = text.indexOf('"', at + 1)) {
    let before = at - 1;
    while (text[before] === '\\') before--;
    if ((at - before) % 2 === 1) return at;
  }
  return text.length;
}

/** Offsets at which the items of a top-level JSON array begin, whatever they are; strings and nesting are skipped over. */
function itemOffsets(text: string): number[] {
  const offsets: number[] = [];
  let depth = 0;
  let awaited = false;
  for (let i = 0; i < text.length; i++) {
    const c = text[i];
    if (depth === 1 && awaited && c !== ']' && !/\s/.test(c!)) {
      offsets.push(i);
      awaited = false;
    }
    if (c === '"') i = endOfString(text, i);
    if (c === '{' || c === '[') {
      depth++;
      if (depth === 1) awaited = true;
    } else if (c === '}' || c === ']') depth--;
    else if (c === ',' && depth === 1) awaited = true;
  }
  return offsets;
}

const lineAt = (text: string, offset: number) => text.slice(0, offset).split('\n').length;

function dateOf(value: unknown) {
  if (typeof value === 'string') return parseDate(value) ?? { literal: value };
  if (typeof value !== 'object' || !value) return undefined;
  const raw = value as Record<string, unknown>;
  const parts = (Array.isArray(raw['date-parts']) ? raw['date-parts'] : [])
    .map((p: unknown) => (Array.isArray(p) ? p.filter((n) => n !== '' && n !== null).map(Number) : []))
    .filter((p) => p.length > 0 && p.every(Number.isInteger));
  const season = Number(raw.season);
  const circa = raw.circa === true || raw.circa === 1 || raw.circa === '1' || raw.circa === 'true';
  // A last end of 0 is how processors say that a range goes on.
  if (parts.length === 2 && parts[1]![0] === 0 && parts[0]![0] !== 0) {
    const [from] = parts as [number[]];
    const edtf = edtfOf({ 'date-parts': [from] })!;
    return { ...parseEdtf(`${edtf}/..`)!, ...(circa ? { circa: true } : {}) };
  }
  if (parts.length)
    return {
      'date-parts': parts,
      ...(season >= 1 && season <= 4 ? { season } : {}),
      ...(circa ? { circa: true } : {}),
    };
  const text = String(raw.raw ?? raw.literal ?? '');
  return text ? (raw.raw ? (parseDate(text) ?? { literal: text }) : { literal: text }) : undefined;
}

/** Creators; what of them CSL has no place for is told. */
function namesOf(key: string, value: unknown, notes: string[]): CslName[] | undefined {
  const list: unknown[] = Array.isArray(value) ? value : [value];
  const left: string[] = [];
  const names: CslName[] = [];
  for (const raw of list) {
    const read = nameFromCsl(raw);
    for (const part of read.left) if (!left.includes(part)) left.push(part);
    if (read.name) names.push(read.name);
    else notes.push(`${key}: a creator without a name is left out`);
  }
  if (left.length) notes.push(`${key}: ${left.join(', ')} left out`);
  return names.length ? names : undefined;
}

/** A text, and whether it is the whole value. Agencies give lists where CSL has one text: of ISBN and ISSN all are read. */
function textFrom(key: string, value: unknown): { text: string | undefined; whole: boolean } {
  if (typeof value === 'string') return { text: value, whole: true };
  const list = (Array.isArray(value) ? value : [value]).filter((v) => v !== null);
  const texts = list.filter((v) => typeof v === 'string' || typeof v === 'number').map(String);
  if (texts.length < list.length) return { text: undefined, whole: false };
  const together = key === 'ISBN' || key === 'ISSN';
  return { text: together ? texts.join(', ') : texts[0], whole: together || texts.length < 2 };
}

function readItem(item: unknown, line: number, text: string) {
  if (typeof item !== 'object' || !item || Array.isArray(item))
    return { skipped: { line, reason: 'not an item', text: JSON.stringify(item).slice(0, 120) } };
  const raw = item as Record<string, unknown>;
  const notes: string[] = [];
  const type = cslTypeOf(String(raw.type ?? ''));
  if (!type) notes.push(`type “${String(raw.type ?? '')}” is not known; read as a document`);
  const fields: Record<string, unknown> = { type: type ?? 'document' };
  const kept: Record<string, string> = {};
  const keys = Object.keys(raw);
  for (let i = 0; i < keys.length; i++) {
    const key = keys[i]!;
    const value = raw[key];
    if (key === 'id' || key === 'type' || value === null || value === undefined) continue;
    let read: unknown;
    if (isDateVariable(key)) read = dateOf(value);
    else if (isNameVariable(key)) read = namesOf(key, value, notes);
    else if (isTextVariable(key)) {
      const { text, whole } = textFrom(key, value);
      read = text;
      if (!whole) kept[key] = JSON.stringify(value);
    } else if (key === 'custom' && typeof value === 'object') read = value;
    else kept[key] = JSON.stringify(value);
    if (read !== undefined && read !== '') fields[key] = read;
  }
  return finish(
    fields as Partial<SourceRecord> & { type: CslType },
    { format: 'csl-json', fields: kept },
    {
      key: raw.id === undefined ? '' : String(raw.id),
      line,
      notes,
      text,
    },
  );
}

/** Reads CSL-JSON: an array of items, or one item. Unknown keys are kept. */
export function readCslJson(source: string): ReadResult {
  const text = source.replace(/^\uFEFF/, '');
  const result: ReadResult = { entries: [], skipped: [] };
  let items: unknown;
  try {
    items = JSON.parse(text);
  } catch (error) {
    const message = (error as Error).message;
    const position = /position (\d+)/.exec(message)?.[1];
    const line = position ? lineAt(text, Number(position)) : 1;
    result.skipped.push({ line, reason: `not valid JSON (${message})`, text: text.slice(0, 120) });
    return result;
  }
  const list = Array.isArray(items) ? items : [items];
  const offsets = Array.isArray(items) ? itemOffsets(text) : [0];
  let line = 1;
  let counted = 0;
  list.forEach((item, i) => {
    const at = offsets[i] ?? counted;
    for (; counted < at; counted++) if (text.charCodeAt(counted) === 10) line++;
    const { entry, skipped } = readItem(item, line, text.slice(at, offsets[i + 1]).slice(0, 200));
    if (entry) result.entries.push(entry);
    if (skipped) result.skipped.push(skipped);
  });
  return result;
}

/** A date that parts do not say wholly is written as its EDTF string, the other form CSL-JSON 1.0.2 has for dates. */
function withEdtf(item: CslItem): Record<string, unknown> {
  const out: Record<string, unknown> = { ...item };
  for (const variable of DATE_VARIABLES) if (item[variable]?.edtf) out[variable] = item[variable].edtf;
  return out;
}

/** Writes CSL-JSON 1.0.2. Tags go to `keyword` where the record has none; nothing is lost but origins. */
export function writeCslJson(items: WriteItem[]): WriteResult {
  const losses: Loss[] = [];
  const out = items.map(({ key, record }) => {
    const item = withEdtf(toCsl(key, record));
    const kept: Record<string, unknown> = {};
    for (const [name, json] of Object.entries(record.retexa.kept['csl-json'] ?? {})) {
      const value: unknown = JSON.parse(json);
      // A list of which the first was read goes back as long as that is the value still; other keys are nothing of ours.
      if ((isTextVariable(name) ? textFrom(name, value).text : undefined) === item[name]) kept[name] = value;
    }
    for (const loss of otherKept(record, ['csl-json'], 'CSL-JSON')) losses.push({ key, ...loss });
    const keyword = record.keyword ?? (record.retexa.tags.length ? record.retexa.tags.join(', ') : undefined);
    return { ...item, ...kept, ...(keyword ? { keyword } : {}) };
  });
  return { text: `${JSON.stringify(out, null, 2)}\n`, losses };
}

export const cslJson: Format = {
  name: 'csl-json',
  label: 'CSL-JSON',
  extension: 'json',
  mediaType: 'application/vnd.citationstyles.csl+json',
  read: readCslJson,
  write: writeCslJson,
};
