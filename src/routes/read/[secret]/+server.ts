import { database, readingDatabase } from '$lib/server/db/open';
import { readShared, SHARED_AS, sharedRecords } from '$lib/server/shares';
import { orRefuse } from '../../answer';
import { closed, plainPage } from '../plain';
import type { RequestHandler } from './$types';

/** What a link opens: a plain page, or its list as records. */
export const GET: RequestHandler = async ({ params, url }) => {
  const [db, writes] = [await readingDatabase(), await database()];
  const as = SHARED_AS.find((one) => one === url.searchParams.get('as'));
  if (as) {
    const file = await orRefuse(sharedRecords(db, writes, params.secret, as));
    if (!file) return closed();
    return new Response(file.body, {
      headers: {
        'content-type': file.mediaType,
        'content-disposition': `attachment; filename="${file.name}"`,
        'cache-control': 'no-store',
        'x-robots-tag': 'noindex',
      },
    });
  }
  const page = await orRefuse(readShared(db, writes, params.secret, url.pathname));
  return page === undefined ? closed() : plainPage(page);
};
