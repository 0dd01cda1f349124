import { z } from 'zod';
import { mergedOrder, partContent, readPart, type DraftPart } from '../../core/drafting';
import { versionWords } from '../../core/forms';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { checkSources } from '../sources/repository';
import { adoptPictures } from './pictures';
import {
  changeVersion,
  dropPart,
  findDraft,
  getDraft,
  goneSince,
  insertDraft,
  insertVersion,
  orderOf,
  orderParts,
  partsOf,
  partsOfVersion,
  storedPart,
  usedIn,
  updateDraft,
  versionsOf,
  writePart,
  type Draft,
  type DraftVersion,
  type KeptPart,
} from './repository';

export { findDraft, type Draft, type DraftVersion, type KeptPart } from './repository';
export { findRequest, findWorks, type FoundWork } from './finding';
export { printGiven, type PrintedManuscript } from './manuscript';
export { materialOf, materialRequest } from './material';
export { checksOf } from './checking';
export {
  lastBorrowed,
  lookForBorrowed,
  type BorrowedInBrief,
  type BorrowedResult,
  type ToldBorrowing,
} from './borrowing';
export { draftOutRequest, dropTemplate, writeDraft, writeInTemplate, type DRAFT_OUTPUTS } from './out';
export { draftPicture, keepDraftPicture } from './pictures';
export { worksFor, type DraftWork } from './works';

export * from './requests';

const CHANGE = { right: 'edit', of: ['drafts'] } as const;
/** Most parts a draft can have. */
const MOST_PARTS = 20_000;
/** Most parts written at once. */
const MOST_WRITTEN = 5_000;
/** How long after the last version one is kept by itself before the next change, in milliseconds. */
const VERSION_AFTER = 30 * 60_000;
/** How many versions that were kept by themselves a draft has. */
const MOST_UNNAMED = 100;

const id = z.string().min(1).max(60);
const revision = z.number().int().min(0).max(Number.MAX_SAFE_INTEGER);

/**
 * What a window changed of a draft since the revision it knows: parts written, each with the revision it was based on (none
 * for a new one), parts taken out, and its order where that is another.
 */
export const draftSave = z.strictObject({
  since: revision,
  page: z.string().max(40).default(''),
  puts: z
    .array(z.strictObject({ id, base: revision.nullable(), content: partContent }))
    .max(MOST_WRITTEN)
    .default([]),
  gone: z
    .array(z.strictObject({ id, base: revision }))
    .max(MOST_PARTS)
    .default([]),
  order: z.array(id).max(MOST_PARTS).optional(),
});

/** What a window is told: what it wrote, what others changed since, and where both changed the same part. */
export interface DraftSaved {
  revision: number;
  /** Parts it wrote, with their revisions. */
  kept: { id: string; revision: number }[];
  /** What others wrote since, and the ids of parts that are gone. */
  parts: KeptPart[];
  gone: string[];
  /** Parts that were not written, since others did meanwhile; as theirs stand, or nothing where they took it out. */
  clashes: { id: string; revision: number; theirs: KeptPart['content'] | null }[];
  /** The order of all parts, where it may be another than the window’s. */
  order?: string[];
}

/** The draft of a project, made when there is none. */
export const openDraft = (ctx: Context, projectId: string): Promise<Draft> =>
  change(
    ctx,
    { ...CHANGE, names: { project: projectId } },
    async (inner) => (await findDraft(inner, projectId)) ?? (await insertDraft(inner, projectId)),
  );

/** What others changed of a draft since a revision; with none, all of it. */
export async function draftSince(
  ctx: Context,
  draftId: string,
  since?: number,
): Promise<Pick<DraftSaved, 'revision' | 'parts' | 'gone'> & { order: string[]; listed: string[] }> {
  const draft = await getDraft(ctx, draftId);
  const [parts, gone, order] = await Promise.all([
    partsOf(ctx, draftId, since),
    since === undefined ? [] : goneSince(ctx, draftId, since),
    orderOf(ctx, draftId),
  ]);
  return { revision: draft.revision, parts, gone, order, listed: draft.listed };
}

/**
 * Writes what a window changed. A part that others changed since is not written over: the window is told, and keeps its own
 * words until a person decides.
 */
export const saveDraft = (
  ctx: Context,
  draftId: string,
  { since, page, puts, gone, order }: z.infer<typeof draftSave>,
): Promise<DraftSaved> =>
  change(ctx, { ...CHANGE, names: { draft: draftId } }, async (inner) => {
    const draft = await getDraft(inner, draftId);
    if (puts.length || gone.length || order) await keepVersionBefore(inner, draft);
    const next = draft.revision + 1;
    const kept: DraftSaved['kept'] = [];
    const clashes: DraftSaved['clashes'] = [];
    for (const { id, base, content } of puts) {
      const there = await storedPart(inner, draftId, id);
      if (there === 'elsewhere')
        throw new Refusal(422, 'A part of another draft has this id. Nothing was written; load the page again.');
      const same = there && !there.gone && there.content === JSON.stringify(content);
      if (same) kept.push({ id, revision: there.revision });
      else if (there && there.revision !== base && (there.page !== page || !page))
        clashes.push({
          id,
          revision: there.revision,
          theirs: there.gone ? null : (JSON.parse(there.content) as KeptPart['content']),
        });
      else {
        await writePart(inner, draftId, { id, content, revision: next }, page);
        await adoptPictures(inner, draftId, readPart({ id, content }).pictures);
        kept.push({ id, revision: next });
      }
    }
    const left: string[] = [];
    const stays = new Set<string>();
    for (const { id, base } of gone) {
      const there = await storedPart(inner, draftId, id);
      if (!there || there === 'elsewhere' || there.gone) continue;
      // What others wrote meanwhile stays, and the window is told of it.
      if (there.revision !== base && (there.page !== page || !page)) {
        stays.add(id);
        continue;
      }
      await dropPart(inner, id, next, page);
      left.push(id);
    }
    const there = await orderOf(inner, draftId);
    const wanted = mergedOrder(there, order ?? there, new Set(left));
    const living = new Set(there);
    const put = wanted.filter((id) => living.has(id));
    if (put.length > MOST_PARTS)
      throw new Refusal(422, `A draft has at most ${MOST_PARTS.toLocaleString('en')} parts. Nothing was written.`);
    await orderParts(inner, draftId, put);
    const changed = kept.some((k) => k.revision === next) || left.length > 0 || order !== undefined;
    if (changed) await updateDraft(inner, { ...draft, revision: next });
    const own = new Set([...kept.map((k) => k.id), ...clashes.map((c) => c.id)]);
    const parts = (await partsOf(inner, draftId, stays.size ? undefined : since)).filter(
      (part) => stays.has(part.id) || (part.revision > since && !own.has(part.id)),
    );
    const theirsGone = (await goneSince(inner, draftId, since)).filter((id) => !left.includes(id));
    const told = parts.length > 0 || theirsGone.length > 0 || order !== undefined;
    return {
      revision: changed ? next : draft.revision,
      kept,
      parts,
      gone: theirsGone,
      clashes,
      ...(told ? { order: put } : {}),
    };
  }); // prettier-ignore

/** Keeps what stands there as a version before it is changed, if the last one is old enough. */
async function keepVersionBefore(ctx: Context, draft: Draft): Promise<void> {
  const versions = await versionsOf(ctx, draft.id);
  const last = versions[0];
  if (draft.revision === 0 || last?.revision === draft.revision) return;
  if (last && Date.now() - Date.parse(last.made) < VERSION_AFTER) return;
  await insertVersion(ctx, draft, '');
  for (const { id } of versions.filter((v) => !v.name).slice(MOST_UNNAMED - 1))
    await changeVersion(ctx, draft.id, id, null);
}

/** What is done to the versions of a draft: one is kept by a name, called otherwise, or let go of. */
export const versionChange = z.discriminatedUnion('act', [
  versionWords.extend({ act: z.literal('keep') }),
  versionWords.extend({ act: z.literal('name'), id }),
  z.object({ act: z.literal('let go'), id }),
]);

/** Changes the versions of a draft, and gives them. */
export const changeVersions = (
  ctx: Context,
  draftId: string,
  said: z.infer<typeof versionChange>,
): Promise<{ versions: DraftVersion[] }> =>
  change(ctx, { ...CHANGE, names: { draft: draftId } }, async (inner) => {
    if (said.act === 'keep') await insertVersion(inner, await getDraft(inner, draftId), said.name);
    else await changeVersion(inner, draftId, said.id, said.act === 'name' ? said.name : null);
    return { versions: await versionsOf(inner, draftId) };
  });

/** The versions of a draft, latest first. */
export async function listVersions(ctx: Context, draftId: string): Promise<DraftVersion[]> {
  return versionsOf(ctx, (await getDraft(ctx, draftId)).id);
}

/** What a version of a draft says. */
export async function readVersion(ctx: Context, draftId: string, version: string): Promise<DraftPart[]> {
  return partsOfVersion(ctx, (await getDraft(ctx, draftId)).id, version);
}

const some = z.array(id).max(5_000).default([]);
/** Sources the list of a draft is to have beside those it cites, and those it is not to have any more. */
export const listedChange = z.strictObject({ add: some, drop: some });

/** Puts sources in the list of a draft that it does not cite, or takes them out again; gives what takes that back. */
export const changeListed = (
  ctx: Context,
  draftId: string,
  { add, drop }: z.infer<typeof listedChange>,
): Promise<{ back: z.infer<typeof listedChange> }> =>
  change(ctx, { ...CHANGE, of: ['drafts', 'projects'], names: { draft: draftId } }, async (inner) => {
    const draft = await getDraft(inner, draftId);
    await checkSources(inner, add);
    const there = new Set(draft.listed);
    const listed = [...new Set([...draft.listed.filter((id) => !drop.includes(id)), ...add])];
    await updateDraft(inner, { ...draft, revision: draft.revision + 1, listed });
    return {
      back: { add: drop.filter((id) => there.has(id)), drop: add.filter((id) => !there.has(id)) },
    };
  });

/** Where passages or sources are used in drafts: the projects and the first part of each, by their ids. */
export async function usesOf(
  ctx: Context,
  kind: 'passage' | 'source',
  ids: readonly string[],
): Promise<Record<string, { projectId: string; part: string }[]>> {
  return Object.fromEntries(await usedIn(ctx, kind, ids));
}
