import { isNameVariable, isDateVariable, type CslType, type Variable } from './variables';
import { TYPE_LABELS } from './fields';
import { dateText } from './dates';
import { nameText } from './creators';
import { translationsOf, translationsText } from './translations';
import type { CslDate, CslName, OriginKind, Seen, SourceRecord } from './schema';

/** How the interface names an origin. */
export const ORIGIN_LABELS: Record<OriginKind, string> = {
  registry: 'registry',
  linked: 'citation file of the page',
  highwire: 'citation tags of the page',
  prism: 'PRISM tags of the page',
  'json-ld': 'schema.org data of the page',
  microdata: 'schema.org marks in the text',
  rdfa: 'RDFa marks in the text',
  coins: 'embedded reference (COinS)',
  'dublin-core': 'Dublin Core of the page',
  document: 'the document itself',
  reference: 'reference as it was pasted',
  'open-graph': 'preview tags of the page',
  html: 'text of the page',
  file: 'imported file',
  person: 'typed by hand',
};

/** Whether two field values are the same value, whatever the order of their keys. */
export function sameValue(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((x, i) => sameValue(x, b[i]));
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b || Array.isArray(a) || Array.isArray(b))
    return false;
  const x = a as Record<string, unknown>;
  const y = b as Record<string, unknown>;
  const keys = new Set([...Object.keys(x), ...Object.keys(y)]);
  return [...keys].every((k) => sameValue(x[k], y[k]));
}

/** A field's value as one line of text, for showing and comparing. */
export function valueText(field: string, value: unknown): string {
  if (value === undefined || value === null) return '';
  if (field === 'type') return TYPE_LABELS[value as CslType] ?? String(value);
  if (isNameVariable(field)) return (value as CslName[]).map(nameText).join('; ');
  if (isDateVariable(field)) return dateText(value as CslDate);
  if (field === 'custom') {
    const { translations: _told, ...others } = value as Record<string, unknown>;
    const told = translationsText(translationsOf({ custom: value as SourceRecord['custom'] }));
    return [told, ...Object.entries(others).map((other) => JSON.stringify(other))].filter(Boolean).join('; ');
  }
  return typeof value === 'string' ? value : JSON.stringify(value);
}

/** What was seen for a field; a name like `constructor`, which every object has, is none. */
const seenFor = ({ retexa: { origins } }: SourceRecord, field: string): Seen[] =>
  (Object.hasOwn(origins, field) && origins[field]) || [];

/** The origin the current value of a field agrees with, the first seen if several; `undefined` where none does. */
export function originOf(record: SourceRecord, field: string): Seen | undefined {
  const value = record[field as Variable];
  if (value === undefined) return undefined;
  return seenFor(record, field).find((s) => sameValue(s.value, value));
}

/** Other values seen for a field than the one it has, each once. */
export function alternativesOf(record: SourceRecord, field: string): Seen[] {
  const value = record[field as Variable];
  const others: Seen[] = [];
  for (const s of seenFor(record, field))
    if (!sameValue(s.value, value) && !others.some((o) => sameValue(o.value, s.value))) others.push(s);
  return others;
}

/**
 * A record with a person's edit to its fields: changed values are set (or removed when `undefined`) and noted as
 * typed by hand, unless a value is one that was seen before; the value replaced stays among the origins.
 */
export function withEdit(record: SourceRecord, edit: Record<string, unknown>, at: string): SourceRecord {
  const next: Record<string, unknown> = { ...record };
  const origins = { ...record.retexa.origins };
  for (const [field, value] of Object.entries(edit)) {
    if (sameValue(record[field as Variable], value)) continue;
    if (
      value === undefined ||
      value === null ||
      value === '' ||
      (Array.isArray(value) && value.length === 0)
    ) {
      delete next[field];
      continue;
    }
    next[field] = value;
    // A name from outside may be one that every object has; the schema refuses it in words.
    const seen = Object.hasOwn(origins, field) ? origins[field]! : [];
    if (!seen.some((s) => sameValue(s.value, value)))
      origins[field] = [...seen, { kind: 'person' as const, value, at }].slice(-40);
  }
  return { ...(next as SourceRecord), retexa: { ...record.retexa, origins } };
}
