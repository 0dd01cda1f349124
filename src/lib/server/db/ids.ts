import { v7 } from 'uuid';

/** A new id: UUID version 7 (RFC 9562), so ids sort by the time they were made. */
export const newId = (): string => v7();

/** Now, as UTC ISO 8601. */
export const now = (): string => new Date().toISOString();

/** Ids in parts, since a statement takes so many values only. */
export function* inParts<T>(ids: readonly T[], size = 200): Generator<T[]> {
  for (let i = 0; i < ids.length; i += size) yield ids.slice(i, i + size);
}
