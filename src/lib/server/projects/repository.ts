import { scoped, type Context } from '../access/context';
import { inParts, newId, now } from '../db/ids';
import { notHere } from '../access/refusal';

export interface Project {
  id: string;
  name: string;
  style: string;
  locale: string;
  created: string;
}

const COLUMNS = ['id', 'name', 'style', 'locale', 'created'];

/** The projects of the library, oldest first. */
export async function listProjects(ctx: Context): Promise<Project[]> {
  return (await scoped<Project>(ctx, 'project').orderBy('created').select(COLUMNS)) as unknown as Project[];
}

export async function findProject(ctx: Context, id: string): Promise<Project | undefined> {
  return (await scoped<Project>(ctx, 'project').where({ id }).first(COLUMNS)) as unknown as
    Project | undefined;
}

/** Adds a project. */
export async function insertProject(
  ctx: Context,
  project: Pick<Project, 'name' | 'style' | 'locale'>,
): Promise<Project> {
  const row = { id: newId(), created: now(), ...project };
  await ctx.db('project').insert({ ...row, library_id: ctx.libraryId, owner_id: ctx.personId });
  return row;
}

export async function updateProject(
  ctx: Context,
  id: string,
  change: Partial<Pick<Project, 'name' | 'style' | 'locale'>>,
): Promise<void> {
  if (!(await findProject(ctx, id))) throw notHere('project');
  if (Object.keys(change).length > 0) await scoped<Project>(ctx, 'project').where({ id }).update(change);
}

/** Files sources in a project; those already there stay. Ids outside the library are left out. */
export async function fileSources(ctx: Context, projectId: string, sourceIds: string[]): Promise<void> {
  const rows = sourceIds.map((source_id) => ({ project_id: projectId, source_id, filed: now() }));
  for (const part of inParts(rows))
    await ctx.db('filing').insert(part).onConflict(['project_id', 'source_id']).ignore();
}

export async function unfileSource(ctx: Context, projectId: string, sourceId: string): Promise<void> {
  await ctx.db('filing').where({ project_id: projectId, source_id: sourceId }).delete();
}

/** Which of some sources are filed in a project. */
export async function filedIn(ctx: Context, projectId: string, sourceIds: string[]): Promise<Set<string>> {
  const found = new Set<string>();
  for (const part of inParts(sourceIds)) {
    const rows = (await ctx
      .db('filing')
      .where({ project_id: projectId })
      .whereIn('source_id', part)
      .select('source_id')) as {
      source_id: string;
    }[];
    for (const row of rows) found.add(row.source_id);
  }
  return found;
}

/** The projects a source is filed in. */
export async function projectsOf(ctx: Context, sourceId: string): Promise<string[]> {
  const rows = (await ctx.db('filing').where({ source_id: sourceId }).select('project_id')) as {
    project_id: string;
  }[];
  return rows.map((r) => r.project_id);
}
