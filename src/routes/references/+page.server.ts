import type { PageServerLoad } from './$types';
import { styleSaid } from '$lib/server/lists';
import { listSections } from '$lib/server/projects';
import { allTags } from '$lib/server/sources';
import { lookOf } from '../look';

/** Only what the controls need; the list itself is printed behind and fetched by the page. */
export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:projects', 'retexa:styles');
  const own = await lookOf(locals);
  const style = url.searchParams.get('style') || own.style;
  const locale = url.searchParams.get('locale') || own.locale;
  const [sections, tags, said] = await Promise.all([
    listSections(locals.ctx),
    allTags(locals.ctx),
    styleSaid(locals.ctx, style),
  ]);
  return {
    style,
    styleTitle: said.title,
    styleLanguage: said.language,
    locale,
    sections: sections.filter((s) => !locals.projectId || s.projectId === locals.projectId),
    tags,
  };
};
