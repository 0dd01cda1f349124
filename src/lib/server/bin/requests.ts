import { z } from 'zod';
import { ids } from '../requests';

/** What lies in the bin. */
export const BIN_KINDS = ['tasks', 'passages', 'leads', 'notes', 'sources', 'sections', 'projects'] as const;
export type BinKind = (typeof BIN_KINDS)[number];

/** What is deleted for good, by kind. */
export const binDeleted = z.partialRecord(z.enum(BIN_KINDS), ids);
