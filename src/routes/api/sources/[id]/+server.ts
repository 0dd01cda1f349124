import { z } from 'zod';
import { credibility } from '$lib/core/source';
import { editSource } from '$lib/server/sources';
import { changes, idOf } from '../../../answer';

const edit = z.object({
  base: z.number().int(),
  fields: z.record(z.string().max(60), z.unknown()).default({}),
  tags: z.array(z.string().max(120)).max(200).optional(),
  citekey: z.string().max(200).optional(),
  credibility: credibility.optional(),
  why: z.string().max(200).optional(),
});

/** Saves a change of a record, made on revision `base`. */
export const PATCH = changes(
  edit,
  async ({ base, why, fields, tags, citekey, credibility: said }, ctx, event) => {
    const change = {
      fields,
      ...(tags ? { tags } : {}),
      ...(citekey !== undefined ? { citekey } : {}),
      ...(said ? { credibility: said } : {}),
    };
    const { source, revisionId } = await editSource(ctx, idOf(event), base, change, why);
    return { revision: source.revision, revisionId };
  },
);
