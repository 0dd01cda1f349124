import type { PageServerLoad } from './$types';
import { styleName } from '$lib/server/lists';
import { listSections } from '$lib/server/projects';
import { allTags } from '$lib/server/sources';
import { lookOf } from '../look';

/** Only what the controls need; the list itself is printed behind and fetched by the page. */
export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:projects', 'retexa:styles');
  const own = await lookOf(locals);
  const style = url.searchParams.get('style') || own.style;
  const locale = url.searchParams.get('locale') || own.locale;
  const [sections, tags] = await Promise.all([listSections(locals.ctx), allTags(locals.ctx)]);
  return {
    style,
    styleTitle: await styleName(locals.ctx, style),
    locale,
    sections: sections.filter((s) => !locals.projectId || s.projectId === locals.projectId),
    tags,
  };
};
