import { z } from 'zod';

/** How many sources can be chosen at once. */
export const MOST_IDS = 20_000;
/** Ids of what is chosen. */
export const ids = z.array(z.string().max(60)).max(MOST_IDS);

/** A request that says all by where it goes. */
export const nothing = z.strictObject({});
/** Whether something goes to the bin, or comes out of it. */
export const toBin = z.object({ binned: z.boolean() });
