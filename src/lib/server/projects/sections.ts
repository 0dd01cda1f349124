import type { Knex } from 'knex';
import { inOrder, moved, putBefore, spotOf, type Spot } from '../../core/outline';
import { scoped, visible, type Context } from '../access/context';
import { notHere, Refusal } from '../access/refusal';
import { inParts, newId, now } from '../db/ids';
import { presetsLetGo } from '../presets/repository';
import { takeOutOfIndex } from '../search/repository';

/** A heading in a project's outline. */
export interface Section {
  id: string;
  projectId: string;
  /** The section it stands under. */
  parentId: string | null;
  name: string;
}

/** A section as the outline is read: how deep it stands, and how many sources it has, with those of the sections under it. */
export interface OutlineSection extends Section {
  depth: number;
  sources: number;
}

interface Row {
  id: string;
  project_id: string;
  parent_id: string | null;
  name: string;
  position: number;
}

const opened = ({ id, project_id, parent_id, name }: Row): Section => ({
  id,
  projectId: project_id,
  parentId: parent_id,
  name,
});

/** The sections that are not in the bin. */
const there = (ctx: Context): Knex.QueryBuilder => scoped<Row>(ctx, 'section').whereNull('section.binned');

/** The sections of a project in the order among those beside them. */
async function rowsOf(ctx: Context, projectId: string): Promise<Section[]> {
  const rows = (await there(ctx).where({ project_id: projectId }).orderBy('position')) as Row[];
  return rows.map(opened);
}

/** A section that is not in the bin. */
export async function findSection(ctx: Context, id: string): Promise<Section | undefined> {
  const row = (await there(ctx).where({ id }).first()) as Row | undefined;
  return row && opened(row);
}

/** The same; refuses when there is none. */
export async function getSection(ctx: Context, id: string): Promise<Section> {
  const section = await findSection(ctx, id);
  if (!section) throw notHere('section');
  return section;
}

/** The sections of all projects of the library that are not in the bin, as their outlines are read. */
export async function listSections(ctx: Context): Promise<(Section & { depth: number })[]> {
  const rows = (await there(ctx)
    .join('project', 'project.id', 'section.project_id')
    .whereNull('project.binned')
    .orderBy(['section.project_id', 'section.position'])
    .select('section.*')) as unknown as Row[];
  return inOrder(rows.map(opened));
}

/** The outlines of all projects as they are read, with how many sources each section has. */
export async function outlines(ctx: Context): Promise<OutlineSection[]> {
  const sections = await listSections(ctx);
  if (sections.length === 0) return [];
  // Each section with each that it stands under, itself first.
  const above = `WITH RECURSIVE above(id, top) AS (SELECT id, id FROM section WHERE library_id = ? AND binned IS NULL UNION ALL SELECT section.id, above.top FROM section JOIN above ON section.parent_id = above.id WHERE section.binned IS NULL) SELECT id, top FROM above`;
  const rows = (await placedSources(ctx)
    .joinRaw(`JOIN (${above}) AS above ON above.id = section.id`, [ctx.libraryId])
    .join('source', 'source.id', 'placement.source_id')
    .whereNull('source.binned')
    .whereNull('source.merged_into')
    .groupBy('above.top')
    .select('above.top as id')
    .countDistinct({ n: 'placement.source_id' })) as unknown as { id: string; n: number }[];
  const counts = new Map(rows.map(({ id, n }) => [id, n]));
  return sections.map((section) => ({ ...section, sources: counts.get(section.id) ?? 0 }));
}

/** How many living passages the person may see are placed right under each section. */
export async function passagesPlaced(ctx: Context): Promise<Map<string, number>> {
  const rows = (await visible(ctx, 'passage')
    .join('placement', 'placement.passage_id', 'passage.id')
    .join('section', 'section.id', 'placement.section_id')
    .where('section.library_id', ctx.libraryId)
    .whereNull('section.binned')
    .whereNull('passage.binned')
    .groupBy('placement.section_id')
    .select('placement.section_id as id')
    .count({ n: '*' })) as unknown as { id: string; n: number }[];
  return new Map(rows.map(({ id, n }) => [id, n]));
}

/** Adds a section at the end of a project, or of the section it stands under. */
export async function insertSection(
  ctx: Context,
  { projectId, parentId, name }: Omit<Section, 'id'>,
): Promise<Section> {
  if (parentId !== null && (await getSection(ctx, parentId)).projectId !== projectId)
    throw new Refusal(422, 'A section stands under one of its own project.');
  const section = { id: newId(), projectId, parentId, name: name.trim() };
  const [{ last }] = (await scoped(ctx, 'section')
    .where({ project_id: projectId })
    .max({ last: 'position' })) as unknown as [{ last: number | null }];
  await ctx.db('section').insert({
    id: section.id,
    project_id: projectId,
    parent_id: parentId,
    name: section.name,
    position: (last ?? 0) + 1,
    created: now(),
    library_id: ctx.libraryId,
    owner_id: ctx.personId,
  });
  return section;
}

/** The section of a name in a project, made at its end when there is none. */
export async function sectionNamed(ctx: Context, projectId: string, name: string): Promise<Section> {
  const wanted = name.trim().toLowerCase();
  const known = inOrder(await rowsOf(ctx, projectId)).find((s) => s.name.toLowerCase() === wanted);
  return known ?? insertSection(ctx, { projectId, parentId: null, name });
}

/** Calls a section otherwise; gives what it was called. */
export async function renameSection(ctx: Context, id: string, name: string): Promise<string> {
  const section = await getSection(ctx, id);
  await there(ctx).where({ id }).update({ name });
  return section.name;
}

/** Puts a section, with all under it, at a place of its project's outline; gives where it stood. */
export async function moveSection(ctx: Context, id: string, spot: Spot): Promise<Spot> {
  const { projectId } = await getSection(ctx, id);
  const sections = await rowsOf(ctx, projectId);
  const was = spotOf(sections, id)!;
  const next = placedAt(sections, id, spot);
  for (const [i, { id: one, parentId }] of next.entries())
    await there(ctx)
      .where({ id: one })
      .update({ position: i + 1, parent_id: parentId });
  return was;
}

function placedAt(sections: Section[], id: string, spot: Spot): Section[] {
  try {
    return moved(sections, id, spot);
  } catch (e) {
    if (e instanceof RangeError) throw new Refusal(422, `${e.message} Nothing was changed.`);
    throw e;
  }
}

/** Puts a section with all under it in the bin, or brings back what went there with it. */
export async function binSection(ctx: Context, id: string, binned: boolean): Promise<void> {
  if (binned) {
    const section = await getSection(ctx, id);
    const sections = inOrder(await rowsOf(ctx, section.projectId));
    const at = sections.findIndex((s) => s.id === id);
    const depth = sections[at]!.depth;
    const end = sections.findIndex((s, i) => i > at && s.depth <= depth);
    const going = sections.slice(at, end === -1 ? undefined : end).map((s) => s.id);
    for (const part of inParts(going))
      await there(ctx).whereIn('id', part).update({ binned: now(), binned_with: id });
    return;
  }
  const row = (await scoped(ctx, 'section').where({ id, binned_with: id }).first()) as Row | undefined;
  if (!row) throw notHere('section');
  // What it stood under may be gone since.
  if (row.parent_id && !(await there(ctx).where({ id: row.parent_id }).first('id')))
    await scoped(ctx, 'section').where({ id }).update({ parent_id: null });
  await scoped(ctx, 'section').where({ binned_with: id }).update({ binned: null, binned_with: null });
}

/** The sections in the bin, latest first, each with the name of its project. */
export async function binnedSections(
  ctx: Context,
): Promise<{ id: string; name: string; project: string; binned: string }[]> {
  return (await scoped<Row>(ctx, 'section')
    .join('project', 'project.id', 'section.project_id')
    .whereRaw('section.binned_with = section.id')
    .orderBy('section.binned', 'desc')
    .select('section.id', 'section.name', 'section.binned', 'project.name as project')) as unknown as {
    id: string;
    name: string;
    project: string;
    binned: string;
  }[];
}

/** Sentences and questions of sections that go are not searched any more. */
export async function forgetOwn(ctx: Context, sections: Knex.QueryBuilder): Promise<void> {
  const own = (await ctx
    .db('placement')
    .whereIn('section_id', sections)
    .whereNotNull('own_id')
    .pluck('own_id')) as string[];
  await takeOutOfIndex(ctx, 'own', own);
}

/** Removes sections in the bin for good, with what went there with them. What was placed there stays in the library. */
export async function removeSections(ctx: Context, ids: string[]): Promise<void> {
  for (const part of inParts(ids)) {
    const going = () => scoped(ctx, 'section').whereIn('binned_with', part).select('id');
    await presetsLetGo(ctx, 'section_id', going());
    await forgetOwn(ctx, going());
    await ctx.db('placement').whereIn('section_id', going()).delete();
    // What went to the bin before stood under one of these, perhaps, and is brought back to the top.
    await scoped(ctx, 'section').whereIn('parent_id', going()).update({ parent_id: null });
    await scoped(ctx, 'section').whereIn('binned_with', part).delete();
  }
}

/** Puts the sources of a section in an order; what else stands there keeps its place among them. */
async function number(ctx: Context, sectionId: string, sourceIds: readonly string[]): Promise<void> {
  const rows = (await ctx
    .db('placement')
    .where({ section_id: sectionId })
    .orderBy('position')
    .select('source_id', 'position')) as { source_id: string | null; position: number }[];
  const places = rows.filter((row) => row.source_id !== null);
  const now = new Map(places.map((row) => [row.source_id, row.position]));
  for (const [i, source_id] of sourceIds.entries()) {
    const { position } = places[i]!;
    if (now.get(source_id) !== position)
      await ctx.db('placement').where({ section_id: sectionId, source_id }).update({ position });
  }
}

/** Ids of the sources placed right under a section, in their order. */
export async function placedUnder(ctx: Context, sectionId: string): Promise<string[]> {
  const rows = (await ctx
    .db('placement')
    .where({ section_id: sectionId })
    .whereNotNull('source_id')
    .orderBy('position')
    .select('source_id')) as { source_id: string }[];
  return rows.map((row) => row.source_id);
}

/**
 * Places sources under a section, before one that is there, or where its project puts what is new; those there already
 * stay where they are. Gives those for which that was a change.
 */
export async function placeSources(
  ctx: Context,
  sectionId: string,
  sourceIds: readonly string[],
  before?: string | null,
): Promise<string[]> {
  const section = (await there(ctx)
    .join('project', 'project.id', 'section.project_id')
    .where('section.id', sectionId)
    .first('project.new_first as newFirst')) as { newFirst: number } | undefined;
  if (!section) throw notHere('section');
  const present = await placedUnder(ctx, sectionId);
  const known = new Set(present);
  const changed = [...new Set(sourceIds)].filter((id) => !known.has(id));
  if (changed.length === 0) return changed;
  const place = (position: number) => (source_id: string, i: number) => ({
    section_id: sectionId,
    source_id,
    position: position + i,
  });
  const [{ last }] = (await ctx
    .db('placement')
    .where({ section_id: sectionId })
    .max({ last: 'position' })) as unknown as [{ last: number | null }];
  for (const part of inParts(changed.map(place((last ?? 0) + 1)))) await ctx.db('placement').insert(part);
  const at = before === undefined && section.newFirst ? (present[0] ?? null) : (before ?? null);
  if (at !== null) await number(ctx, sectionId, putBefore([...present, ...changed], changed, at));
  return changed;
}

/** Takes sources out of a section; gives those that were there, in their order. */
export async function unplaceSources(
  ctx: Context,
  sectionId: string,
  sourceIds: readonly string[],
): Promise<string[]> {
  const going = new Set(sourceIds);
  const changed = (await placedUnder(ctx, sectionId)).filter((id) => going.has(id));
  for (const part of inParts(changed))
    await ctx.db('placement').where({ section_id: sectionId }).whereIn('source_id', part).delete();
  return changed;
}

/** Puts sources that are placed under a section before another of it, or last; gives the order there was. */
export async function orderSources(
  ctx: Context,
  sectionId: string,
  sourceIds: readonly string[],
  before: string | null,
): Promise<string[]> {
  await getSection(ctx, sectionId);
  const present = await placedUnder(ctx, sectionId);
  const known = new Set(present);
  if ([...sourceIds, ...(before === null ? [] : [before])].some((id) => !known.has(id)))
    throw new Refusal(
      422,
      'Only what stands right under this section can be put in another order here. Nothing was changed.',
    );
  await number(ctx, sectionId, putBefore(present, sourceIds, before));
  return present;
}

/** Puts back an order there was; what came since stays behind it. */
export async function setOrder(ctx: Context, sectionId: string, sourceIds: readonly string[]): Promise<void> {
  await getSection(ctx, sectionId);
  const present = await placedUnder(ctx, sectionId);
  const wanted = new Set(sourceIds);
  const known = new Set(present);
  await number(ctx, sectionId, [
    ...sourceIds.filter((id) => known.has(id)),
    ...present.filter((id) => !wanted.has(id)),
  ]);
}

/** Places passages under a section, at its end, or takes them out of it; gives those for which that was a change. */
export async function placePassages(
  ctx: Context,
  sectionId: string,
  passageIds: readonly string[],
  placed: boolean,
): Promise<string[]> {
  const rows = (await ctx
    .db('placement')
    .where({ section_id: sectionId })
    .select('passage_id', 'position')) as { passage_id: string | null; position: number }[];
  const present = new Set(rows.map((row) => row.passage_id));
  const changed = [...new Set(passageIds)].filter((id) => present.has(id) !== placed);
  let position = rows.reduce((last, row) => Math.max(last, row.position), 0);
  if (placed)
    for (const passage_id of changed)
      await ctx.db('placement').insert({ section_id: sectionId, passage_id, position: ++position });
  else
    for (const part of inParts(changed))
      await ctx.db('placement').where({ section_id: sectionId }).whereIn('passage_id', part).delete();
  return changed;
}

/** The sections a source is placed under. */
export async function sectionsOf(ctx: Context, sourceId: string): Promise<Section[]> {
  const rows = (await there(ctx)
    .join('placement', 'placement.section_id', 'section.id')
    .where('placement.source_id', sourceId)
    .orderBy('section.position')
    .select('section.*')) as unknown as Row[];
  return rows.map(opened);
}

/** A section and those under it, as the outline is read; nothing of it when it is in the bin. */
export async function sectionIds(ctx: Context, sectionId: string): Promise<string[]> {
  const section = await findSection(ctx, sectionId);
  if (!section) return [];
  const sections = inOrder(await rowsOf(ctx, section.projectId));
  const at = sections.findIndex((s) => s.id === sectionId);
  const rest = sections.slice(at + 1);
  const end = rest.findIndex((s) => s.depth <= sections[at]!.depth);
  return [sectionId, ...rest.slice(0, end === -1 ? undefined : end).map((s) => s.id)];
}

/** The sources placed under a section or one under it, in the order of the outline. */
export async function placedIn(ctx: Context, sectionId: string): Promise<string[]> {
  const rows = (await inOutline(ctx, await sectionIds(ctx, sectionId)).orderBy('place')) as unknown as {
    source_id: string;
  }[];
  return rows.map((r) => r.source_id);
}

/**
 * The sources placed under some sections and filed in their project, each once, as `source_id` with its `place` among them: by the order of the
 * sections, and in each by its own.
 */
export const inOutline = (ctx: Context, sectionIds: readonly string[]): Knex.QueryBuilder =>
  placedSources(ctx)
    .joinRaw('JOIN json_each(?) AS outline ON outline.value = placement.section_id', [
      JSON.stringify(sectionIds),
    ])
    .groupBy('placement.source_id')
    // Far more than a section holds.
    .select('placement.source_id', ctx.db.raw('min(outline.key * 10000000 + placement.position) AS place'));

/** Placements of sources that count: in a section that is not in the bin, of a source filed in its project. */
const placedSources = (ctx: Context): Knex.QueryBuilder =>
  ctx
    .db('placement')
    .join('section', 'section.id', 'placement.section_id')
    .join('filing', (on) =>
      on.on('filing.project_id', 'section.project_id').andOn('filing.source_id', 'placement.source_id'),
    )
    .where('section.library_id', ctx.libraryId)
    .whereNull('section.binned')
    .whereNotNull('placement.source_id') as unknown as Knex.QueryBuilder;

/** The same under any section of a project, or of any. */
export const placedAnywhere = (ctx: Context, projectId: string | undefined): Knex.QueryBuilder =>
  placedSources(ctx).modify((query) => {
    if (projectId) void query.where('section.project_id', projectId);
  });

/** The same under a section and those under it. */
export const placedBelow = (ctx: Context, sectionId: string): Knex.QueryBuilder =>
  placedSources(ctx).whereRaw(
    `section.id IN (WITH RECURSIVE below(id) AS (SELECT ? UNION SELECT section.id FROM section JOIN below ON section.parent_id = below.id WHERE section.binned IS NULL) SELECT id FROM below)`,
    [sectionId],
  );

/** The sections of a project, or of all, as they are read, and for each placed source the name of the first it is under. */
export async function placements(
  ctx: Context,
  projectId?: string,
): Promise<{ sections: Section[]; placed: Map<string, string> }> {
  const sections = (await listSections(ctx)).filter((s) => !projectId || s.projectId === projectId);
  const names = new Map(sections.map((s) => [s.id, s.name]));
  const rows = (await placedSources(ctx)
    .joinRaw('JOIN json_each(?) AS outline ON outline.value = placement.section_id', [
      JSON.stringify(sections.map((s) => s.id)),
    ])
    .orderBy(['outline.key', 'placement.position'])
    .select('placement.source_id', 'placement.section_id')) as unknown as {
    source_id: string;
    section_id: string;
  }[];
  const placed = new Map<string, string>();
  for (const { source_id, section_id } of rows)
    if (!placed.has(source_id)) placed.set(source_id, names.get(section_id)!);
  return { sections, placed };
}
