import { v7 } from 'uuid';

/** A new id: UUID version 7 (RFC 9562), so ids sort by the time they were made. */
export const newId = (): string => v7();

/** Now, as UTC ISO 8601. */
export const now = (): string => new Date().toISOString();
