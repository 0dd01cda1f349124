import { escapeHtml } from '$lib/core/text';
import { database, readingDatabase } from '$lib/server/db/open';
import { sharedDocument } from '$lib/server/shares';
import { fileAnswer, orRefuse } from '../../../../answer';
import { closed } from '../../../plain';
import type { RequestHandler } from './$types';

/** Nothing runs, nothing loads but our own stylesheet and fonts. */
const POLICY =
  "default-src 'none'; style-src 'self'; font-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'; sandbox allow-popups";

/** A document that a link shows: a page of the web as it is read here, sanitised; others as they were captured. */
export const GET: RequestHandler = async ({ params, request }) => {
  const shown = await orRefuse(
    sharedDocument(await readingDatabase(), await database(), params.secret, params.id),
  );
  if (!shown) return closed();
  if (shown.kind === 'file') {
    const answer = fileAnswer(shown.bytes, shown.copy.media_type, request, shown.copy.title);
    // What a withdrawn link showed is not shown on by the browser.
    answer.headers.set('cache-control', 'no-store');
    answer.headers.set('x-robots-tag', 'noindex');
    return answer;
  }
  return new Response(
    `<!doctype html><html><head><meta charset="utf-8"><meta name="robots" content="noindex"><title>${escapeHtml(shown.copy.title)}</title><link rel="stylesheet" href="/reading.css"></head><body>${shown.html}</body></html>`,
    {
      headers: {
        'content-type': 'text/html; charset=utf-8',
        'content-security-policy': POLICY,
        'cache-control': 'no-store',
        'x-robots-tag': 'noindex',
      },
    },
  );
};
