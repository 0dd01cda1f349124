import { change, checkRight } from '../access/change';
import { z } from 'zod';
import { leadWords } from '../../core/forms';
import { nearness, parseReference, wordsToSearch } from '../../core/leads';
import { shortLabel, type CslType } from '../../core/source';
import { checkHere } from '../access/belongs';
import { type Context } from '../access/context';
import { now } from '../db/ids';
import { Refusal } from '../access/refusal';
import { getKept, insertKept, listKept, updateKept } from '../history/kept';
import { brief, hereFor, type Here } from './here';
import { leads, type Lead } from './repository';

export type { Lead } from './repository';
import { parseQuery } from '../../core/query';
import { wordsOf } from '../query';
import { withWords } from '../search/repository';
import { getSources, ofSourcesAsked } from '../sources/repository';
import { searchWorks } from '../capture/registries';
import { startByHand } from '../capture';
import { read } from '../workers/pools';

export { type Here } from './here';
export { referencesIn, referencesOf, type ListedReference, type ListedReferences } from './listed';

export * from './requests';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['leads'] } as const;

export const newLeads = z.strictObject({
  /** References as they were pasted, to be told apart; or one by one. */
  text: z.union([leadWords.shape.text, z.array(z.string().trim().min(1).max(20_000)).min(1).max(500)]),
  projectId: z.string().max(60).nullable(),
  /** The source they were met in. */
  metIn: z.string().max(60).nullable(),
});

/** Keeps pasted references as leads, each parsed as far as it goes. */
export async function keepLeads(ctx: Context, given: z.infer<typeof newLeads>): Promise<Lead[]> {
  const texts = await read({ task: 'leads', text: given.text });
  if (texts.length === 0) throw new Refusal(422, 'There is nothing to keep in this text.');
  if (texts.length > 500)
    throw new Refusal(413, `These are ${texts.length} references; at most 500 are kept at once.`);
  await checkHere(ctx, { project: given.projectId, source: given.metIn });
  return change(ctx, CHANGE, async (inner) => {
    const kept: Lead[] = [];
    // Newest first is how they are shown; the first of a pasted list is to stand first.
    for (const { text, record } of [...texts].reverse()) {
      kept.push(
        await insertKept(
          inner,
          leads,
          {
            text,
            parsed: record,
            projectId: given.projectId,
            metIn: given.metIn,
            foundId: null,
            ticked: null,
          },
          'put down',
        ),
      );
    }
    return kept.reverse();
  });
}

/** A lead as it is listed: what was read of it, where it was met, and a source in the library it may be. */
export interface LeadItem extends Lead {
  who: string;
  title: string;
  year: string;
  container: string;
  metInLabel?: string;
  foundLabel?: string;
  here?: Here;
}

/** The living leads of the library or a project; open ones first as they were put down, then those ticked off. */
export async function listLeads(
  ctx: Context,
  filter: { projectId?: string; text?: string; metIn?: string },
): Promise<LeadItem[]> {
  const found = await listKept(ctx, leads, (query) => {
    void query.whereNull('binned');
    if (filter.metIn) void query.where('met_in', filter.metIn);
    else if (filter.projectId) void query.where('project_id', filter.projectId);
    if (filter.text) {
      const asked = parseQuery(filter.text);
      withWords(ctx, query, 'id', 'lead', wordsOf(asked));
      ofSourcesAsked(ctx, query, 'met_in', asked);
    }
  });
  const ids = [
    ...new Set(found.flatMap((l) => [l.metIn, l.foundId]).filter((id): id is string => id !== null)),
  ];
  const labels = new Map((await getSources(ctx, ids)).map((s) => [s.id, shortLabel(s.record)]));
  const whatIsHere = await hereFor(
    ctx,
    found.filter((l) => !l.ticked),
  );
  const items: LeadItem[] = [];
  for (const lead of found) {
    const { parsed } = lead;
    const here = whatIsHere.get(lead.id);
    items.push({
      ...lead,
      ...brief(parsed),
      container: parsed['container-title'] ?? parsed.publisher ?? '',
      ...(lead.metIn && labels.has(lead.metIn) ? { metInLabel: labels.get(lead.metIn)! } : {}),
      ...(lead.foundId && labels.has(lead.foundId) ? { foundLabel: labels.get(lead.foundId)! } : {}),
      ...(here ? { here } : {}),
    });
  }
  return items.sort((a, b) => Number(Boolean(a.ticked)) - Number(Boolean(b.ticked)));
}

/** A work the registry offers for a lead. `nearness` is 0 to 1. */
export interface Offer {
  doi?: string;
  title: string;
  who: string;
  year: string;
  container: string;
  type: CslType;
  nearness: number;
}

/** Looks a lead up: the works the registry finds by its words, nearest first, those too far off left out. */
export async function lookUp(ctx: Context, id: string): Promise<Offer[]> {
  checkRight(ctx, 'edit');
  const lead = await getKept(ctx, leads, id);
  const { record } = parseReference(lead.text);
  const words = wordsToSearch({ record, ...(record.title ? { title: record.title } : {}) }, lead.text);
  const found = await searchWorks(words, undefined, AbortSignal.timeout(30_000));
  return found
    .map((r) => ({
      ...(r.DOI ? { doi: r.DOI } : {}),
      ...brief(r),
      container: r['container-title'] ?? r.publisher ?? '',
      type: r.type,
      nearness: nearness(lead.parsed, lead.text, r),
    }))
    .filter((o) => o.nearness > 0.25)
    .sort((a, b) => b.nearness - a.nearness);
}

/** What a person does to a lead. */
export const leadAct = z.discriminatedUnion('act', [
  z.object({ act: z.literal('tick'), sourceId: z.string().max(60).nullable() }),
  z.object({ act: z.literal('untick') }),
  z.object({ act: z.literal('bin') }),
  z.object({ act: z.literal('restore') }),
  z.object({ act: z.literal('met-in'), sourceId: z.string().max(60).nullable() }),
]);

/** Ticks a lead off, opens it again, notes where it was met, or puts it in the bin; gives the revision for undoing. */
export async function changeLead(ctx: Context, id: string, given: z.infer<typeof leadAct>) {
  if ('sourceId' in given) await checkHere(ctx, { source: given.sourceId });
  const changes: Record<typeof given.act, [Partial<Lead>, string]> = {
    tick: [{ ticked: now(), foundId: given.act === 'tick' ? given.sourceId : null }, 'ticked off'],
    untick: [{ ticked: null, foundId: null }, 'opened again'],
    bin: [{ binned: now() }, 'put in the bin'],
    restore: [{ binned: null }, 'taken out of the bin'],
    'met-in': [{ metIn: given.act === 'met-in' ? given.sourceId : null }, 'noted where it was met'],
  };
  return change(ctx, CHANGE, async (inner) => {
    const { revision } = await getKept(inner, leads, id);
    return updateKept(inner, leads, id, revision, ...changes[given.act]);
  });
}

/** Puts several leads in the bin, all or none; gives the revisions for undoing. */
export const binLeads = (ctx: Context, ids: string[]): Promise<string[]> =>
  change(ctx, CHANGE, async (inner) => {
    const revisions: string[] = [];
    for (const id of ids) {
      const { revision } = await getKept(inner, leads, id);
      const { revisionId } = await updateKept(
        inner,
        leads,
        id,
        revision,
        { binned: now() },
        'put in the bin',
      );
      if (revisionId) revisions.push(revisionId);
    }
    return revisions;
  });

/** Makes a source of a lead by hand, with what was read of it filled in. */
export async function leadByHand(ctx: Context, id: string) {
  const lead = await getKept(ctx, leads, id);
  const record = lead.parsed.title ? lead.parsed : { ...lead.parsed, title: lead.text.slice(0, 500) };
  const at = now();
  const origins = Object.fromEntries(
    Object.entries(record.retexa.origins).map(([field, seen]) => [field, seen.map((s) => ({ ...s, at }))]),
  );
  return startByHand(
    ctx,
    { type: record.type, record: { ...record, retexa: { ...record.retexa, origins } } },
    { leadId: id, ...(lead.projectId ? { projectId: lead.projectId } : {}) },
  );
}
