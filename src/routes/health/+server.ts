import { database, readingDatabase } from '$lib/server/db/open';
import type { RequestHandler } from './$types';

/** Whether the server is well: it answers, and its database can be read and written. */
export const GET: RequestHandler = async () => {
  const plain = { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'no-store' };
  try {
    await (await readingDatabase()).raw('SELECT 1 FROM person LIMIT 1');
    await database();
    return new Response('well\n', { headers: plain });
  } catch {
    return new Response('not well: the database cannot be read\n', { status: 503, headers: plain });
  }
};
