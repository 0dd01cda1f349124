import { writeDraft } from '$lib/server/drafts';
import { orRefuse } from '../../../../answer';
import { lookOf } from '../../../../look';
import type { RequestHandler } from './$types';

/** What the page may do: show itself, and be printed by ours. */
const POLICY =
  "default-src 'none'; style-src 'unsafe-inline'; img-src data:; base-uri 'none'; form-action 'none'; frame-ancestors 'self'; sandbox allow-same-origin allow-modals";

/** A draft as a page to be printed. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const { body, mediaType } = await orRefuse(
    (async () =>
      writeDraft(locals.ctx, params.id, { as: 'html', citing: 'printed' }, await lookOf(locals)))(),
  );
  return new Response(body, {
    headers: { 'content-type': mediaType, 'content-security-policy': POLICY, 'cache-control': 'no-store' },
  });
};
