import type { PageServerLoad } from './$types';
import { openedProof, proofAroundOf, proofOf } from '$lib/server/proof';
import { lookOf } from '../look';

/** Rows of a group shown at first, and with each step more. */
const SHOWN = 60;

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:sources', 'retexa:passages', 'retexa:projects');
  const { ctx, projectId } = locals;
  const look = await lookOf(locals);
  const groups = await proofOf(ctx, projectId);
  const check = url.searchParams.get('check')?.slice(0, 80) ?? groups.find((g) => !g.aside)?.check;
  const show = Math.min(Math.max(Math.trunc(Number(url.searchParams.get('show'))) || SHOWN, SHOWN), 5_000);
  return {
    groups,
    check,
    show,
    more: SHOWN,
    opened: check ? await openedProof(ctx, check, look, projectId, show) : undefined,
    // Gone through beside what is shown already.
    around: proofAroundOf(ctx, look, projectId).catch(() => undefined),
  };
};
