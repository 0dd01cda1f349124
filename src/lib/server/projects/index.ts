import { z } from 'zod';
import type { ProjectWords } from '../../core/forms';
import type { ItemChange, ReadOutline } from '../../core/outline';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { notHere, Refusal } from '../access/refusal';
import { localeFile } from '../catalogue';
import { styleOf } from '../lists/catalogue';
import { checkSources } from '../sources/repository';
import {
  filedIn,
  fileSources,
  insertProject,
  setProjectAside,
  unfileSources,
  updateProject,
  type Project,
} from './repository';
import { changeItems, outlineItems, placedItems, type OutlineItem } from './items';
import {
  binSection,
  findSection,
  getSection,
  insertSection,
  listSections,
  moveSection,
  orderSources,
  outlines,
  placedUnder,
  placeSources,
  renameSection,
  sectionIds,
  sectionNamed,
  setOrder,
  unplaceSources,
  type OutlineSection,
  type Section,
} from './sections';

export { findProject, listProjects, projectsOf, type Project } from './repository';
export { type OutlineItem } from './items';
export { findSection, listSections, sectionsOf, type OutlineSection, type Section } from './sections';

export * from './requests';

const idGiven = z.string().max(60);
const sectionName = z.string().trim().min(1, 'A section has a name').max(200);
/** How many sources are placed in one step at most. */
const MOST_PLACED = 20_000;

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['projects'] } as const;

/** Adds a project. Refuses a style or a language there is none of. */
export async function addProject(ctx: Context, given: ProjectWords): Promise<Project> {
  await styleOf(ctx, given.style);
  localeFile(given.locale);
  return change(ctx, CHANGE, (inner) => insertProject(inner, given));
}

/** Renames a project or changes its style or language. */
export async function changeProject(ctx: Context, id: string, given: Partial<ProjectWords>): Promise<void> {
  if (given.style) await styleOf(ctx, given.style);
  if (given.locale) localeFile(given.locale);
  await change(ctx, CHANGE, (inner) => updateProject(inner, id, given));
}

/** Puts a project away or in the bin, or takes it out of there. */
export const setAside = (
  ctx: Context,
  id: string,
  how: { putAway: boolean } | { binned: boolean },
): Promise<void> =>
  change(ctx, CHANGE, (inner) =>
    setProjectAside(inner, id, 'putAway' in how ? { put_away: how.putAway } : how),
  );

/** The section of a name in a project, made when there is none; with `parentId`, a new one under that, or under none. */
export const makeSection = (
  ctx: Context,
  projectId: string,
  name: string,
  parentId?: string | null,
): Promise<Section> =>
  change(ctx, { ...CHANGE, names: { project: projectId } }, (inner) =>
    parentId === undefined
      ? sectionNamed(inner, projectId, name)
      : insertSection(inner, { projectId, parentId, name }),
  );

const ref = z.string().min(1).max(60);
const itemKey = z.object({ sectionId: idGiven, ref });
const ownKind = z.enum(['sentence', 'question']);
/** How long a sentence or a question of one’s own can be, in characters. */
export const MOST_OWN_WORDS = 5_000;
const ownWords = z.string().max(MOST_OWN_WORDS);
const coming = z.object({
  ref,
  kind: z.enum(['source', 'passage', 'sentence', 'question']),
  words: ownWords.optional(),
});
const itemChange: z.ZodType<ItemChange> = z.discriminatedUnion('act', [
  z.object({
    act: z.literal('move'),
    items: z.array(itemKey).min(1).max(MOST_PLACED),
    sectionId: idGiven,
    before: ref.nullable(),
  }),
  z.object({
    act: z.literal('put'),
    items: z.array(coming).max(MOST_PLACED),
    sectionId: idGiven,
    before: ref.nullable(),
  }),
  z.object({ act: z.literal('take out'), items: z.array(itemKey).min(1).max(MOST_PLACED) }),
  z.object({ act: z.literal('write'), item: itemKey, kind: ownKind, words: ownWords, was: ownWords }),
  z.object({
    act: z.literal('restore'),
    put: z
      .array(coming.extend({ sectionId: idGiven, after: ref.nullable(), was: ownWords.optional() }))
      .max(MOST_PLACED),
    out: z.array(itemKey).max(MOST_PLACED),
  }),
]);

/**
 * What is done to a section: it is called otherwise, put elsewhere in its outline, put in the bin or brought back; what stands
 * in it from an item on goes into a new one behind it; it takes in another with all that stands there, or gives that back.
 */
export const sectionChange = z.discriminatedUnion('act', [
  z.object({ act: z.literal('split'), at: ref, name: sectionName }),
  z.object({ act: z.literal('take in'), section: idGiven }),
  z.object({
    act: z.literal('give back'),
    section: idGiven,
    changes: z.array(itemChange).max(100),
    children: z.array(idGiven).max(MOST_PLACED),
  }),
  z.object({ act: z.literal('rename'), name: sectionName }),
  z.object({ act: z.literal('move'), parentId: idGiven.nullable(), before: idGiven.nullable() }),
  z.object({ act: z.literal('bin') }),
  z.object({ act: z.literal('bring back') }),
]);

type SectionChange = z.infer<typeof sectionChange>;

/** The sections right under one, in their order. */
const childrenOf = async (ctx: Context, { id, projectId }: Section): Promise<string[]> =>
  (await listSections(ctx)).filter((s) => s.projectId === projectId && s.parentId === id).map((s) => s.id);

/** What stands in a section from an item on, and the sections under it, goes into a new one right behind it. */
async function splitSection(ctx: Context, id: string, at: string, name: string): Promise<SectionChange> {
  const section = await getSection(ctx, id);
  const { projectId, parentId } = section;
  const here = (await placedItems(ctx, projectId)).filter((item) => item.sectionId === id);
  const from = here.findIndex((item) => item.ref === at);
  if (from === -1) throw new Refusal(409, 'It is not in this section any more. Nothing was changed.');
  const beside = (await listSections(ctx)).filter(
    (s) => s.projectId === projectId && s.parentId === parentId,
  );
  const next = beside[beside.findIndex((s) => s.id === id) + 1];
  const children = await childrenOf(ctx, section);
  const made = await insertSection(ctx, { projectId, parentId, name });
  await moveSection(ctx, made.id, { parentId, before: next?.id ?? null });
  await changeItems(ctx, projectId, [
    { act: 'move', items: here.slice(from), sectionId: made.id, before: null },
  ]);
  for (const child of children) await moveSection(ctx, child, { parentId: made.id, before: null });
  return { act: 'take in', section: made.id };
}

/** A section takes in another: what stands in it comes behind its own, what stands under it under it; the other goes to the bin. */
async function takeIn(ctx: Context, id: string, other: string): Promise<SectionChange> {
  const [into, from] = [await getSection(ctx, id), await getSection(ctx, other)];
  const { projectId } = into;
  if (from.projectId !== projectId || id === other || (await sectionIds(ctx, other)).includes(id))
    throw new Refusal(422, 'A section takes in another of its project that it does not stand under. Nothing was changed.'); // prettier-ignore
  const items = (await placedItems(ctx, projectId)).filter((item) => item.sectionId === other);
  const children = await childrenOf(ctx, from);
  const changes: ItemChange[] = [];
  if (items.length)
    changes.push(
      (await changeItems(ctx, projectId, [{ act: 'move', items, sectionId: id, before: null }])).back,
    );
  for (const child of children) await moveSection(ctx, child, { parentId: id, before: null });
  await binSection(ctx, other, true);
  return { act: 'give back', section: other, changes, children };
}

/** A section gives back another it took in, with what stood there. */
async function giveBack(
  ctx: Context,
  id: string,
  { section, changes, children }: Extract<SectionChange, { act: 'give back' }>,
): Promise<void> {
  const { projectId } = await getSection(ctx, id);
  await binSection(ctx, section, false);
  if ((await getSection(ctx, section)).projectId !== projectId) throw notHere('section');
  if (changes.length) await changeItems(ctx, projectId, changes);
  for (const child of children)
    if ((await findSection(ctx, child))?.projectId === projectId)
      await moveSection(ctx, child, { parentId: section, before: null });
}

/** Changes a section, and gives what takes that back. */
export const changeSection = (
  ctx: Context,
  id: string,
  said: z.infer<typeof sectionChange>,
): Promise<{ back: z.infer<typeof sectionChange> }> =>
  change(ctx, { ...CHANGE, names: { section: id } }, async (inner) => {
    switch (said.act) {
      case 'rename':
        return { back: { act: 'rename' as const, name: await renameSection(inner, id, said.name) } };
      case 'move':
        return { back: { act: 'move' as const, ...(await moveSection(inner, id, said)) } };
      case 'split':
        return { back: await splitSection(inner, id, said.at, said.name) };
      case 'take in':
        return { back: await takeIn(inner, id, said.section) };
      case 'give back':
        await giveBack(inner, id, said);
        return { back: { act: 'take in' as const, section: said.section } };
      case 'bin':
        await binSection(inner, id, true);
        return { back: { act: 'bring back' as const } };
      case 'bring back':
        await binSection(inner, id, false);
        return { back: { act: 'bin' as const } };
    }
  });

/** The outlines of the library's projects, with how many sources each section has. */
export const outlinesOf = (ctx: Context): Promise<OutlineSection[]> => outlines(ctx);

const some = z.array(idGiven).max(MOST_PLACED);

/**
 * What is done to the sources of a section: some are placed in it, before one that is there or where its project puts what is
 * new, or in an order there was; taken out, and out of the project too; put in another order; or in one there was.
 */
export const placing = z.discriminatedUnion('act', [
  z.object({
    act: z.literal('place'),
    ids: some,
    before: idGiven.nullable().optional(),
    order: some.optional(),
  }),
  z.object({ act: z.literal('take out'), ids: some, unfile: some.optional() }),
  z.object({ act: z.literal('order'), ids: some, before: idGiven.nullable() }),
  z.object({ act: z.literal('set order'), ids: some }),
]);

/** Changes what is placed in a section, all or none: for how many that was a change, and what takes it back. */
export const changePlaced = (
  ctx: Context,
  sectionId: string,
  said: z.infer<typeof placing>,
): Promise<{ changed: number; back?: z.infer<typeof placing> }> =>
  change(ctx, { ...CHANGE, of: ['projects', 'sources'], names: { section: sectionId } }, async (inner) => {
    const { projectId } = await getSection(inner, sectionId);
    switch (said.act) {
      case 'place': {
        await checkSources(inner, said.ids);
        const before = await filedIn(inner, projectId, said.ids);
        const unfile = said.ids.filter((id) => !before.has(id));
        await fileSources(inner, projectId, unfile);
        const ids = await placeSources(inner, sectionId, said.ids, said.before);
        if (said.order) await setOrder(inner, sectionId, said.order);
        const changed = Math.max(ids.length, unfile.length);
        return changed ? { changed, back: { act: 'take out' as const, ids, unfile } } : { changed };
      }
      case 'take out': {
        const present = await placedUnder(inner, sectionId);
        const ids = await unplaceSources(inner, sectionId, said.ids);
        await unfileSources(inner, projectId, said.unfile ?? []);
        const changed = ids.length;
        return changed ? { changed, back: { act: 'place' as const, ids, order: present } } : { changed };
      }
      case 'order': {
        const ids = await orderSources(inner, sectionId, said.ids, said.before);
        return { changed: said.ids.length, back: { act: 'set order' as const, ids } };
      }
      case 'set order': {
        await setOrder(inner, sectionId, said.ids);
        return { changed: said.ids.length };
      }
    }
  });

/**
 * What is done to what stands in the sections of a project: changes one after the other, all or none. Sources that come in
 * are filed in the project; `unfile` are those to be taken out of it again.
 */
export const outlineChange = z.object({
  changes: z.array(itemChange).min(1).max(100),
  unfile: some.optional(),
});

/** Changes an outline, and gives what takes that back and the ids of sentences and questions that came in. */
export const changeOutline = (
  ctx: Context,
  projectId: string,
  said: z.infer<typeof outlineChange>,
): Promise<{ back: z.infer<typeof outlineChange>; made: string[] }> =>
  change(
    ctx,
    { ...CHANGE, of: ['projects', 'sources', 'passages'], names: { project: projectId } },
    async (inner) => {
      const sources = said.changes.flatMap((c) =>
        (c.act === 'put' ? c.items : c.act === 'restore' ? c.put : [])
          .filter((item) => item.kind === 'source')
          .map((item) => item.ref),
      );
      const filed = await filedIn(inner, projectId, sources);
      const unfile = [...new Set(sources)].filter((id) => !filed.has(id));
      const { back, made } = await changeItems(inner, projectId, said.changes);
      await fileSources(inner, projectId, unfile);
      await unfileSources(inner, projectId, said.unfile ?? []);
      return { back: { changes: [back], ...(unfile.length ? { unfile } : {}) }, made };
    },
  );

/** Adds sections with what is said under them at the end of an outline; gives those at its top. Call in a change. */
export async function addOutline(
  ctx: Context,
  projectId: string,
  sections: ReadOutline['sections'],
): Promise<string[]> {
  const above: string[] = [];
  const top: string[] = [];
  const changes: ItemChange[] = [];
  for (const { name, depth, said } of sections) {
    const { id } = await insertSection(ctx, { projectId, parentId: above[depth - 1] ?? null, name });
    above.splice(depth, above.length, id);
    if (depth === 0) top.push(id);
    if (said.length)
      changes.push({
        act: 'put',
        items: said.map((item) => ({ ref: 'new', ...item })),
        sectionId: id,
        before: null,
      });
  }
  if (changes.length) await changeItems(ctx, projectId, changes);
  return top;
}

/** Puts sections of a project with all under them in the bin. Call in a change. */
export async function binSections(ctx: Context, projectId: string, ids: readonly string[]): Promise<void> {
  for (const id of ids) {
    if ((await getSection(ctx, id)).projectId !== projectId) throw notHere('section');
    await binSection(ctx, id, true);
  }
}

/** What the person may see of an outline: what stands in the sections of a project, in the order of each. */
export const itemsOfOutline = (ctx: Context, projectId: string): Promise<OutlineItem[]> =>
  outlineItems(ctx, projectId);

/** Files sources in a project or takes them out of it, and gives those for which that was a change. */
export const file = (
  ctx: Context,
  projectId: string,
  sourceIds: string[],
  filed: boolean,
): Promise<{ changed: string[] }> =>
  change(
    ctx,
    { right: 'edit', of: ['projects', 'sources'], names: { project: projectId } },
    async (inner) => {
      await checkSources(inner, sourceIds);
      const there = await filedIn(inner, projectId, sourceIds);
      const changed = sourceIds.filter((id) => there.has(id) !== filed);
      if (filed) await fileSources(inner, projectId, changed);
      else await unfileSources(inner, projectId, changed);
      return { changed };
    },
  );
