import { json, type RequestHandler } from '@sveltejs/kit';
import { renameWords } from '$lib/core/forms';
import { renameEverywhere } from '$lib/server/many';
import { namedIn } from '$lib/server/people';
import { changes, orRefuse } from '../../answer';

/** The sources a name stands in. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const kind = url.searchParams.get('kind') === 'container' ? 'container' : 'person';
  return json(await orRefuse(namedIn(locals.ctx, kind, url.searchParams.get('name') ?? '')));
};

/** Calls a name otherwise in all sources it stands in. */
export const POST = changes(renameWords, (said, ctx) => renameEverywhere(ctx, said));
