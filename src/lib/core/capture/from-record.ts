import type { OriginKind, SourceRecord, Variable } from '../source';
import type { Candidate } from './candidate';

/** The fields of a record read from a file or a catalogue, as candidates of one origin. */
export function fromRecord(record: SourceRecord, kind: OriginKind, note?: string): Candidate[] {
  return Object.entries(record)
    .filter(([field, value]) => field !== 'retexa' && field !== 'custom' && value !== undefined)
    .map(([field, value]) => ({ field: field as Variable | 'type', value, kind, ...(note ? { note } : {}) }));
}
