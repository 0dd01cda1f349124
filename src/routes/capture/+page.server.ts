import type { PageServerLoad } from './$types';
import { getPreset } from '$lib/server/presets';
import { findShared, isCapture } from '$lib/server/capture';
import { getSource } from '$lib/server/sources';
import { printedFields } from '$lib/server/lists';
import { lookOf } from '../look';

/** The capture window: what the address gives, and how the captures begun in it stand. */
export const load: PageServerLoad = async ({ url, locals, depends, parent }) => {
  depends('retexa:presets', 'retexa:jobs', 'retexa:sources');
  const { ctx } = locals;
  const get = (name: string) => url.searchParams.get(name)?.trim() ?? '';
  const waiting = get('shared') ? await findShared(ctx, get('shared')) : undefined;
  const of = (name: 'url' | 'title' | 'text') => waiting?.[name].trim() || get(name);
  const shared = of('text');
  // Phones put the address of a shared page into the text as often as into its own place.
  const inText = /https?:\/\/\S+/.exec(shared)?.[0];
  const preset = get('preset') ? await getPreset(ctx, get('preset')).catch(() => undefined) : undefined;
  const { jobs } = await parent();
  const mine = jobs.filter((j) => j.id === get('job'));
  const [job] = mine;
  const kept =
    job && isCapture(job) && job.result?.kind === 'kept'
      ? await getSource(ctx, job.result.sourceId).catch(() => undefined)
      : undefined;
  const { style } = await lookOf(locals);
  return {
    given: {
      url: of('url') || (inText ?? ''),
      title: of('title'),
      selection: get('selection') || (inText ? '' : shared),
      handed: get('handed') === '1',
      trouble: get('trouble'),
    },
    ...(preset ? { preset } : {}),
    ...(job ? { job } : {}),
    ...(kept ? { kept, printed: await printedFields(locals.ctx, style, kept.record.type) } : {}),
  };
};
