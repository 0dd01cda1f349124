import { backupFile, checkKeeper } from '$lib/server/backup';
import { orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** A backup, to be saved elsewhere. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const { size, body } = await orRefuse(
    (async () => {
      checkKeeper(locals.asker);
      return backupFile(params.name);
    })(),
  );
  return new Response(body, {
    headers: {
      'content-type': 'application/x-tar',
      'content-length': String(size),
      'content-disposition': `attachment; filename="${params.name}"`,
      'cache-control': 'no-store',
    },
  });
};
