import type { PageServerLoad } from './$types';
import { PASSAGE_KINDS, TINTS } from '$lib/core/passages';
import { listPassages } from '$lib/server/passages';

export const load: PageServerLoad = async ({ url, locals, depends }) => {
  depends('retexa:passages', 'retexa:sources');
  const get = (name: string, allowed?: readonly string[]) => {
    const value = url.searchParams.get(name)?.trim();
    return value && (!allowed || allowed.includes(value)) ? value.slice(0, 300) : undefined;
  };
  const [text, kind, tint] = [get('q'), get('kind', PASSAGE_KINDS), get('tint', TINTS)];
  const list = await listPassages(locals.ctx, {
    ...(locals.projectId ? { projectId: locals.projectId } : {}),
    ...(text ? { text } : {}),
    ...(kind ? { kind } : {}),
    ...(tint ? { tint } : {}),
    ...(get('lost') ? { lost: true } : {}),
  });
  return { ...list, shown: list.items.length };
};
