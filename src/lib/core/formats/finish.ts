import { emptyRecord, problemsOf, sourceRecord, type Seen, type SourceRecord } from '../source';
import type { FormatName, ReadEntry, Skipped } from './types';

/** The time noted as "when seen" of values from files; the importer replaces it by the time of the import. */
export const FILE_TIME = '1970-01-01T00:00:00.000Z';

/**
 * A record from the fields a reader found: each value is noted as coming from a file, and the whole is checked by the
 * schema. A record the schema refuses becomes a skipped entry.
 */
export function finish(
  fields: Partial<SourceRecord> & { type: SourceRecord['type'] },
  kept: { format: FormatName; fields: Record<string, string> },
  entry: { key?: string; line: number; notes: string[]; text: string; tags?: string[] },
): { entry?: ReadEntry; skipped?: Skipped } {
  const origins: Record<string, Seen[]> = {};
  for (const [field, value] of Object.entries(fields))
    if (field !== 'retexa' && field !== 'custom') origins[field] = [{ kind: 'file', value, at: FILE_TIME }];
  const parsed = sourceRecord.safeParse({
    ...emptyRecord(fields.type),
    ...fields,
    retexa: {
      origins,
      tags: entry.tags ?? [],
      kept: Object.keys(kept.fields).length ? { [kept.format]: kept.fields } : {},
    },
  });
  const { line, text, notes, key } = entry;
  if (!parsed.success)
    return { skipped: { line, reason: problemsOf(parsed.error).join('; '), text: text.slice(0, 120) } };
  return { entry: { record: parsed.data, line, notes, ...(key ? { key } : {}) } };
}
