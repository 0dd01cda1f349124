import type { z } from 'zod';
import type { orcidWords } from '../../core/forms';
import { change } from '../access/change';
import { scoped, type Context } from '../access/context';

interface Row {
  name: string;
  orcid: string;
}

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

/** Who is meant by names that came with an ORCID, where nobody has said it yet. Call in the transaction that adds their source. */
export async function takeOrcids(ctx: Context, orcids: Readonly<Record<string, string>>): Promise<void> {
  const rows = Object.entries(orcids).map(([name, orcid]) => ({ library_id: ctx.libraryId, name, orcid }));
  if (rows.length) await ctx.db('person_orcid').insert(rows).onConflict(['library_id', 'name']).ignore();
}

/** Says who is meant by a name; gives what takes it back. */
export const setOrcid = (
  ctx: Context,
  { name, orcid }: z.output<typeof orcidWords>,
): Promise<{ back: z.output<typeof orcidWords> }> =>
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
