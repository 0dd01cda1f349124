import {
  blocksOf,
  ENOUGH,
  hash32,
  holdings,
  MOST_OF_ONE_KEY,
  spellingsOf,
  weightOfKey,
  type Commonness,
  type Signature,
} from '../../core/duplicates';
import type { SourceRecord } from '../../core/source';
import { scoped, type Context } from '../access/context';

/** How many sources a record is compared with at most: those it shares most keys with. */
const MOST_COMPARED = 60;

/** Keys of one library, whatever other libraries the database holds. */
const inLibrary = (ctx: Context, key: number | string) => hash32(`${ctx.libraryId} ${key}`);
const titleKey = (s: Signature) => `title ${s.title.whole}`;
const familyKey = (s: Signature) => `family ${s.people[0]?.family ?? ''}`;

/** Keeps the keys a living source is found by, and how it spells the names it has. */
export async function keepKeys(
  ctx: Context,
  sourceId: string,
  { record, revision }: { record: SourceRecord; revision: number },
  s: Signature,
): Promise<void> {
  const keys = [...blocksOf(s), ...holdings(s).found, titleKey(s), familyKey(s)];
  await ctx.db('lookup').insert({
    library_id: ctx.libraryId,
    source_id: sourceId,
    keys: JSON.stringify([...new Set(keys.map((key) => inLibrary(ctx, key)))]),
    spellings: JSON.stringify(spellingsOf(record)),
    revision,
  });
}

/** Takes a source out of what is found. */
export const forgetKeys = async (ctx: Context, sourceId: string): Promise<void> =>
  void (await scoped(ctx, 'lookup').where({ source_id: sourceId }).delete());

const WEIGHT = `CASE ${[8, 32, 128, MOST_OF_ONE_KEY]
  .map((n) => `WHEN n <= ${n} THEN ${weightOfKey(n)}`)
  .join(' ')} ELSE 0 END`;

/** A living source that a record is compared with, and its revision. */
export interface Candidate {
  id: string;
  revision: number;
}

/** The living sources that share enough keys with a record, those that share most first. */
export async function candidatesOf(ctx: Context, s: Signature, except?: string): Promise<Candidate[]> {
  const keys = blocksOf(s).map((key) => inLibrary(ctx, key));
  const found =
    keys.length === 0
      ? []
      : ((await ctx.db.raw(
          `WITH k AS (SELECT value AS key FROM json_each(?)),
           counted AS MATERIALIZED (SELECT key, (SELECT count(*) FROM (SELECT 1 FROM lookup_key WHERE lookup_key.key = k.key LIMIT ${MOST_OF_ONE_KEY + 1})) AS n FROM k),
           weighed AS MATERIALIZED (SELECT key, ${WEIGHT} AS w FROM counted),
           found AS (SELECT lookup_id, sum(w) AS weight FROM weighed CROSS JOIN lookup_key USING (key) WHERE w > 0 GROUP BY lookup_id HAVING weight >= ${ENOUGH} ORDER BY weight DESC, lookup_id LIMIT ${MOST_COMPARED + 1})
           SELECT source_id AS id, revision FROM found JOIN lookup ON lookup.id = found.lookup_id WHERE library_id = ?`,
          [JSON.stringify(keys), ctx.libraryId],
        )) as Candidate[]);
  const seeks = holdings(s).seeks.map((key) => inLibrary(ctx, key));
  const holding =
    seeks.length === 0
      ? []
      : ((await ctx.db.raw(
          `WITH k AS (SELECT value AS key FROM json_each(?))
           SELECT DISTINCT source_id AS id, revision FROM k CROSS JOIN lookup_key USING (key) JOIN lookup ON lookup.id = lookup_id WHERE library_id = ? LIMIT ${MOST_COMPARED}`,
          [JSON.stringify(seeks), ctx.libraryId],
        )) as Candidate[]);
  const all = new Map([...found, ...holding].map((candidate) => [candidate.id, candidate]));
  if (except) all.delete(except);
  return [...all.values()];
}

/** How often the titles and first family names of some records are met in the library. */
export async function commonnessIn(ctx: Context, signatures: readonly Signature[]): Promise<Commonness> {
  const asked = new Map<string, number>();
  for (const s of signatures)
    for (const key of [titleKey(s), familyKey(s)]) if (!asked.has(key)) asked.set(key, inLibrary(ctx, key));
  const counts = new Map<number, number>();
  const rows = (await ctx.db.raw(
    `WITH k AS (SELECT value AS key FROM json_each(?))
     SELECT key, (SELECT count(*) FROM (SELECT 1 FROM lookup_key WHERE lookup_key.key = k.key LIMIT ${MOST_OF_ONE_KEY})) AS n FROM k`,
    [JSON.stringify([...asked.values()])],
  )) as { key: number; n: number }[];
  for (const { key, n } of rows) counts.set(key, n);
  const met = (key: string) => Math.max(1, counts.get(asked.get(key) ?? -1) ?? 1);
  return { titles: (whole) => met(`title ${whole}`), families: (family) => met(`family ${family}`) };
}

/** Living sources that have the title or the first family name of a record, where so many have it that it tells less now. */
export async function overTheLine(ctx: Context, s: Signature, common: Commonness): Promise<string[]> {
  const keys = [
    ...(isPower(common.titles(s.title.whole), 4) ? [titleKey(s)] : []),
    ...(s.people[0] && isPower(common.families(s.people[0].family), 2) ? [familyKey(s)] : []),
  ].map((key) => inLibrary(ctx, key));
  if (keys.length === 0) return [];
  const rows = (await ctx.db.raw(
    `SELECT DISTINCT source_id FROM lookup_key JOIN lookup ON lookup.id = lookup_id WHERE key IN (${keys.map(() => '?').join(', ')}) AND library_id = ?
     AND EXISTS (SELECT 1 FROM likeness WHERE a_id = source_id OR b_id = source_id) LIMIT 200`,
    [...keys, ctx.libraryId],
  )) as { source_id: string }[];
  return rows.map((row) => row.source_id);
}
const isPower = (n: number, from: number) => n >= from && (n & (n - 1)) === 0;
