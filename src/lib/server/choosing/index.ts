import type { z } from 'zod';
import { openTo, says, type Ballot, type Says, type Vote, type Way } from '../../core/choosing';
import {
  MOST_CANDIDATES,
  MOST_ORDERED,
  type choiceChange,
  type ChoiceWords,
  type voteWords,
} from '../../core/forms';
import { may } from '../../core/members';
import { headline, type SourceRecord } from '../../core/source';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { rolesOf } from '../access/members';
import { notHere, Refusal } from '../access/refusal';
import { newId, now } from '../db/ids';
import { checkSources } from '../sources/repository';
import {
  candidatesOf,
  choiceBy,
  choiceRow,
  choiceRows,
  countsOf,
  deleteCandidates,
  deletePutAway,
  deleteVotes,
  insertCandidates,
  insertChoice,
  putVote,
  recordsAmong,
  sourcesAmong,
  unjudgedChoices,
  updateChoice,
  updateSettled,
  votersOf,
  votesIn,
  type ChoiceBy,
  type ChoiceRow,
  type Voter,
} from './repository';

export type { Voter } from './repository';
export * from './requests';

/** What is changed here. */
const LEAD = { right: 'edit', of: ['choices'] } as const;
const VOTE = { right: 'annotate', of: ['votes'] } as const;

/** A choice in a list of them. */
export interface ChoiceLine {
  id: string;
  name: string;
  way: Way;
  made: string;
  /** Who made it, and their name. */
  ownerId: string;
  by: string;
  closed: string | null;
  putAway: string | null;
  candidates: number;
  voters: Voter[];
  /** Who looks is asked, and has not judged all. */
  waits: boolean;
}

const lineOf = (
  ctx: Context,
  row: ChoiceBy,
  counted: { candidates: number; voters: Voter[] },
): ChoiceLine => {
  const mine = counted.voters.find(({ id }) => id === ctx.personId);
  return {
    id: row.id,
    name: row.name,
    way: row.way,
    made: row.made,
    ownerId: row.owner_id,
    by: row.by,
    closed: row.closed,
    putAway: row.put_away,
    ...counted,
    waits: Boolean(
      mine && may(ctx.role, 'annotate') && !row.closed && !row.put_away && mine.judged < counted.candidates,
    ),
  };
};

/** The choices of the library, newest first. */
export async function listChoices(ctx: Context): Promise<ChoiceLine[]> {
  const rows = await choiceRows(ctx);
  const counts = await countsOf(
    ctx,
    rows.map((row) => row.id),
  );
  return rows.map((row) => lineOf(ctx, row, counts.get(row.id)!));
}

/** In how many choices who asks still has something to judge: asked beside every page. */
export async function waitingChoices(ctx: Context): Promise<number> {
  if (!may(ctx.role, 'annotate')) return 0;
  return unjudgedChoices(ctx);
}

/** A source that is chosen among. */
export interface Candidate {
  id: string;
  /** In one line. */
  headline: string;
}

/** A choice with what is chosen among, in its order. */
export interface Choice extends Pick<
  ChoiceLine,
  'id' | 'name' | 'way' | 'ownerId' | 'by' | 'made' | 'closed' | 'putAway'
> {
  among: Candidate[];
  /** Reasons for leaving something out that are offered. */
  reasons: string[];
}

/** A choice of the library; refuses where there is none. */
export async function getChoice(ctx: Context, id: string): Promise<Choice> {
  const row = await choiceBy(ctx, id);
  if (!row) throw notHere('choice');
  const among = await recordsAmong(ctx, id);
  const { name, way, by, made, closed, put_away } = row;
  return {
    id,
    name,
    way,
    ownerId: row.owner_id,
    by,
    made,
    closed,
    putAway: put_away,
    among: among.map(({ id, record }) => ({ id, headline: headline(JSON.parse(record) as SourceRecord) })),
    reasons: JSON.parse(row.reasons) as string[],
  };
}

/** A choice as it stands, as a whole; what of it is shown to whom is another matter. */
async function standing(ctx: Context, id: string) {
  const row = await choiceRow(ctx, id);
  if (!row) throw notHere('choice');
  const rows = await candidatesOf(ctx, id);
  const sourceOf = new Map(rows.map((candidate) => [candidate.id, candidate.source_id]));
  const votes = await votesIn(ctx, id);
  const voters = await votersOf(ctx, id);
  const ballot: Ballot = {
    way: row.way,
    candidates: rows.map((candidate) => candidate.source_id),
    voters,
    votes: votes.flatMap(({ candidate_id, person_id, ...said }): Vote[] => {
      const candidate = sourceOf.get(candidate_id);
      return candidate ? [{ candidate, person: person_id, ...said }] : [];
    }),
  };
  return { row, rows, ballot };
}

/** What was said in a choice, as far as it is shown to who asks. */
export interface Said {
  /** One’s own, and others’ of what is open to one. */
  votes: Vote[];
  /** Candidates of which others’ are shown. */
  open: string[];
  settled: { candidate: string; says: Says; by: string }[];
  /** Who is asked, in the order they were, and how many each has judged. */
  voters: Voter[];
}

/** What was said in a choice: one’s own, and of others what is not hidden from who asks. */
export async function saidIn(ctx: Context, id: string): Promise<Said> {
  const { row, rows, ballot } = await standing(ctx, id);
  const shown = openTo(ballot, ctx.personId, row.closed !== null);
  const open = new Set(ballot.candidates.filter(shown));
  return {
    votes: ballot.votes.filter((vote) => vote.person === ctx.personId || open.has(vote.candidate)),
    open: [...open],
    settled: rows.flatMap(({ source_id, settled, settledBy }) =>
      settled && open.has(source_id) ? [{ candidate: source_id, says: settled, by: settledBy ?? '' }] : [],
    ),
    voters: (await countsOf(ctx, [id])).get(id)!.voters,
  };
}

async function addCandidates(ctx: Context, choiceId: string, ids: string[], way: Way): Promise<string[]> {
  const most = way === 'order' ? MOST_ORDERED : MOST_CANDIDATES;
  const there = new Set(await sourcesAmong(ctx, choiceId));
  const coming = [...new Set(ids)].filter((id) => !there.has(id));
  if (there.size + coming.length > most)
    throw new Refusal(
      422,
      way === 'order'
        ? `At most ${most} can be put in an order.`
        : `A choice is among ${most.toLocaleString('en')} sources at most.`,
    );
  await insertCandidates(ctx, choiceId, coming);
  return coming;
}

/** Asks members of the library to choose among sources. Refuses who could not say anything. */
export const addChoice = (ctx: Context, given: ChoiceWords): Promise<{ id: string }> =>
  change(ctx, LEAD, async (inner) => {
    await checkSources(inner, given.ids);
    const voters = [...new Set(given.voters)];
    const members = await rolesOf(inner, voters);
    const able = new Set(
      members.filter(({ role }) => may(role, 'annotate')).map(({ person_id }) => person_id),
    );
    if (!voters.every((voter) => able.has(voter)))
      throw new Refusal(422, 'Somebody who is asked is not in the library, or may only read.');
    const id = newId();
    const { name, way } = given;
    await insertChoice(inner, { id, name, way, reasons: [...new Set(given.reasons)] }, voters);
    await addCandidates(inner, id, given.ids, given.way);
    return { id };
  });

/** Settles what two screened differently; gives what it was settled as before. */
async function settle(ctx: Context, id: string, source: string, verdict: Says | null): Promise<Says | null> {
  const { row, rows, ballot } = await standing(ctx, id);
  const candidate = rows.find(({ source_id }) => source_id === source);
  if (!candidate) throw notHere('candidate');
  if (row.way !== 'screening' || (verdict && !says(row.way, verdict)))
    throw new Refusal(422, 'Only what is screened is settled, as included or excluded.');
  if (!openTo(ballot, ctx.personId, row.closed !== null)(source))
    throw new Refusal(409, 'This is settled when both have judged everything.');
  await updateSettled(ctx, candidate.id, verdict);
  return candidate.settled;
}

/** Changes a choice, and gives what takes that back. */
export const changeChoice = (
  ctx: Context,
  id: string,
  said: z.infer<typeof choiceChange>,
): Promise<{ back?: z.infer<typeof choiceChange> }> =>
  change(ctx, { ...LEAD, names: { choice: id } }, async (inner) => {
    const before = (await choiceRow(inner, id))!;
    const write = (columns: Partial<ChoiceRow>) => updateChoice(inner, id, columns);
    switch (said.act) {
      case 'rename':
        await write({ name: said.name });
        return { back: { act: 'rename' as const, name: before.name } };
      case 'close':
        await write({ closed: said.closed ? (before.closed ?? now()) : null });
        return { back: { act: 'close' as const, closed: before.closed !== null } };
      case 'put away':
        await write({ put_away: said.away ? (before.put_away ?? now()) : null });
        return { back: { act: 'put away' as const, away: before.put_away !== null } };
      case 'add': {
        await checkSources(inner, said.ids);
        const ids = await addCandidates(inner, id, said.ids, before.way);
        return ids.length ? { back: { act: 'take out' as const, ids } } : {};
      }
      case 'take out': {
        const ids = await deleteCandidates(inner, id, said.ids);
        return ids.length ? { back: { act: 'add' as const, ids } } : {};
      }
      case 'settle':
        return {
          back: { act: 'settle' as const, id: said.id, says: await settle(inner, id, said.id, said.says) },
        };
    }
  });

/** Deletes a choice that was put away, with what was said in it. */
export const deleteChoice = (ctx: Context, id: string): Promise<void> =>
  change(ctx, { ...LEAD, names: { choice: id } }, async (inner) => {
    if (!(await deletePutAway(inner, id))) throw new Refusal(409, 'Put the choice away first.');
  });

/** Says what one thinks of a candidate, or takes it back, or gives one’s order of all. */
export const vote = (ctx: Context, id: string, said: z.infer<typeof voteWords>): Promise<void> =>
  change(ctx, { ...VOTE, names: { choice: id } }, async (inner) => {
    const { row, rows, ballot } = await standing(inner, id);
    if (!ballot.voters.includes(inner.personId)) throw new Refusal(403, 'Others are asked in this choice.');
    if (row.closed || row.put_away) throw new Refusal(409, 'This choice is closed.');
    const idOf = new Map(rows.map((candidate) => [candidate.source_id, candidate.id]));
    if ('order' in said) {
      if (row.way !== 'order') throw new Refusal(422, 'Here each is judged by itself.');
      if (!said.order.every((source) => idOf.has(source)) || new Set(said.order).size !== said.order.length)
        throw new Refusal(
          409,
          'What is chosen among has changed. Look at it again; your order was not kept.',
        );
      await deleteVotes(inner, id);
      for (const [place, source] of said.order.entries())
        await putVote(inner, id, idOf.get(source)!, { says: null, place, reason: '' });
      return;
    }
    const candidate = idOf.get(said.id);
    if (!candidate) throw notHere('candidate');
    if (said.says && !says(row.way, said.says)) throw new Refusal(422, 'This cannot be said in this choice.');
    if (said.says) await putVote(inner, id, candidate, { says: said.says, place: null, reason: said.reason });
    else await deleteVotes(inner, id, candidate);
  });
