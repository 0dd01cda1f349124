import { scoped, type Context } from '../access/context';
import { inParts, newId, now } from '../db/ids';

/** A heading in a project's outline. */
export interface Section {
  id: string;
  projectId: string;
  name: string;
}

interface Row {
  id: string;
  project_id: string;
  name: string;
  position: number;
}

const opened = ({ id, project_id, name }: Row): Section => ({ id, projectId: project_id, name });

/** The sections of all projects of the library that are not in the bin, in their order. */
export async function listSections(ctx: Context): Promise<Section[]> {
  const rows = (await scoped<Row>(ctx, 'section')
    .join('project', 'project.id', 'section.project_id')
    .whereNull('project.binned')
    .orderBy(['section.project_id', 'section.position'])
    .select('section.*')) as unknown as Row[];
  return rows.map(opened);
}

/** The section of a name in a project, made at its end when there is none. */
export async function sectionNamed(ctx: Context, projectId: string, name: string): Promise<Section> {
  const rows = (await scoped<Row>(ctx, 'section')
    .where({ project_id: projectId })
    .orderBy('position')) as Row[];
  const known = rows.find((r) => r.name.toLowerCase() === name.trim().toLowerCase());
  if (known) return opened(known);
  const row = {
    id: newId(),
    project_id: projectId,
    name: name.trim(),
    position: (rows.at(-1)?.position ?? 0) + 1,
  };
  await ctx
    .db('section')
    .insert({ ...row, parent_id: null, created: now(), library_id: ctx.libraryId, owner_id: ctx.personId });
  return opened(row);
}

/** Places a source under a section, at its end; one already there stays where it is. */
export async function placeSource(ctx: Context, sectionId: string, sourceId: string): Promise<void> {
  const section = (await scoped<Row>(ctx, 'section').where({ id: sectionId }).first('id')) as
    { id: string } | undefined;
  if (!section) return;
  const last = (await ctx.db('placement').where({ section_id: sectionId }).max({ n: 'position' }).first()) as
    { n: number | null } | undefined;
  await ctx
    .db('placement')
    .insert({ section_id: sectionId, source_id: sourceId, position: (last?.n ?? 0) + 1 })
    .onConflict(['section_id', 'source_id'])
    .ignore();
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
  const there = new Set(rows.map((row) => row.passage_id));
  const changed = [...new Set(passageIds)].filter((id) => there.has(id) !== placed);
  let position = rows.reduce((last, row) => Math.max(last, row.position), 0);
  if (placed)
    for (const passage_id of changed)
      await ctx.db('placement').insert({ section_id: sectionId, passage_id, position: ++position });
  else
    for (const part of inParts(changed))
      await ctx.db('placement').where({ section_id: sectionId }).whereIn('passage_id', part).delete();
  return changed;
}

/** Takes a source out of a section. */
export async function unplaceSource(ctx: Context, sectionId: string, sourceId: string): Promise<void> {
  await ctx.db('placement').where({ section_id: sectionId, source_id: sourceId }).delete();
}

/** The sections a source is placed under. */
export async function sectionsOf(ctx: Context, sourceId: string): Promise<Section[]> {
  const rows = (await scoped<Row>(ctx, 'section')
    .join('placement', 'placement.section_id', 'section.id')
    .where('placement.source_id', sourceId)
    .orderBy('section.position')
    .select('section.*')) as unknown as Row[];
  return rows.map(opened);
}

/** The sources placed under a section, in their order. */
export async function placedIn(ctx: Context, sectionId: string): Promise<string[]> {
  const rows = (await scoped<Row>(ctx, 'section')
    .join('placement', 'placement.section_id', 'section.id')
    .where('section.id', sectionId)
    .whereNotNull('placement.source_id')
    .orderBy('placement.position')
    .select('placement.source_id')) as unknown as { source_id: string }[];
  return rows.map((r) => r.source_id);
}

/** The sections of a project, or of all, in order, and for each placed source the name of the first it is under. */
export async function placements(
  ctx: Context,
  projectId?: string,
): Promise<{ sections: Section[]; placed: Map<string, string> }> {
  const sections = (await listSections(ctx)).filter((s) => !projectId || s.projectId === projectId);
  const rows = (await scoped<Row>(ctx, 'section')
    .join('placement', 'placement.section_id', 'section.id')
    .whereNotNull('placement.source_id')
    .whereIn(
      'section.id',
      sections.map((s) => s.id),
    )
    .orderBy(['section.project_id', 'section.position'])
    .select('placement.source_id', 'section.name')) as unknown as { source_id: string; name: string }[];
  const placed = new Map<string, string>();
  for (const { source_id, name } of rows) if (!placed.has(source_id)) placed.set(source_id, name);
  return { sections, placed };
}
