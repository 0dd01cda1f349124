import { z } from 'zod';
import { presetWords } from '../../core/forms';

/** A preset as it is from now on, or that it is taken away. */
export const presetChange = z.union([z.object({ remove: z.literal(true) }), presetWords]);

/** A preset that is being made; it need not have a name yet. */
export const presetTried = presetWords.extend({ name: z.string().max(120) });
