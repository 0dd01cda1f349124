import {
  AND_OTHERS,
  bareDoi,
  emptyRecord,
  othersUnnamed,
  plainlyRecord,
  problemsOf,
  sourceRecord,
  takenOutOf,
  tidied,
  type NameVariable,
  type Seen,
  type SourceRecord,
} from '../source';
import type { Loss, ReadableName, ReadEntry, Skipped } from './types';

/** The time noted as "when seen" of values from files; the importer replaces it by the time of the import. */
export const FILE_TIME = '1970-01-01T00:00:00.000Z';

/**
 * A record from the fields a reader found: each value is noted as coming from a file, and the whole is checked by the
 * schema. A record the schema refuses becomes a skipped entry.
 */
export function finish(
  fields: Partial<SourceRecord> & { type: SourceRecord['type'] },
  kept: { format: ReadableName; fields: Record<string, string> },
  entry: { key?: string; line: number; notes: string[]; text: string; tags?: string[] },
): { entry?: ReadEntry; skipped?: Skipped } {
  // Files give a DOI as an address as often as bare; styles set the resolver before it themselves.
  if (typeof fields.DOI === 'string') fields.DOI = bareDoi(fields.DOI);
  const clean = tidied(fields) as typeof fields;
  if (clean !== fields) {
    const touched = Object.keys(fields).filter((f) => clean[f as 'title'] !== fields[f as 'title']);
    entry.notes.push(...takenOutOf(touched));
    fields = clean;
  }
  const origins: Record<string, Seen[]> = {};
  for (const field of Object.keys(fields))
    if (field !== 'retexa' && field !== 'custom')
      origins[field] = [{ kind: 'file', value: fields[field as 'title'], at: FILE_TIME }];
  const { tags = [] } = entry;
  const record = {
    ...fields,
    retexa: { origins, tags, kept: Object.keys(kept.fields).length ? { [kept.format]: kept.fields } : {} },
  } as SourceRecord;
  const done = (whole: SourceRecord) => ({
    entry: { record: whole, line: entry.line, notes: entry.notes, ...(entry.key ? { key: entry.key } : {}) },
  });
  if (plainlyRecord(fields, kept.fields, tags)) return done(record);
  const parsed = sourceRecord.safeParse({ ...emptyRecord(fields.type), ...record });
  if (parsed.success) return done(parsed.data);
  return {
    skipped: {
      line: entry.line,
      reason: problemsOf(parsed.error).join('; '),
      text: entry.text.slice(0, 120),
    },
  };
}

/** What a record keeps from other formats than those named, as losses: no format holds another's unknown fields. */
export function otherKept(record: SourceRecord, own: ReadableName[], label: string): Omit<Loss, 'key'>[] {
  return Object.entries(record.retexa.kept)
    .filter(([format]) => !own.includes(format as ReadableName))
    .flatMap(([format, fields]) =>
      Object.entries(fields).flatMap(([field, text]) => {
        if (text !== AND_OTHERS)
          return [
            { field: `${format} ${field}`, reason: `kept from ${format}; ${label} has no field for it` },
          ];
        if (!othersUnnamed(record, field as NameVariable)) return [];
        return [{ field, reason: `${label} cannot say that there are others` }];
      }),
    );
}

/** A record whose values were read by other means, with each noted as coming from a file. */
export function asFromFile(record: SourceRecord): SourceRecord {
  const origins = Object.entries(record.retexa.origins).map(([field, seen]) => [
    field,
    seen.map((s): Seen => ({ ...s, kind: 'file' })),
  ]);
  return {
    ...record,
    retexa: { ...record.retexa, origins: Object.fromEntries(origins) as Record<string, Seen[]> },
  };
}
