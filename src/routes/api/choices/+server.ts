import { json, type RequestHandler } from '@sveltejs/kit';
import { choiceWords } from '$lib/core/forms';
import { addChoice, listChoices } from '$lib/server/choosing';
import { changes } from '../../answer';

/** The choices of the library. */
export const GET: RequestHandler = async ({ locals }) => json(await listChoices(locals.ctx));

/** Asks members to choose among sources. */
export const POST = changes(choiceWords, (said, ctx) => addChoice(ctx, said));
