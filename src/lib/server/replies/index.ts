import { z } from 'zod';
import { replyText } from '../../core/forms';
import { mentionedIn } from '../../core/members';
import { shortLabel } from '../../core/source';
import { change, checkOwn } from '../access/change';
import { scoped, type Context } from '../access/context';
import { notHere, Refusal } from '../access/refusal';
import { inParts, newId, now } from '../db/ids';
import { foundByReplies, getPassage, getPassages, type Passage } from '../passages/repository';
import { getSources } from '../sources/repository';

export * from './requests';

/** What is changed here. */
const CHANGE = { right: 'annotate', of: ['passages'] } as const;

/** A reply to a passage, and whom of the library it is for. */
export const replyWords = replyText.extend({ to: z.array(z.string().max(60)).max(50).default([]) });

/** A reply worded otherwise, or taken away and given back. */
export const replyChange = z.union([replyText, z.strictObject({ gone: z.boolean() })]);

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

/** Says something to a passage. Whom it is for finds it on their Desk; nobody is told of a passage that is one's own alone. */
export const addReply = (
  ctx: Context,
  passageId: string,
  { text, to }: z.infer<typeof replyWords>,
): Promise<{ id: string }> =>
  change(ctx, CHANGE, async (inner) => {
    const passage = await getPassage(inner, passageId);
    const sees = (id: string) =>
      passage.visibility === 'library' || passage.ownerId === id || passage.shownTo.includes(id);
    // Who is named in the words is told too, where they see what it is about.
    const named = mentionedIn(text, await peopleIn(inner)).filter(sees);
    const others = [...new Set([...to, ...named])].filter((id) => id !== inner.personId);
    if (!others.every(sees))
      throw new Refusal(
        422,
        'Not everybody this is for sees the passage. Show it to them first, then tell them of it.',
      );
    const here = (await scoped(inner, 'membership')
      .whereIn('person_id', others)
      .pluck('person_id')) as unknown as string[];
    if (here.length !== others.length) throw new Refusal(404, 'Somebody this is for is not in the library.');
    const id = newId();
    await inner.db('reply').insert({
      id,
      library_id: inner.libraryId,
      passage_id: passageId,
      owner_id: inner.personId,
      text,
      added: now(),
    });
    for (const person_id of here) await inner.db('reply_for').insert({ reply_id: id, person_id });
    await foundByReplies(inner, passage);
    return { id };
  });

const peopleIn = async (ctx: Context) =>
  (await scoped(ctx, 'membership')
    .join('person', 'person.id', 'membership.person_id')
    .select('person.id', 'person.name')) as unknown as { id: string; name: string }[];

async function replyHere(ctx: Context, id: string): Promise<{ owner_id: string; passage: Passage }> {
  const row = (await scoped(ctx, 'reply').where({ id }).first('owner_id', 'passage_id')) as
    { owner_id: string; passage_id: string } | undefined;
  if (!row) throw notHere('reply');
  // Whoever does not see the passage sees nothing that was said to it.
  return { owner_id: row.owner_id, passage: await getPassage(ctx, row.passage_id) };
}

/** Words a reply of one's own otherwise; takes one away, one's own or, for an editor, any. */
export const changeReply = (ctx: Context, id: string, said: z.infer<typeof replyChange>): Promise<void> =>
  change(ctx, CHANGE, async (inner) => {
    const { owner_id, passage } = await replyHere(inner, id);
    checkOwn(inner, owner_id);
    if ('text' in said && owner_id !== inner.personId)
      throw new Refusal(403, 'This was said by another. Answer it.');
    await scoped(inner, 'reply')
      .where({ id })
      .update('text' in said ? { text: said.text, edited: now() } : { binned: said.gone ? now() : null });
    await foundByReplies(inner, passage);
  });

/** Says that what is asked at a passage is settled, or is open again. */
export const settle = (ctx: Context, passageId: string, settled: boolean): Promise<void> =>
  change(ctx, CHANGE, async (inner) => {
    await getPassage(inner, passageId);
    const row = { passage_id: passageId, library_id: inner.libraryId };
    if (settled)
      await inner
        .db('settled')
        .insert({ ...row, person_id: inner.personId, at: now() })
        .onConflict('passage_id')
        .ignore();
    else await scoped(inner, 'settled').where(row).delete();
  });

/** Something said for somebody that they have not looked at. */
export interface ForMe {
  id: string;
  text: string;
  added: string;
  from: string;
  passageId: string;
  copyId: string | null;
  sourceId: string;
  sourceLabel: string;
}

/** Lines on a Desk at once. */
const LINES = 20;

/** What others said for the person who asks, and they have not looked at: newest first. */
export async function saidForMe(ctx: Context): Promise<ForMe[]> {
  const rows = (await scoped(ctx, 'reply')
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
  const passages = new Map(
    (
      await getPassages(
        ctx,
        rows.map((row) => row.passage_id),
      )
    ).map((p) => [p.id, p]),
  );
  const sources = new Map(
    (await getSources(ctx, [...new Set([...passages.values()].map((p) => p.sourceId))])).map((s) => [
      s.id,
      shortLabel(s.record),
    ]),
  );
  return rows.flatMap(({ passage_id, ...row }) => {
    const passage = passages.get(passage_id);
    if (!passage || passage.binned) return [];
    const { copyId, sourceId } = passage;
    return [{ ...row, passageId: passage_id, copyId, sourceId, sourceLabel: sources.get(sourceId) ?? '' }];
  });
}

/** Puts down that the person looked at what was said for them. */
export const lookedAt = (ctx: Context, ids: readonly string[]): Promise<void> =>
  change(ctx, { right: 'own', of: ['passages'] }, async (inner) => {
    for (const part of inParts([...ids])) {
      const here = scoped(inner, 'reply').whereIn('id', part).select('id');
      await inner
        .db('reply_for')
        .where({ person_id: inner.personId })
        .whereNull('seen')
        .whereIn('reply_id', here)
        .update({ seen: now() });
    }
  });
