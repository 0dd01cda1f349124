import { changeLead, leadAct } from '$lib/server/services/leads';
import { answer, idOf } from '../../../answer';

/** Ticks a lead off, opens it again, bins it, or notes where it was met. */
export const POST = answer(leadAct, (given, ctx, event) => changeLead(ctx, idOf(event), given));
