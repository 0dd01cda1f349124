import { changeLead, leadAct } from '$lib/server/leads';
import { changes, idOf } from '../../../answer';

/** Ticks a lead off, opens it again, bins it, or notes where it was met. */
export const POST = changes(leadAct, (given, ctx, event) => changeLead(ctx, idOf(event), given));
