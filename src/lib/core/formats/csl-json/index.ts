import {
  CSL_TYPES,
  DATE_VARIABLES,
  edtfOf,
  isDateVariable,
  isNameVariable,
  isTextVariable,
  parseDate,
  parseEdtf,
  type CslItem,
  type CslType,
  type SourceRecord,
  toCsl,
} from '../../source';
import { finish, otherKept } from '../finish';
import type { Format, Loss, ReadResult, WriteItem, WriteResult } from '../types';

/** Offsets at which the items of a top-level JSON array begin; strings and nesting are skipped over. */
function itemOffsets(text: string): number[] {
  const offsets: number[] = [];
  let depth = 0;
  for (let i = 0; i < text.length; i++) {
    const c = text[i];
    if (c === '"') for (i++; i < text.length && text[i] !== '"'; i++) if (text[i] === '\\') i++;
    if (c === '{' || c === '[') {
      if (depth === 1 && c === '{') offsets.push(i);
      depth++;
    } else if (c === '}' || c === ']') depth--;
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

function readItem(item: unknown, line: number, text: string) {
  if (typeof item !== 'object' || !item || Array.isArray(item))
    return { skipped: { line, reason: 'not an item', text: text.slice(0, 120) } };
  const raw = item as Record<string, unknown>;
  const notes: string[] = [];
  const known = (CSL_TYPES as readonly string[]).includes(String(raw.type));
  if (!known) notes.push(`type “${String(raw.type ?? '')}” is not known; read as a document`);
  const fields: Record<string, unknown> = { type: known ? raw.type : 'document' };
  const kept: Record<string, string> = {};
  for (const [key, value] of Object.entries(raw)) {
    if (key === 'id' || key === 'type' || value === null || value === undefined) continue;
    if (isDateVariable(key)) fields[key] = dateOf(value);
    else if (isNameVariable(key)) fields[key] = value;
    else if (isTextVariable(key) && (typeof value === 'string' || typeof value === 'number'))
      fields[key] = String(value);
    else if (key === 'custom' && typeof value === 'object') fields.custom = value;
    else kept[key] = JSON.stringify(value);
    if (fields[key] === undefined || fields[key] === '') delete fields[key];
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
    const { entry, skipped } = readItem(item, line, text.slice(at, at + 200));
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
    const kept: Record<string, unknown> = {};
    for (const [name, json] of Object.entries(record.retexa.kept['csl-json'] ?? {}))
      kept[name] = JSON.parse(json);
    for (const loss of otherKept(record, ['csl-json'], 'CSL-JSON')) losses.push({ key, ...loss });
    const keyword = record.keyword ?? (record.retexa.tags.length ? record.retexa.tags.join(', ') : undefined);
    return { ...kept, ...withEdtf(toCsl(key, record)), ...(keyword ? { keyword } : {}) };
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
