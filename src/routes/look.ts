import { findProject } from '$lib/server/projects';
import type { Look } from '$lib/server/lists';

/** The style and language things print in: the chosen project's, or APA in US English for the whole library. */
export async function lookOf(locals: App.Locals): Promise<Look> {
  const project = locals.projectId ? await findProject(locals.ctx, locals.projectId) : undefined;
  return project ? { style: project.style, locale: project.locale } : { style: 'apa', locale: 'en-US' };
}
