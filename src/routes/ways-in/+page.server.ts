import type { PageServerLoad } from './$types';
import { listPresets } from '$lib/server/repositories/presets';
import { listSections } from '$lib/server/repositories/sections';
import { allTags } from '$lib/server/services/sources';

export const load: PageServerLoad = async ({ locals, depends, url }) => {
  depends('retexa:data');
  const [presets, sections, tags] = await Promise.all([
    listPresets(locals.ctx),
    listSections(locals.ctx),
    allTags(locals.ctx),
  ]);
  return { presets, sections, tags, origin: url.origin };
};
