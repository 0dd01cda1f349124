import type { ProjectWords } from '../../core/forms';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { localeFile } from '../catalogue';
import { styleOf } from '../lists/catalogue';
import { checkSources } from '../sources/repository';
import {
  filedIn,
  fileSources,
  insertProject,
  setProjectAside,
  unfileSource,
  updateProject,
  type Project,
} from './repository';
import { sectionNamed, type Section } from './sections';

export { findProject, listProjects, projectsOf, type Project } from './repository';
export { listSections, sectionsOf, type Section } from './sections';

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

/** The section of a name in a project, made when there is none. */
export const makeSection = (ctx: Context, projectId: string, name: string): Promise<Section> =>
  change(ctx, { ...CHANGE, names: { project: projectId } }, (inner) => sectionNamed(inner, projectId, name));

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
      else for (const id of changed) await unfileSource(inner, projectId, id);
      return { changed };
    },
  );

/** What the library is called. */
export async function libraryName(ctx: Context): Promise<string> {
  const row = (await ctx.db('library').where({ id: ctx.libraryId }).first('name')) as { name: string };
  return row.name;
}
