import { z } from 'zod';
import { BIN_KINDS, deleteAllForGood } from '$lib/server/bin';
import { changes, ids } from '../../answer';

/** Deletes for good what lies in the bin, by kind. */
export const DELETE = changes(z.partialRecord(z.enum(BIN_KINDS), ids), (given, ctx) =>
  deleteAllForGood(ctx, given),
);
