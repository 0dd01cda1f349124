import { keepLeads, newLeads } from '$lib/server/services/leads';
import { answer } from '../../answer';

/** Keeps pasted references as leads. */
export const POST = answer(newLeads, async (given, ctx) => ({ leads: await keepLeads(ctx, given) }));
