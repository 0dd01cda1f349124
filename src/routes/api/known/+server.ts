import { json } from '@sveltejs/kit';
import { knownPeople, knownValues, KNOWN_FIELDS } from '$lib/server/sources';
import type { RequestHandler } from './$types';

/** What the library holds already in a field, or its people, for typing ahead. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const field = url.searchParams.get('field') ?? '';
  const text = (url.searchParams.get('q') ?? '').slice(0, 200);
  if (field === 'people') return json({ values: await knownPeople(locals.ctx, text) });
  const known = KNOWN_FIELDS.find((f) => f === field);
  return json({ values: known ? await knownValues(locals.ctx, known, text) : [] });
};
