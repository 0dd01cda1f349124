import type { z } from 'zod';
import { openTo, says, type Ballot, type Says, type Vote, type Way } from '../../core/choosing';
import {
  MOST_CANDIDATES,
  MOST_ORDERED,
  type choiceChange,
  type ChoiceWords,
  type voteWords,
} from '../../core/forms';
import { may, type Role } from '../../core/members';
import { headline, type SourceRecord } from '../../core/source';
import { change } from '../access/change';
import { scoped, type Context } from '../access/context';
import { notHere, Refusal } from '../access/refusal';
import { inParts, newId, now } from '../db/ids';
import { checkSources } from '../sources/repository';

export * from './requests';

/** What is changed here. */
const LEAD = { right: 'edit', of: ['choices'] } as const;
const VOTE = { right: 'annotate', of: ['votes'] } as const;

interface Row {
  id: string;
  owner_id: string;
  name: string;
  way: Way;
  reasons: string;
  made: string;
  closed: string | null;
  put_away: string | null;
}

/** Who is asked in a choice, and how many of its candidates they have judged; what they said is not told by it. */
export interface Voter {
  id: string;
  name: string;
  judged: number;
}

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

/** Candidates whose sources are there, bounded to the library. */
const candidatesHere = (ctx: Context) =>
  scoped<{ id: string; source_id: string; choice_id: string }>(ctx, 'candidate')
    .join('source', 'source.id', 'candidate.source_id')
    .whereNull('source.binned')
    .whereNull('source.merged_into');

/** How many candidates there are, and how many of them each who is asked has judged, by choice. */
async function countsOf(ctx: Context, ids: string[]) {
  const counts = new Map(ids.map((id) => [id, { candidates: 0, voters: [] as Voter[] }]));
  for (const part of inParts(ids)) {
    const there = (await candidatesHere(ctx)
      .whereIn('candidate.choice_id', part)
      .groupBy('candidate.choice_id')
      .select('candidate.choice_id', ctx.db.raw('count(*) AS n'))) as unknown as {
      choice_id: string;
      n: number;
    }[];
    for (const { choice_id, n } of there) counts.get(choice_id)!.candidates = n;
    const judged = (await candidatesHere(ctx)
      .join('vote', 'vote.candidate_id', 'candidate.id')
      .whereIn('candidate.choice_id', part)
      .groupBy('candidate.choice_id', 'vote.person_id')
      .select('candidate.choice_id', 'vote.person_id', ctx.db.raw('count(*) AS n'))) as unknown as {
      choice_id: string;
      person_id: string;
      n: number;
    }[];
    const by = new Map(judged.map(({ choice_id, person_id, n }) => [`${choice_id} ${person_id}`, n]));
    const voters = (await ctx
      .db('choice_voter')
      .join('person', 'person.id', 'choice_voter.person_id')
      .whereIn('choice_voter.choice_id', part)
      .orderBy('choice_voter.place')
      .select('choice_voter.choice_id', 'person.id', 'person.name')) as {
      choice_id: string;
      id: string;
      name: string;
    }[];
    for (const { choice_id, id, name } of voters)
      counts.get(choice_id)!.voters.push({ id, name, judged: by.get(`${choice_id} ${id}`) ?? 0 });
  }
  return counts;
}

const lineOf = (
  ctx: Context,
  row: Row & { by: string },
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

const choices = (ctx: Context) =>
  scoped<Row>(ctx, 'choice')
    .join('person', 'person.id', 'choice.owner_id')
    .select('choice.*', ctx.db.raw('person.name AS "by"'));

/** The choices of the library, newest first. */
export async function listChoices(ctx: Context): Promise<ChoiceLine[]> {
  const rows = (await choices(ctx).orderBy('choice.made', 'desc').orderBy('choice.id')) as unknown as (Row & {
    by: string;
  })[];
  const counts = await countsOf(
    ctx,
    rows.map((row) => row.id),
  );
  return rows.map((row) => lineOf(ctx, row, counts.get(row.id)!));
}

/** In how many choices who asks still has something to judge: asked beside every page, so that the first that is not judged answers it. */
export async function waitingChoices(ctx: Context): Promise<number> {
  if (!may(ctx.role, 'annotate')) return 0;
  const unjudged = candidatesHere(ctx)
    .leftJoin('vote', (on) =>
      on
        .on('vote.candidate_id', 'candidate.id')
        .andOn('vote.person_id', ctx.db.raw('?', [ctx.personId]) as unknown as string),
    )
    .whereRaw('candidate.choice_id = choice.id')
    .whereNull('vote.person_id')
    .select(ctx.db.raw('1'));
  const [row] = (await scoped<Row>(ctx, 'choice')
    .join('choice_voter', 'choice_voter.choice_id', 'choice.id')
    .where('choice_voter.person_id', ctx.personId)
    .whereNull('choice.closed')
    .whereNull('choice.put_away')
    .whereExists(unjudged)
    .count({ n: '*' })) as unknown as { n: number }[];
  return row?.n ?? 0;
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
  const row = (await choices(ctx).where('choice.id', id).first()) as unknown as
    (Row & { by: string }) | undefined;
  if (!row) throw notHere('choice');
  const among = (await candidatesHere(ctx)
    .where('candidate.choice_id', id)
    .orderBy('candidate.place')
    .orderBy('candidate.id')
    .select('source.id', 'source.record')) as unknown as { id: string; record: string }[];
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

interface CandidateRow {
  id: string;
  source_id: string;
  settled: Says | null;
  settledBy: string | null;
}

/** A choice as it stands, as a whole; what of it is shown to whom is another matter. */
async function standing(ctx: Context, id: string) {
  const row = (await scoped<Row>(ctx, 'choice').where({ id }).first()) as Row | undefined;
  if (!row) throw notHere('choice');
  const rows = (await candidatesHere(ctx)
    .leftJoin('person', 'person.id', 'candidate.settled_by')
    .where('candidate.choice_id', id)
    .orderBy('candidate.place')
    .orderBy('candidate.id')
    .select(
      'candidate.id',
      'candidate.source_id',
      'candidate.settled',
      ctx.db.raw('person.name AS "settledBy"'),
    )) as unknown as CandidateRow[];
  const sourceOf = new Map(rows.map((candidate) => [candidate.id, candidate.source_id]));
  const votes = (await scoped(ctx, 'vote')
    .where('vote.choice_id', id)
    .select('candidate_id', 'person_id', 'says', 'place', 'reason')) as unknown as {
    candidate_id: string;
    person_id: string;
    says: Says | null;
    place: number | null;
    reason: string;
  }[];
  const voters = (await ctx
    .db('choice_voter')
    .where({ choice_id: id })
    .orderBy('place')
    .pluck('person_id')) as string[];
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

/** The id of a source among the candidates of a choice: the same when it comes again, so that what was said of it is there again. */
const candidateId = (choiceId: string, sourceId: string): string => `${choiceId}.${sourceId}`;

async function addCandidates(ctx: Context, choiceId: string, ids: string[], way: Way): Promise<string[]> {
  const most = way === 'order' ? MOST_ORDERED : MOST_CANDIDATES;
  const there = new Set(
    (await scoped(ctx, 'candidate').where({ choice_id: choiceId }).pluck('source_id')) as unknown as string[],
  );
  const coming = [...new Set(ids)].filter((id) => !there.has(id));
  if (there.size + coming.length > most)
    throw new Refusal(
      422,
      way === 'order'
        ? `At most ${most} can be put in an order.`
        : `A choice is among ${most.toLocaleString('en')} sources at most.`,
    );
  const [{ last } = { last: null }] = (await scoped(ctx, 'candidate')
    .where({ choice_id: choiceId })
    .max({ last: 'place' })) as unknown as { last: number | null }[];
  const from = (last ?? -1) + 1;
  for (const part of inParts(coming.map((id, i) => ({ id, place: from + i }))))
    await ctx.db('candidate').insert(
      part.map(({ id, place }) => ({
        id: candidateId(choiceId, id),
        library_id: ctx.libraryId,
        choice_id: choiceId,
        source_id: id,
        place,
      })),
    );
  return coming;
}

/** Asks members of the library to choose among sources. Refuses who could not say anything. */
export const addChoice = (ctx: Context, given: ChoiceWords): Promise<{ id: string }> =>
  change(ctx, LEAD, async (inner) => {
    await checkSources(inner, given.ids);
    const voters = [...new Set(given.voters)];
    const members = (await scoped(inner, 'membership')
      .whereIn('person_id', voters)
      .select('person_id', 'role')) as unknown as { person_id: string; role: Role }[];
    const able = new Set(
      members.filter(({ role }) => may(role, 'annotate')).map(({ person_id }) => person_id),
    );
    if (!voters.every((voter) => able.has(voter)))
      throw new Refusal(422, 'Somebody who is asked is not in the library, or may only read.');
    const id = newId();
    await inner.db('choice').insert({
      id,
      library_id: inner.libraryId,
      owner_id: inner.personId,
      name: given.name,
      way: given.way,
      reasons: JSON.stringify([...new Set(given.reasons)]),
      made: now(),
    });
    await inner
      .db('choice_voter')
      .insert(voters.map((person_id, place) => ({ choice_id: id, person_id, place })));
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
  await scoped(ctx, 'candidate')
    .where({ id: candidate.id })
    .update({ settled: verdict, settled_by: verdict && ctx.personId });
  return candidate.settled;
}

/** Changes a choice, and gives what takes that back. */
export const changeChoice = (
  ctx: Context,
  id: string,
  said: z.infer<typeof choiceChange>,
): Promise<{ back?: z.infer<typeof choiceChange> }> =>
  change(ctx, { ...LEAD, names: { choice: id } }, async (inner) => {
    const before = (await scoped<Row>(inner, 'choice').where({ id }).first()) as Row;
    const write = (columns: Partial<Row>) => scoped(inner, 'choice').where({ id }).update(columns);
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
        const ids: string[] = [];
        for (const part of inParts([...new Set(said.ids)])) {
          const here = () => scoped(inner, 'candidate').where({ choice_id: id }).whereIn('source_id', part);
          ids.push(...((await here().pluck('source_id')) as unknown as string[]));
          await here().delete();
        }
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
    const gone = await scoped(inner, 'choice').where({ id }).whereNotNull('put_away').delete();
    if (!gone) throw new Refusal(409, 'Put the choice away first.');
  });

/** Says what one thinks of a candidate, or takes it back, or gives one’s order of all. */
export const vote = (ctx: Context, id: string, said: z.infer<typeof voteWords>): Promise<void> =>
  change(ctx, { ...VOTE, names: { choice: id } }, async (inner) => {
    const { row, rows, ballot } = await standing(inner, id);
    if (!ballot.voters.includes(inner.personId)) throw new Refusal(403, 'Others are asked in this choice.');
    if (row.closed || row.put_away) throw new Refusal(409, 'This choice is closed.');
    const idOf = new Map(rows.map((candidate) => [candidate.source_id, candidate.id]));
    const mine = { choice_id: id, person_id: inner.personId };
    const put = async (source: string, verdict: Pick<Vote, 'says' | 'place' | 'reason'>) =>
      inner
        .db('vote')
        .insert({
          ...mine,
          candidate_id: idOf.get(source)!,
          library_id: inner.libraryId,
          ...verdict,
          at: now(),
        })
        .onConflict(['candidate_id', 'person_id'])
        .merge();
    if ('order' in said) {
      if (row.way !== 'order') throw new Refusal(422, 'Here each is judged by itself.');
      if (!said.order.every((source) => idOf.has(source)) || new Set(said.order).size !== said.order.length)
        throw new Refusal(
          409,
          'What is chosen among has changed. Look at it again; your order was not kept.',
        );
      await scoped(inner, 'vote').where(mine).delete();
      for (const [place, source] of said.order.entries())
        await put(source, { says: null, place, reason: '' });
      return;
    }
    const candidate = idOf.get(said.id);
    if (!candidate) throw notHere('candidate');
    if (said.says && !says(row.way, said.says)) throw new Refusal(422, 'This cannot be said in this choice.');
    if (said.says) await put(said.id, { says: said.says, place: null, reason: said.reason });
    else
      await scoped(inner, 'vote')
        .where({ ...mine, candidate_id: candidate })
        .delete();
  });
