import { json } from '@sveltejs/kit';
import { listPresets } from '$lib/server/presets';
import { listProjects, listSections } from '$lib/server/projects';
import { allTags } from '$lib/server/sources';
import type { RequestHandler } from './$types';

/** What a capture can go into and go with. */
export const GET: RequestHandler = async ({ locals: { ctx } }) => {
  const [projects, sections, presets, tags] = await Promise.all([
    listProjects(ctx),
    listSections(ctx),
    listPresets(ctx),
    allTags(ctx),
  ]);
  return json({ projects, sections, presets, tags });
};
