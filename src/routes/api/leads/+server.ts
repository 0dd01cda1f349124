import { keepLeads, newLeads } from '$lib/server/leads';
import { changes } from '../../answer';

/** Keeps pasted references as leads. */
export const POST = changes(newLeads, async (given, ctx) => ({ leads: await keepLeads(ctx, given) }));
