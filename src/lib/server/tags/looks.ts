import { z } from 'zod';
import { PLAIN_LOOK, tagLook, type TagLook } from '../../core/source';
import { change } from '../access/change';
import { scoped, type Context } from '../access/context';

interface Row extends Omit<TagLook, 'group'> {
  tag: string;
  group_name: string | null;
}

const opened = ({ tint, pattern, group_name }: Row): TagLook => ({ tint, pattern, group: group_name });

/** How the tags look of which something was said, by name. */
export async function tagLooks(ctx: Context): Promise<Record<string, TagLook>> {
  const rows = (await scoped<Row>(ctx, 'tag_look').orderBy('tag')) as Row[];
  return Object.fromEntries(rows.map((row) => [row.tag, opened(row)]));
}

async function lookOf(ctx: Context, tag: string): Promise<TagLook | undefined> {
  const row = (await scoped<Row>(ctx, 'tag_look').where({ tag }).first()) as Row | undefined;
  return row && opened(row);
}

async function keepLook(ctx: Context, tag: string, { tint, pattern, group }: TagLook): Promise<void> {
  if (!tint && !group) return void (await scoped(ctx, 'tag_look').where({ tag }).delete());
  await ctx
    .db('tag_look')
    .insert({ library_id: ctx.libraryId, tag, tint, pattern, group_name: group })
    .onConflict(['library_id', 'tag'])
    .merge();
}

/** How tags are to look, by name. */
export const tagsLook = z.object({
  looks: z
    .record(z.string().trim().min(1).max(120), tagLook)
    .refine((looks) => Object.keys(looks).length <= 500, 'At most 500 tags at once'),
});

/** Says how tags look and what group they are in; gives what takes it back. */
export const setTagLooks = (
  ctx: Context,
  { looks }: z.infer<typeof tagsLook>,
): Promise<{ back: z.infer<typeof tagsLook> }> =>
  change(ctx, { right: 'edit', of: ['tags'] }, async (inner) => {
    const before: Record<string, TagLook> = {};
    for (const [tag, look] of Object.entries(looks)) {
      before[tag] = (await lookOf(inner, tag)) ?? PLAIN_LOOK;
      await keepLook(inner, tag, look);
    }
    return { back: { looks: before } };
  });

/**
 * A tag that is called otherwise goes on looking as it did, unless what it is called now has a look of its own. The old name
 * keeps its look, for when the new name is taken back.
 */
export async function carryLook(ctx: Context, from: string, to: string): Promise<void> {
  const look = await lookOf(ctx, from);
  if (look && !(await lookOf(ctx, to))) await keepLook(ctx, to, look);
}
