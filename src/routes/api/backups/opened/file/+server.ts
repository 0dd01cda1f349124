import { json } from '@sveltejs/kit';
import { checkKeeper, openBrought } from '$lib/server/backup';
import { orRefuse } from '../../../../answer';
import type { RequestHandler } from './$types';

/** Opens a backup whose file is sent, such as one of another server. Its bytes are kept as they come, however many there are. */
export const POST: RequestHandler = async ({ request, url, locals }) => {
  await orRefuse(
    (async () => {
      checkKeeper(locals.asker);
      const name = (url.searchParams.get('name') ?? '').slice(0, 200) || 'A file';
      await openBrought(name, request.body);
    })(),
  );
  return json({});
};
