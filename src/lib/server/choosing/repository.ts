import type { Says, Vote, Way } from '../../core/choosing';
import { scoped, type Context } from '../access/context';
import { inParts, now } from '../db/ids';

/** A choice as it is kept. */
export interface ChoiceRow {
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

/** Candidates whose sources are there, bounded to the library. */
const candidatesHere = (ctx: Context) =>
  scoped<{ id: string; source_id: string; choice_id: string }>(ctx, 'candidate')
    .join('source', 'source.id', 'candidate.source_id')
    .whereNull('source.binned')
    .whereNull('source.merged_into');

/** How many candidates there are, and how many of them each who is asked has judged, by choice. */
export async function countsOf(ctx: Context, ids: string[]) {
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

/** A choice with who made it, by name. */
export type ChoiceBy = ChoiceRow & { by: string };

const choices = (ctx: Context) =>
  scoped<ChoiceRow>(ctx, 'choice')
    .join('person', 'person.id', 'choice.owner_id')
    .select('choice.*', ctx.db.raw('person.name AS "by"'));

/** The choices of the library, newest first. */
export const choiceRows = async (ctx: Context): Promise<ChoiceBy[]> =>
  (await choices(ctx).orderBy('choice.made', 'desc').orderBy('choice.id')) as unknown as ChoiceBy[];

/** A choice with who made it. */
export const choiceBy = async (ctx: Context, id: string): Promise<ChoiceBy | undefined> =>
  (await choices(ctx).where('choice.id', id).first()) as unknown as ChoiceBy | undefined;

/** A choice as it is kept. */
export const choiceRow = async (ctx: Context, id: string): Promise<ChoiceRow | undefined> =>
  (await scoped<ChoiceRow>(ctx, 'choice').where({ id }).first()) as ChoiceRow | undefined;

/** In how many open choices the person has something to judge: the first of each that is not judged answers for it. */
export async function unjudgedChoices(ctx: Context): Promise<number> {
  const unjudged = candidatesHere(ctx)
    .leftJoin('vote', (on) =>
      on
        .on('vote.candidate_id', 'candidate.id')
        .andOn('vote.person_id', ctx.db.raw('?', [ctx.personId]) as unknown as string),
    )
    .whereRaw('candidate.choice_id = choice.id')
    .whereNull('vote.person_id')
    .select(ctx.db.raw('1'));
  const [row] = (await scoped<ChoiceRow>(ctx, 'choice')
    .join('choice_voter', 'choice_voter.choice_id', 'choice.id')
    .where('choice_voter.person_id', ctx.personId)
    .whereNull('choice.closed')
    .whereNull('choice.put_away')
    .whereExists(unjudged)
    .count({ n: '*' })) as unknown as { n: number }[];
  return row?.n ?? 0;
}

/** The sources a choice is among, with their records, in its order. */
export const recordsAmong = async (ctx: Context, id: string): Promise<{ id: string; record: string }[]> =>
  (await candidatesHere(ctx)
    .where('candidate.choice_id', id)
    .orderBy('candidate.place')
    .orderBy('candidate.id')
    .select('source.id', 'source.record')) as unknown as { id: string; record: string }[];

/** A candidate, and what it was settled as by whom. */
export interface CandidateRow {
  id: string;
  source_id: string;
  settled: Says | null;
  settledBy: string | null;
}

/** The candidates of a choice whose sources are there, in its order. */
export const candidatesOf = async (ctx: Context, id: string): Promise<CandidateRow[]> =>
  (await candidatesHere(ctx)
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

/** What was said in a choice. */
export const votesIn = async (ctx: Context, id: string) =>
  (await scoped(ctx, 'vote')
    .where('vote.choice_id', id)
    .select('candidate_id', 'person_id', 'says', 'place', 'reason')) as unknown as {
    candidate_id: string;
    person_id: string;
    says: Says | null;
    place: number | null;
    reason: string;
  }[];

/** Who is asked in a choice, in the order they were. */
export const votersOf = async (ctx: Context, id: string): Promise<string[]> =>
  (await ctx.db('choice_voter').where({ choice_id: id }).orderBy('place').pluck('person_id')) as string[];

/** Adds a choice and who is asked in it. */
export async function insertChoice(
  ctx: Context,
  { reasons, ...row }: Pick<ChoiceRow, 'id' | 'name' | 'way'> & { reasons: readonly string[] },
  voters: readonly string[],
): Promise<void> {
  await ctx.db('choice').insert({
    ...row,
    library_id: ctx.libraryId,
    owner_id: ctx.personId,
    reasons: JSON.stringify(reasons),
    made: now(),
  });
  await ctx
    .db('choice_voter')
    .insert(voters.map((person_id, place) => ({ choice_id: row.id, person_id, place })));
}

/** Changes what is kept of a choice. */
export const updateChoice = async (ctx: Context, id: string, columns: Partial<ChoiceRow>): Promise<void> => {
  await scoped(ctx, 'choice').where({ id }).update(columns);
};

/** Deletes a choice that was put away, with what was said in it; gives whether there was one. */
export const deletePutAway = async (ctx: Context, id: string): Promise<boolean> =>
  ((await scoped(ctx, 'choice').where({ id }).whereNotNull('put_away').delete()) as unknown as number) > 0;

/** The sources among the candidates of a choice, of those given or all, in the bin or not. */
export async function sourcesAmong(
  ctx: Context,
  choiceId: string,
  ids?: readonly string[],
): Promise<string[]> {
  const rows = scoped(ctx, 'candidate').where({ choice_id: choiceId });
  return (await (ids ? rows.whereIn('source_id', ids) : rows).pluck('source_id')) as unknown as string[];
}

/** The id of a source among the candidates of a choice: the same when it comes again, so that what was said of it is there again. */
const candidateId = (choiceId: string, sourceId: string): string => `${choiceId}.${sourceId}`;

/** Adds candidates after those that are there. */
export async function insertCandidates(
  ctx: Context,
  choiceId: string,
  ids: readonly string[],
): Promise<void> {
  const [{ last } = { last: null }] = (await scoped(ctx, 'candidate')
    .where({ choice_id: choiceId })
    .max({ last: 'place' })) as unknown as { last: number | null }[];
  const from = (last ?? -1) + 1;
  for (const part of inParts(ids.map((id, i) => ({ id, place: from + i }))))
    await ctx.db('candidate').insert(
      part.map(({ id, place }) => ({
        id: candidateId(choiceId, id),
        library_id: ctx.libraryId,
        choice_id: choiceId,
        source_id: id,
        place,
      })),
    );
}

/** Takes sources out of the candidates of a choice; gives those that were among them. */
export async function deleteCandidates(
  ctx: Context,
  choiceId: string,
  ids: readonly string[],
): Promise<string[]> {
  const gone: string[] = [];
  for (const part of inParts([...new Set(ids)])) {
    gone.push(...(await sourcesAmong(ctx, choiceId, part)));
    await scoped(ctx, 'candidate').where({ choice_id: choiceId }).whereIn('source_id', part).delete();
  }
  return gone;
}

/** Keeps what a candidate is settled as, by who asks. */
export const updateSettled = async (ctx: Context, id: string, settled: Says | null): Promise<void> => {
  await scoped(ctx, 'candidate')
    .where({ id })
    .update({ settled, settled_by: settled && ctx.personId });
};

/** Keeps what the person says of a candidate, in place of what they said before. */
export async function putVote(
  ctx: Context,
  choiceId: string,
  candidate: string,
  verdict: Pick<Vote, 'says' | 'place' | 'reason'>,
): Promise<void> {
  await ctx
    .db('vote')
    .insert({
      choice_id: choiceId,
      person_id: ctx.personId,
      candidate_id: candidate,
      library_id: ctx.libraryId,
      ...verdict,
      at: now(),
    })
    .onConflict(['candidate_id', 'person_id'])
    .merge();
}

/** Takes back what the person said in a choice: of a candidate, or of all. */
export async function deleteVotes(ctx: Context, choiceId: string, candidate?: string): Promise<void> {
  const mine = scoped(ctx, 'vote').where({ choice_id: choiceId, person_id: ctx.personId });
  await (candidate === undefined ? mine : mine.where({ candidate_id: candidate })).delete();
}
