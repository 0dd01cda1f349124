import { json } from '@sveltejs/kit';
import { styleSent } from '$lib/server/lists';
import { orRefuse } from '../../../answer';
import type { RequestHandler } from './$types';

/** A style and the locale of a language, for printing in the page. */
export const GET: RequestHandler = ({ url, locals }) => {
  const given = (name: string, otherwise: string) => (url.searchParams.get(name) || otherwise).slice(0, 200);
  return orRefuse(
    styleSent(locals.ctx, { style: given('style', 'apa'), locale: given('locale', 'en-US') }),
  ).then(json);
};
