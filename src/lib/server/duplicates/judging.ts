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
import { signatureFor, signaturesFor } from './signatures';

/** A source there is, and how it compares with a record. */
export interface Judged {
  source: Source;
  judgement: Judgement;
}

const surestFirst = (x: Judged, y: Judged) =>
  Number(y.judgement.verdict === 'sure') - Number(x.judgement.verdict === 'sure') ||
  y.judgement.score - x.judgement.score;

/** A source a record was compared with. */
interface Compared {
  id: string;
  judgement: Judgement;
}

async function compared(
  ctx: Context,
  s: Signature,
  except?: string,
): Promise<{ all: Compared[]; common: Commonness }> {
  const candidates = [...(await signaturesFor(ctx, await candidatesOf(ctx, s, except)))];
  const common = await commonnessIn(ctx, [s, ...candidates.map(([, signature]) => signature)]);
  const all = candidates.map(([id, signature]) => ({ id, judgement: judgePair(s, signature, common) }));
  return { all, common };
}

/** Those that look like the work of what they were compared with, with their sources, the surest first. */
async function alikeAmong(ctx: Context, all: readonly Compared[]): Promise<Judged[]> {
  const alike = new Map(
    all.filter(({ judgement }) => judgement.verdict !== 'different').map((c) => [c.id, c.judgement]),
  );
  const sources = alike.size > 0 ? await getSources(ctx, [...alike.keys()]) : [];
  return sources.map((source) => ({ source, judgement: alike.get(source.id)! })).sort(surestFirst);
}

/** The living sources that look like a record's work, the surest first. */
export async function judged(ctx: Context, record: SourceRecord, except?: string): Promise<Judged[]> {
  return alikeAmong(ctx, (await compared(ctx, signatureOf(record), except)).all);
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
  await keepKeys(ctx, id, source, signature);
  const { all, common } = await compared(ctx, signature, id);
  const apart = new Set(fresh ? [] : await apartFrom(ctx, id));
  const alike = await alikeAmong(
    ctx,
    all.filter((j) => !apart.has(j.id)),
  );
  for (const { source: other, judgement } of alike) {
    await keepPair(ctx, id, other.id, judgement);
    touched.add(other.id);
  }
  for (const { id: other, judgement } of all)
    if (judgement.relation) await keepRelation(ctx, id, other, judgement.relation);
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
