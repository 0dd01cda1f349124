import { readingOf } from '$lib/server/copies';
import { escapeHtml } from '$lib/core/text';
import { orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** Nothing runs, nothing loads but our own stylesheet and fonts; nobody else may frame it. */
const POLICY =
  "default-src 'none'; style-src 'self'; font-src 'self'; img-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'self'; sandbox allow-same-origin allow-popups allow-popups-to-escape-sandbox";

/** The sanitised page of a copy, for the sandboxed frame of the reader. */
export const GET: RequestHandler = async ({ params, locals, url }) => {
  const { copy, html } = await orRefuse(readingOf(locals.ctx, params.id));
  const dark = url.searchParams.get('dark') === '1' ? ' class="dark"' : '';
  return new Response(
    `<!doctype html><html${dark}><head><meta charset="utf-8"><title>${escapeHtml(copy.title)}</title><link rel="stylesheet" href="/reading.css"></head><body>${html}</body></html>`,
    {
      headers: {
        'content-type': 'text/html; charset=utf-8',
        'content-security-policy': POLICY,
        // Its pictures may be had another time, when they could not be at first.
        'cache-control': 'private, no-cache',
      },
    },
  );
};
