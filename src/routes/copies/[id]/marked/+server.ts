import { markedPdf } from '$lib/server/passages';
import { orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** The PDF of a copy with its passages saved in it as annotations. */
export const GET: RequestHandler = async ({ params, locals }) => {
  const { bytes, name } = await orRefuse(markedPdf(locals.ctx, params.id));
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(name)}`,
      'content-security-policy': "default-src 'none'; sandbox",
      'cache-control': 'no-store',
    },
  });
};
