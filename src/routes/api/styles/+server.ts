import { json } from '@sveltejs/kit';
import { bringStyle, changeStyle, findStyles, styleChange } from '$lib/server/lists';
import { changes, takesFile } from '../../answer';
import type { RequestHandler } from './$types';

/** Styles by name, by how they cite, by field of study. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const given = (name: string) => (url.searchParams.get(name) ?? '').slice(0, 200);
  const query = { words: given('q'), format: given('format'), field: given('field') };
  return json(await findStyles(locals.ctx, query));
};

/** Takes in a person's own style: the body is the .csl file, its name is in the address. */
export const POST = takesFile(async (bytes, ctx, { url }) => {
  const name = (url.searchParams.get('name') || 'the file').slice(0, 200);
  const { id, title, of } = await bringStyle(ctx, bytes, name);
  return { id, title, of };
});

/** Keeps a style at hand or no longer; takes an own style out of the catalogue. */
export const PATCH = changes(styleChange, (given, ctx) => changeStyle(ctx, given));
