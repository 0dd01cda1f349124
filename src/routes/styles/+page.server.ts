import { shortLabel, TYPE_LABELS } from '$lib/core/source';
import { printTraced } from '$lib/server/lists';
import { someOfEachKind } from '$lib/server/sources';
import { orRefuse } from '../answer';
import { lookOf } from '../look';
import type { PageServerLoad } from './$types';

/** How many sources of each kind a style is shown on. */
const OF_EACH_KIND = 3;

/** What a style, and another beside it, prints of some sources of each kind, and how that came. */
export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:projects', 'retexa:styles');
  const own = await lookOf(locals);
  const locale = url.searchParams.get('locale') || own.locale;
  const beside = url.searchParams.get('beside');
  const sources = await someOfEachKind(locals.ctx, locals.projectId, OF_EACH_KIND);
  const traced = (style: string) => orRefuse(printTraced(locals.ctx, sources, { style, locale }));
  return {
    locale,
    sources: sources.map(({ id, record }) => ({
      id,
      label: shortLabel(record),
      kind: TYPE_LABELS[record.type],
    })),
    of: await traced(url.searchParams.get('style') || own.style),
    beside: beside ? await traced(beside) : undefined,
  };
};
