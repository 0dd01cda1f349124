import { z } from 'zod';
import { orcidText } from '../../core/source';
import { change } from '../access/change';
import { scoped, type Context } from '../access/context';

interface Row {
  name: string;
  orcid: string;
}

/** The ORCID of who is meant by a name, as names are shown; nothing takes it away. */
export const orcidSaid = z.object({
  name: z.string().min(1).max(40_000),
  orcid: z
    .string()
    .max(200)
    .transform((given, ctx) => {
      if (!given.trim()) return null;
      const orcid = orcidText(given);
      if (orcid) return orcid;
      ctx.addIssue({
        code: 'custom',
        message: 'This is no ORCID: sixteen digits in fours, the last one checks the others',
      });
      return z.NEVER;
    })
    .nullable(),
});

/** The ORCIDs said of names of the library, by name. */
export async function orcidsSaid(ctx: Context): Promise<Map<string, string>> {
  const rows = (await scoped<Row>(ctx, 'person_orcid').select('name', 'orcid')) as Row[];
  return new Map(rows.map(({ name, orcid }) => [name, orcid]));
}

async function orcidOf(ctx: Context, name: string): Promise<string | null> {
  const row = (await scoped<Row>(ctx, 'person_orcid').where({ name }).first()) as Row | undefined;
  return row?.orcid ?? null;
}

async function keepOrcid(ctx: Context, name: string, orcid: string | null): Promise<void> {
  if (!orcid) return void (await scoped(ctx, 'person_orcid').where({ name }).delete());
  await ctx
    .db('person_orcid')
    .insert({ library_id: ctx.libraryId, name, orcid })
    .onConflict(['library_id', 'name'])
    .merge();
}

/** Says who is meant by a name; gives what takes it back. */
export const setOrcid = (
  ctx: Context,
  { name, orcid }: z.output<typeof orcidSaid>,
): Promise<{ back: z.output<typeof orcidSaid> }> =>
  change(ctx, { right: 'edit', of: ['people'] }, async (inner) => {
    const before = await orcidOf(inner, name);
    await keepOrcid(inner, name, orcid);
    return { back: { name, orcid: before } };
  });

/** Who was meant by a name is meant by what it is called now, unless that has an ORCID of its own; the old name keeps it for when it is taken back. */
export async function carryOrcid(ctx: Context, from: string, to: string): Promise<void> {
  const orcid = await orcidOf(ctx, from);
  if (orcid && !(await orcidOf(ctx, to))) await keepOrcid(ctx, to, orcid);
}
