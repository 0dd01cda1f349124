import { json } from '@sveltejs/kit';
import { findStyles } from '$lib/server/catalogue';
import type { RequestHandler } from './$types';

/** Styles by name. */
export const GET: RequestHandler = ({ url }) =>
  json(findStyles((url.searchParams.get('q') ?? '').slice(0, 200)));
