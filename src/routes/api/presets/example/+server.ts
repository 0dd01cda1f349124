import { z } from 'zod';
import { presetWords } from '$lib/core/forms';
import { fieldsFor, presetExample } from '$lib/server/presets';
import { asks } from '../../../answer';
import { lookOf } from '../../../look';

/** What a preset being made would do, and the fields it can ask for; it need not have a name yet. */
export const POST = asks(presetWords.extend({ name: z.string().max(120) }), async (said, ctx, { locals }) => {
  const look = await lookOf(locals);
  const [example, fields] = await Promise.all([
    presetExample(ctx, said, look),
    fieldsFor(ctx, look, said.type),
  ]);
  return { ...(example ? { example } : {}), fields };
});
