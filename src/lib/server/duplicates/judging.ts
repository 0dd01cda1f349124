import {
  judgePair,
  signatureOf,
  type Commonness,
  type Judgement,
  type Signature,
} from '../../core/duplicates';
import type { SourceRecord } from '../../core/source';
import type { Context } from '../access/context';
import { getSources, type Source } from '../sources/repository';
import { apartFrom } from './apart';
import { regroup } from './groups';
import { forgetPair, forgetPairs, keepPair, pairsAmong } from './pairs';
import { candidatesOf, commonnessIn, forgetKeys, keepKeys, overTheLine } from './lookup';
import { forgetRelations, keepRelation } from './relations';
import { signatureFor } from './signatures';

/** A source there is, and how it compares with a record. */
export interface Judged {
  source: Source;
  judgement: Judgement;
}

const surestFirst = (x: Judged, y: Judged) =>
  Number(y.judgement.verdict === 'sure') - Number(x.judgement.verdict === 'sure') ||
  y.judgement.score - x.judgement.score;

async function compared(
  ctx: Context,
  s: Signature,
  except?: string,
): Promise<{ all: Judged[]; common: Commonness }> {
  const candidates = (await getSources(ctx, await candidatesOf(ctx, s, except))).filter(
    (source) => !source.binned && !source.mergedInto,
  );
  const signatures = candidates.map((source) => signatureFor(source));
  const common = await commonnessIn(ctx, [s, ...signatures]);
  const all = candidates.map((source, i) => ({ source, judgement: judgePair(s, signatures[i]!, common) }));
  return { all, common };
}

/** The living sources that look like a record's work, the surest first. */
export async function judged(ctx: Context, record: SourceRecord, except?: string): Promise<Judged[]> {
  return (await compared(ctx, signatureOf(record), except)).all
    .filter(({ judgement }) => judgement.verdict !== 'different')
    .sort(surestFirst);
}

/**
 * Judges a source against those it shares keys with, keeps the pairs that look like one work and the groups they make, those
 * said to be different works left out, and gives the pairs. Call in the transaction that changed it, with nothing when it is
 * not living any more; `fresh` for one that was not there before.
 */
export async function judge(
  ctx: Context,
  id: string,
  source: Pick<Source, 'record' | 'revision'> | undefined,
  fresh = false,
): Promise<Judged[]> {
  const touched = new Set(fresh ? [] : await forgetPairs(ctx, id));
  if (!fresh) {
    await forgetKeys(ctx, id);
    await forgetRelations(ctx, id);
  }
  if (!source) {
    await regroup(ctx, [id, ...touched]);
    return [];
  }
  const signature = signatureFor({ id, ...source });
  await keepKeys(ctx, id, signature);
  const { all, common } = await compared(ctx, signature, id);
  const apart = new Set(fresh ? [] : await apartFrom(ctx, id));
  const alike = all
    .filter((j) => j.judgement.verdict !== 'different' && !apart.has(j.source.id))
    .sort(surestFirst);
  for (const { source: other, judgement } of alike) {
    await keepPair(ctx, id, other.id, judgement);
    touched.add(other.id);
  }
  for (const { source: other, judgement } of all)
    if (judgement.relation) await keepRelation(ctx, id, other.id, judgement.relation);
  for (const other of await weighedAnew(ctx, signature, common)) touched.add(other);
  if (touched.size > 0) await regroup(ctx, [id, ...touched]);
  return alike;
}

/** Judges again the pairs whose title or name has become so common that it tells less; gives the sources whose pairs changed. */
async function weighedAnew(ctx: Context, signature: Signature, met: Commonness): Promise<string[]> {
  const ids = await overTheLine(ctx, signature, met);
  if (ids.length === 0) return [];
  const pairs = await pairsAmong(ctx, ids);
  const sources = await getSources(ctx, [...new Set(pairs.flatMap((p) => [p.a, p.b]))]);
  const signatures = new Map(sources.map((s) => [s.id, signatureFor(s)]));
  const common = await commonnessIn(ctx, [...signatures.values()]);
  const changed: string[] = [];
  for (const { a, b, score } of pairs) {
    const now = judgePair(signatures.get(a)!, signatures.get(b)!, common);
    if (now.score === score) continue;
    if (now.verdict === 'different') await forgetPair(ctx, a, b);
    else await keepPair(ctx, a, b, now);
    changed.push(a, b);
  }
  return changed;
}
