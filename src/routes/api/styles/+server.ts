import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { findStyles, styleOf } from '$lib/server/catalogue';
import { favouriteStyles, setFavourite, takeOutOwnStyle } from '$lib/server/repositories/styles';
import { bringStyle } from '$lib/server/services/styles';
import { tell } from '$lib/server/events';
import { answer, answerFile } from '../../answer';
import type { RequestHandler } from './$types';

/** Styles by name, by how they cite, by field of study. */
export const GET: RequestHandler = async ({ url, locals }) => {
  const given = (name: string) => (url.searchParams.get(name) ?? '').slice(0, 200);
  const query = { words: given('q'), format: given('format'), field: given('field') };
  return json(findStyles(query, locals.ctx.libraryId, await favouriteStyles(locals.ctx)));
};

/** Takes in a person's own style: the body is the .csl file, its name is in the address. */
export const POST = answerFile(async (bytes, ctx, { url }) => {
  const name = (url.searchParams.get('name') || 'the file').slice(0, 200);
  const { id, title, of } = await bringStyle(ctx, bytes, name);
  return { id, title, of };
});

const change = z.object({
  style: z.string().max(200),
  favourite: z.boolean().optional(),
  takeOut: z.literal(true).optional(),
});

/** Keeps a style at hand or no longer; takes an own style out of the catalogue. */
export const PATCH = answer(change, async ({ style, favourite, takeOut }, ctx) => {
  if (takeOut) await takeOutOwnStyle(ctx, style);
  if (favourite !== undefined) {
    styleOf(style);
    await setFavourite(ctx, style, favourite);
  }
  tell(ctx.libraryId, { kind: 'changed' });
});
