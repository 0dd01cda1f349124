import { readingDatabase } from '$lib/server/db/open';
import { mayMeasure, metricsText } from '$lib/server/http/metrics';
import type { RequestHandler } from './$types';

/** What is measured, for who has the secret that was set for it; for others there is nothing here. */
export const GET: RequestHandler = async ({ request }) => {
  if (!mayMeasure(request.headers.get('authorization'))) return new Response('Not found\n', { status: 404 });
  return new Response(await metricsText(await readingDatabase()), {
    headers: {
      'content-type': 'application/openmetrics-text; version=1.0.0; charset=utf-8',
      'cache-control': 'no-store',
    },
  });
};
