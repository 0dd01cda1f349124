import type { ProjectWords } from '../../core/forms';
import { scoped, type Context } from '../access/context';
import { filesLeave } from '../files/leaving';
import { inParts, newId, now } from '../db/ids';
import { notHere } from '../access/refusal';
import { presetsLetGo } from '../presets/repository';
import { takeOutOfIndex } from '../search/repository';
import { inTurn } from '../turns';
import { forgetTallies } from '../sources/tallies';
import { forgetOwn } from './sections';

export interface Project {
  id: string;
  name: string;
  style: string;
  locale: string;
  created: string;
  /** When it was put away: it stays as it is, below those one works on. */
  putAway: string | null;
  /** What is placed in a section of it stands first there, not last. */
  newFirst: boolean;
}

const COLUMNS = ['id', 'name', 'style', 'locale', 'created', 'put_away as putAway', 'new_first as newFirst'];

const opened = (row: Project): Project => ({ ...row, newFirst: Boolean(row.newFirst) });

const there = (ctx: Context) =>
  scoped<Project & { binned: string | null }>(ctx, 'project').whereNull('binned');

/** The projects of the library that are not in the bin, oldest first. */
export async function listProjects(ctx: Context): Promise<Project[]> {
  return ((await there(ctx).orderBy('created').select(COLUMNS)) as unknown as Project[]).map(opened);
}

/** A project that is not in the bin. */
export async function findProject(ctx: Context, id: string): Promise<Project | undefined> {
  const row = (await there(ctx).where({ id }).first(COLUMNS)) as unknown as Project | undefined;
  return row && opened(row);
}

/** The projects in the bin, latest first, with how many sources are filed in each. */
export async function binnedProjects(
  ctx: Context,
): Promise<{ id: string; name: string; binned: string; sources: number }[]> {
  const filed = ctx.db('filing').whereRaw('filing.project_id = project.id').count('*');
  return (await scoped<Project & { binned: string }>(ctx, 'project')
    .whereNotNull('binned')
    .orderBy('binned', 'desc')
    .select('id', 'name', 'binned', filed.as('sources'))) as unknown as {
    id: string;
    name: string;
    binned: string;
    sources: number;
  }[];
}

/** Adds a project. */
export async function insertProject(
  ctx: Context,
  { name, style, locale, newFirst = false }: ProjectWords,
): Promise<Project> {
  const row = { id: newId(), created: now(), name, style, locale };
  await ctx
    .db('project')
    .insert({ ...row, new_first: newFirst, library_id: ctx.libraryId, owner_id: ctx.personId });
  return { ...row, putAway: null, newFirst };
}

export async function updateProject(
  ctx: Context,
  id: string,
  { newFirst, ...words }: Partial<ProjectWords>,
): Promise<void> {
  if (!(await findProject(ctx, id))) throw notHere('project');
  const change = { ...words, ...(newFirst === undefined ? {} : { new_first: newFirst }) };
  if (Object.keys(change).length > 0) await scoped(ctx, 'project').where({ id }).update(change);
}

/** Puts a project away or in the bin, or takes it out of there. Its sources stay filed in it. */
export async function setProjectAside(
  ctx: Context,
  id: string,
  how: { put_away: boolean } | { binned: boolean },
): Promise<void> {
  const [[column, aside]] = Object.entries(how) as [[string, boolean]];
  const changed = (await scoped(ctx, 'project')
    .where({ id })
    .update({ [column]: aside ? now() : null })) as number;
  if (changed !== 1) throw notHere('project');
}

/**
 * Removes projects for good, with their sections and what is filed and placed in them. The sources stay in the library,
 * and notes, leads and presets stay without a project.
 */
export async function removeProjects(ctx: Context, ids: string[]): Promise<void> {
  for (const part of inParts(ids)) {
    for (const table of ['note', 'lead'])
      await scoped(ctx, table).whereIn('project_id', part).update({ project_id: null });
    await presetsLetGo(ctx, 'project_id', part);
    await ctx.db('filing').whereIn('project_id', part).delete();
    const sections = scoped(ctx, 'section').whereIn('project_id', part).select('id');
    await forgetOwn(ctx, sections.clone());
    const drafts = scoped(ctx, 'draft').whereIn('project_id', part).select('id');
    await filesLeave(ctx, [
      ...((await drafts.clone().clearSelect().pluck('template_sha256')) as unknown as (string | null)[]),
      ...((await ctx.db('draft_picture').whereIn('draft_id', drafts.clone()).pluck('sha256')) as string[]),
    ]);
    const parts = (await ctx.db('draft_part').whereIn('draft_id', drafts).pluck('id')) as string[];
    await takeOutOfIndex(ctx, 'part', parts);
    await ctx.db('placement').whereIn('section_id', sections).delete();
    await presetsLetGo(ctx, 'section_id', sections.clone());
    await scoped(ctx, 'section').whereIn('project_id', part).delete();
    await forgetTallies(ctx, part);
    await scoped(ctx, 'project').whereIn('id', part).delete();
  }
}

/** How many are filed by one statement: others are answered between. */
const FILED_AT_ONCE = 100;

/** Files sources in a project; those already there stay. Ids outside the library are left out. */
export async function fileSources(ctx: Context, projectId: string, sourceIds: string[]): Promise<void> {
  const rows = sourceIds.map((source_id) => ({ project_id: projectId, source_id, filed: now() }));
  for await (const part of inTurn(inParts(rows, FILED_AT_ONCE)))
    await ctx.db('filing').insert(part).onConflict(['project_id', 'source_id']).ignore();
}

export async function unfileSources(ctx: Context, projectId: string, sourceIds: string[]): Promise<void> {
  for await (const part of inTurn(inParts(sourceIds, FILED_AT_ONCE)))
    await ctx.db('filing').where({ project_id: projectId }).whereIn('source_id', part).delete();
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
