import { z } from 'zod';
import { SPELLED } from '../duplicates';
import { orcidText } from '../source';

const name = z.string().min(1).max(40_000);

/** A name that is called otherwise wherever it stands. */
export const renameWords = z.object({
  kind: z.enum(SPELLED),
  name,
  to: z.string().trim().min(1, 'A name is needed').max(4_000),
});

/** The ORCID of who is meant by a name, as names are shown; nothing takes it away. */
export const orcidWords = z.object({
  name,
  orcid: z
    .string()
    .max(200)
    .nullable()
    .transform((given, ctx) => {
      if (!given?.trim()) return null;
      const orcid = orcidText(given);
      if (orcid) return orcid;
      ctx.addIssue({
        code: 'custom',
        message: 'This is no ORCID: sixteen digits in fours, the last one checks the others.',
      });
      return z.NEVER;
    }),
});
