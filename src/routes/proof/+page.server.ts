import type { PageServerLoad } from './$types';
import { openedProof, proofAroundOf, proofOf } from '$lib/server/proof';
import type { SourceFilter } from '$lib/server/sources';
import { filterOf } from '../filter';
import { lookOf } from '../look';

/** Rows of a group shown at first, and with each step more. */
const SHOWN = 60;

/** How many sources are named one by one in an address. */
const MOST_NAMED = 100;

/** What is proofed: the project or library, or what an address narrows it to, by a query or by the ids of sources. */
function scopeOf(url: URL, locals: App.Locals): SourceFilter {
  const ids = url.searchParams.get('ids')?.split(',').filter(Boolean).slice(0, MOST_NAMED);
  return { ...filterOf(url, locals).filter, ...(ids?.length ? { ids } : {}) };
}

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:passages', 'retexa:projects');
  const { ctx } = locals;
  const filter = scopeOf(url, locals);
  const look = await lookOf(locals);
  const groups = await proofOf(ctx, filter);
  const check = url.searchParams.get('check')?.slice(0, 80) ?? groups.find((g) => !g.aside)?.check;
  const show = Math.min(Math.max(Math.trunc(Number(url.searchParams.get('show'))) || SHOWN, SHOWN), 5_000);
  const { projectId: _project, ...narrowed } = filter;
  return {
    groups,
    /** Not the whole project or library is proofed. */
    narrowed: Object.keys(narrowed).length > 0,
    check,
    show,
    more: SHOWN,
    opened: check ? await openedProof(ctx, check, look, filter, show) : undefined,
    // Gone through beside what is shown already.
    around: proofAroundOf(ctx, look, filter).catch(() => undefined),
  };
};
