import type { PageServerLoad } from './$types';
import { listPresets } from '$lib/server/presets';
import { listSections } from '$lib/server/projects';
import { allTags } from '$lib/server/sources';

export const load: PageServerLoad = async ({ locals, depends, url }) => {
  depends('retexa:presets', 'retexa:projects', 'retexa:sources');
  const [presets, sections, tags] = await Promise.all([
    listPresets(locals.ctx),
    listSections(locals.ctx),
    allTags(locals.ctx),
  ]);
  return { presets, sections, tags, origin: url.origin };
};
