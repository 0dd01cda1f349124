import { squash } from '../text';
import { dateProblem, typedDate } from './dates';
import type { CslName, SourceRecord } from './schema';
import { isDateVariable, isNameVariable, isTextVariable, type Variable } from './variables';

/** One thing done to the same field of many records: a value set, taken out, or words of it put in place of others. */
export type FieldChange =
  | { act: 'set'; field: string; value: string }
  | { act: 'clear'; field: string }
  | {
      act: 'replace';
      field: string;
      find: string;
      by: string;
      /** Capitals and small letters are told apart. */
      exact: boolean;
    };

/** Fields a value can be set in for many records: those of text, and dates. */
export const canSet = (field: string): boolean => isTextVariable(field) || isDateVariable(field);
/** Fields words can be replaced in: those of text, and names part by part. */
export const canReplace = (field: string): boolean => isTextVariable(field) || isNameVariable(field);

/** Why a change cannot be made of any record; nothing where it can. */
export function changeProblem(change: FieldChange): string | undefined {
  const { act, field } = change;
  if (act === 'replace') {
    if (!canReplace(field)) return `${field}: words cannot be replaced in this field.`;
    return change.find ? undefined : `${field}: say which words are to be replaced.`;
  }
  if (act === 'clear') return canSet(field) || isNameVariable(field) ? undefined : `${field}: is no field.`;
  if (!canSet(field)) return `${field}: a value cannot be set for many sources at once.`;
  if (!squash(change.value)) return `${field}: say what is to stand there, or clear the field.`;
  return isDateVariable(field) ? dateProblem(change.value) : undefined;
}

const PARTS = ['family', 'given', 'literal', 'dropping-particle', 'non-dropping-particle', 'suffix'] as const;

/** A name with words of its parts replaced; nothing when nothing is left of it. */
function nameWith(name: CslName, replaced: (text: string) => string): CslName | undefined {
  const next: Record<string, unknown> = { ...name };
  for (const part of PARTS) {
    const text = next[part];
    if (typeof text !== 'string') continue;
    const is = squash(replaced(text));
    if (is) next[part] = is;
    else delete next[part];
  }
  return PARTS.some((part) => next[part]) ? (next as CslName) : undefined;
}

/**
 * What a change makes of the field of a record, as a value to set, or null for none; nothing where it changes nothing. Words are
 * looked for as they are written, not as a pattern. The change must be one that can be made (`changeProblem`).
 */
export function fieldChanged(record: SourceRecord, change: FieldChange): { value: unknown } | undefined {
  const { field } = change;
  const was = record[field as Variable] as unknown;
  if (change.act === 'clear') return was === undefined ? undefined : { value: null };
  if (change.act === 'set') {
    const value: unknown = isDateVariable(field) ? typedDate(change.value) : change.value.trim();
    return JSON.stringify(value) === JSON.stringify(was) ? undefined : { value };
  }
  const sought = new RegExp(change.find.replace(/[\\^$.*+?()[\]{}|/]/g, '\\$&'), change.exact ? 'gu' : 'giu');
  const replaced = (text: string) => text.replace(sought, () => change.by);
  if (Array.isArray(was)) {
    const names = (was as CslName[]).flatMap((name) => nameWith(name, replaced) ?? []);
    return JSON.stringify(names) === JSON.stringify(was) ? undefined : { value: names.length ? names : null };
  }
  if (was === undefined || (typeof was !== 'string' && typeof was !== 'number')) return undefined;
  const text = String(was);
  const is = replaced(text);
  return is === text ? undefined : { value: is.trim() || null };
}
