import { z } from 'zod';
import { replyText } from '../../core/forms';
import { mentionedIn } from '../../core/members';
import { shortLabel } from '../../core/source';
import { change, checkOwn } from '../access/change';
import type { Context } from '../access/context';
import { peopleOf, rolesOf } from '../access/members';
import { notHere, Refusal } from '../access/refusal';
import { newId, now } from '../db/ids';
import { foundByReplies, getPassage, getPassages, type Passage } from '../passages/repository';
import { getSources } from '../sources/repository';
import { insertReply, putSeen, putSettled, replyRow, unseenFor, updateReply } from './repository';

export { threadsOf, type Reply, type Thread } from './repository';
export * from './requests';

/** What is changed here. */
const CHANGE = { right: 'annotate', of: ['passages'] } as const;

/** A reply to a passage, and whom of the library it is for. */
export const replyWords = replyText.extend({ to: z.array(z.string().max(60)).max(50).default([]) });

/** A reply worded otherwise, or taken away and given back. */
export const replyChange = z.union([replyText, z.strictObject({ gone: z.boolean() })]);

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
    const named = mentionedIn(text, await peopleOf(inner)).filter(sees);
    const others = [...new Set([...to, ...named])].filter((id) => id !== inner.personId);
    if (!others.every(sees))
      throw new Refusal(
        422,
        'Not everybody this is for sees the passage. Show it to them first, then tell them of it.',
      );
    const here = await rolesOf(inner, others);
    if (here.length !== others.length) throw new Refusal(404, 'Somebody this is for is not in the library.');
    const id = newId();
    await insertReply(inner, { id, passageId, text, to: others });
    await foundByReplies(inner, passage);
    return { id };
  });

async function replyHere(ctx: Context, id: string): Promise<{ owner_id: string; passage: Passage }> {
  const row = await replyRow(ctx, id);
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
    await updateReply(
      inner,
      id,
      'text' in said ? { text: said.text, edited: now() } : { binned: said.gone ? now() : null },
    );
    await foundByReplies(inner, passage);
  });

/** Says that what is asked at a passage is settled, or is open again. */
export const settle = (ctx: Context, passageId: string, settled: boolean): Promise<void> =>
  change(ctx, CHANGE, async (inner) => {
    await getPassage(inner, passageId);
    await putSettled(inner, passageId, settled);
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

/** What others said for the person who asks, and they have not looked at: newest first. */
export async function saidForMe(ctx: Context): Promise<ForMe[]> {
  const rows = await unseenFor(ctx);
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
    await putSeen(inner, ids);
  });
