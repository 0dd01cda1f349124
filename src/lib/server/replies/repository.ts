import { scoped, type Context } from '../access/context';
import { inParts, now } from '../db/ids';

export interface Reply {
  id: string;
  text: string;
  added: string;
  edited: boolean;
  ownerId: string;
  owner: string;
  /** Whom it is for, by name. */
  to: string[];
}

/** What was said to a passage, in its order, and who settled it. */
export interface Thread {
  replies: Reply[];
  settled?: { by: string; at: string };
}

interface Row {
  id: string;
  passage_id: string;
  owner_id: string;
  text: string;
  added: string;
  edited: string | null;
  owner: string;
}

/** What was said to some passages; of those one may see, since others are not among them. */
export async function threadsOf(ctx: Context, passageIds: readonly string[]): Promise<Map<string, Thread>> {
  const threads = new Map<string, Thread>();
  const of = (id: string): Thread => {
    const thread = threads.get(id) ?? { replies: [] };
    threads.set(id, thread);
    return thread;
  };
  for (const part of inParts([...passageIds])) {
    const rows = (await scoped(ctx, 'reply')
      .join('person', 'person.id', 'reply.owner_id')
      .whereIn('reply.passage_id', part)
      .whereNull('reply.binned')
      .orderBy('reply.added')
      .orderBy('reply.id')
      .select('reply.*', ctx.db.raw('person.name AS owner'))) as unknown as Row[];
    const named = await namesFor(
      ctx,
      rows.map((row) => row.id),
    );
    for (const row of rows)
      of(row.passage_id).replies.push({
        id: row.id,
        text: row.text,
        added: row.added,
        edited: row.edited !== null,
        ownerId: row.owner_id,
        owner: row.owner,
        to: named.get(row.id) ?? [],
      });
    const settled = (await scoped(ctx, 'settled')
      .join('person', 'person.id', 'settled.person_id')
      .whereIn('settled.passage_id', part)
      .select('settled.passage_id', 'settled.at', ctx.db.raw('person.name AS "by"'))) as unknown as {
      passage_id: string;
      at: string;
      by: string;
    }[];
    for (const { passage_id, at, by } of settled) of(passage_id).settled = { by, at };
  }
  return threads;
}

/** The names of those some replies are for. */
async function namesFor(ctx: Context, ids: string[]): Promise<Map<string, string[]>> {
  const names = new Map<string, string[]>();
  for (const part of inParts(ids)) {
    const rows = (await ctx
      .db('reply_for')
      .join('person', 'person.id', 'reply_for.person_id')
      .whereIn('reply_id', part)
      .orderBy('person.name')
      .select('reply_id', 'person.name')) as { reply_id: string; name: string }[];
    for (const { reply_id, name } of rows) names.set(reply_id, [...(names.get(reply_id) ?? []), name]);
  }
  return names;
}

/** Whose a reply is, and to which passage. */
export const replyRow = async (
  ctx: Context,
  id: string,
): Promise<{ owner_id: string; passage_id: string } | undefined> =>
  (await scoped(ctx, 'reply').where({ id }).first('owner_id', 'passage_id')) as
    { owner_id: string; passage_id: string } | undefined;

/** Adds a reply of the person, and for whom it is. */
export async function insertReply(
  ctx: Context,
  { id, passageId, text, to }: { id: string; passageId: string; text: string; to: readonly string[] },
): Promise<void> {
  await ctx.db('reply').insert({
    id,
    library_id: ctx.libraryId,
    passage_id: passageId,
    owner_id: ctx.personId,
    text,
    added: now(),
  });
  for (const person_id of to) await ctx.db('reply_for').insert({ reply_id: id, person_id });
}

/** Changes the words of a reply, or whether it is there. */
export async function updateReply(
  ctx: Context,
  id: string,
  columns: { text: string; edited: string } | { binned: string | null },
): Promise<void> {
  await scoped(ctx, 'reply').where({ id }).update(columns);
}

/** Keeps that what is asked at a passage is settled, by who says it first, or is open. */
export async function putSettled(ctx: Context, passageId: string, settled: boolean): Promise<void> {
  const row = { passage_id: passageId, library_id: ctx.libraryId };
  if (settled)
    await ctx
      .db('settled')
      .insert({ ...row, person_id: ctx.personId, at: now() })
      .onConflict('passage_id')
      .ignore();
  else await scoped(ctx, 'settled').where(row).delete();
}

/** Lines on a Desk at once. */
const LINES = 20;

/** What others said for the person, and they have not looked at: newest first. */
export async function unseenFor(ctx: Context) {
  return (await scoped(ctx, 'reply')
    .join('reply_for', 'reply_for.reply_id', 'reply.id')
    .join('person', 'person.id', 'reply.owner_id')
    .where('reply_for.person_id', ctx.personId)
    .whereNull('reply_for.seen')
    .whereNull('reply.binned')
    .orderBy('reply.added', 'desc')
    .limit(LINES)
    .select(
      'reply.id',
      'reply.text',
      'reply.added',
      'reply.passage_id',
      ctx.db.raw('person.name AS "from"'),
    )) as unknown as {
    id: string;
    text: string;
    added: string;
    passage_id: string;
    from: string;
  }[];
}

/** Keeps that the person looked at what was said for them. */
export async function putSeen(ctx: Context, ids: readonly string[]): Promise<void> {
  for (const part of inParts([...ids])) {
    const here = scoped(ctx, 'reply').whereIn('id', part).select('id');
    await ctx
      .db('reply_for')
      .where({ person_id: ctx.personId })
      .whereNull('seen')
      .whereIn('reply_id', here)
      .update({ seen: now() });
  }
}
