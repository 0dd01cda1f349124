import { closedPage } from '$lib/server/shares';

/** Nothing runs in it, nothing is loaded, nobody may frame it. */
const POLICY =
  "default-src 'none'; style-src 'unsafe-inline'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'";

/** A page for who has no more than a link. It is in no index and no store. */
export const plainPage = (html: string, status = 200): Response =>
  new Response(html, {
    status,
    headers: {
      'content-type': 'text/html; charset=utf-8',
      'content-security-policy': POLICY,
      'cache-control': 'no-store',
      'x-robots-tag': 'noindex, nofollow',
    },
  });

/** Answered where a link opens nothing. */
export const closed = (): Response => plainPage(closedPage(), 404);
