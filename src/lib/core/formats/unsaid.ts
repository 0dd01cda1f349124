import { keywordsOf, toCsl, valueText, type SourceRecord, type Variable } from '../source';
import type { Format, Loss, WriteItem } from './types';

/** Quotation marks and spaces TeX does not tell apart are no loss. */
const alike = (text: string) => text.replace(/[‘’'`]/g, '’').replace(/[^\S\n]+/g, ' ');

/** A value in one spelling: keys in order, so that equal values give equal text. */
function spelled(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(spelled).join()}]`;
  if (value && typeof value === 'object')
    return `{${Object.keys(value)
      .sort()
      .map((k) => `${k}:${spelled((value as Record<string, unknown>)[k])}`)
      .join()}}`;
  return alike(String(value));
}

const words = (record: SourceRecord | undefined, field: string) =>
  record?.[field as Variable] === undefined
    ? undefined
    : (valueText(field as Variable, record[field as Variable]) || undefined)?.slice(0, 80);

/**
 * What a written file does not give back and no loss has said yet, by reading it. This keeps the promise that every
 * loss is told even where a table has no rule for the case.
 */
export function unsaid(format: Format, text: string, items: WriteItem[], said: Loss[]): Loss[] {
  const { entries } = format.read(text);
  const known = new Set(said.map((l) => `${l.key}\n${l.field}`));
  const lossy = new Set(said.map((l) => l.key));
  const losses: Loss[] = [];
  const whole = entries.length === items.length;
  const byKey = new Map(whole ? [] : entries.map((e) => [e.key, e]));
  items.forEach(({ key, record }, i) => {
    const back = whole ? entries[i] : byKey.get(key);
    const lose = (field: string, reason: string) => {
      if (known.has(`${key}\n${field}`)) return;
      losses.push({ key, field, reason });
      lossy.add(key);
    };
    if (!back) return lose('record', `${format.label} does not give this record back`);
    const ours = toCsl(key, record) as unknown as Record<string, unknown>;
    const theirs = toCsl(key, back.record) as unknown as Record<string, unknown>;
    for (const field of new Set([...Object.keys(ours), ...Object.keys(theirs)])) {
      // Keywords are written with the tags, and come back as such.
      if (field === 'id' || field === 'keyword') continue;
      const [a, b] = [ours[field], theirs[field]];
      if (a === b || spelled(a) === spelled(b)) continue;
      // A value that stands in for another (a place for the type it belongs to) is told once, with the other.
      if (a === undefined && lossy.has(key)) continue;
      const read = words(back.record, field);
      lose(
        field,
        read ? `${format.label} gives it back as “${read}”` : `${format.label} does not give it back`,
      );
    }
    const given = keywordsOf(record).join('\n');
    if (format.name !== 'csl-json' && given !== back.record.retexa.tags.join('\n'))
      lose('tags', `${format.label} gives them back as ${back.record.retexa.tags.join(', ') || 'nothing'}`);
  });
  return losses;
}
