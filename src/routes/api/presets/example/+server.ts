import { z } from 'zod';
import { presetWords } from '$lib/server/repositories/presets';
import { fieldsFor, presetExample } from '$lib/server/services/presets';
import { answer } from '../../../answer';
import { lookOf } from '../../../look';

/** What a preset being made would do, and the fields it can ask for; it need not have a name yet. */
export const POST = answer(
  presetWords.extend({ name: z.string().max(120) }),
  async (said, ctx, { locals }) => {
    const look = await lookOf(locals);
    const [example, fields] = await Promise.all([presetExample(ctx, said, look), fieldsFor(look, said.type)]);
    return { ...(example ? { example } : {}), fields };
  },
);
