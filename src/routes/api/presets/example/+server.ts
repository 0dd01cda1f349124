import { fieldsFor, presetExample, presetTried } from '$lib/server/presets';
import { asks } from '../../../answer';
import { lookOf } from '../../../look';

/** What a preset being made would do, and the fields it can ask for; it need not have a name yet. */
export const POST = asks(presetTried, async (said, ctx, { locals }) => {
  const look = await lookOf(locals);
  const [example, fields] = await Promise.all([
    presetExample(ctx, said, look),
    fieldsFor(ctx, look, said.type),
  ]);
  return { ...(example ? { example } : {}), fields };
});
