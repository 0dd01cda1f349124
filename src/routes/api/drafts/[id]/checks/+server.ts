import { json } from '@sveltejs/kit';
import { checksOf } from '$lib/server/drafts';
import { orRefuse } from '../../../../answer';
import { lookOf } from '../../../../look';
import type { RequestHandler } from './$types';

/** What is to be looked at in a draft as it is kept. */
export const GET: RequestHandler = async ({ params, locals }) =>
  orRefuse(checksOf(locals.ctx, params.id, await lookOf(locals))).then(json);
