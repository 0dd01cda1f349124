import { z } from 'zod';
import { PRIORITIES, READING_STATES } from '../../core/query';
import { transaction, type Context } from '../access/context';
import { tell } from '../access/events';
import { now } from '../db/ids';
import { inTurn } from '../turns';
import { checkSources } from '../sources/repository';
import { putReading, readingOf, type Reading } from './repository';

export { readingOf, type Reading } from './repository';

const reading = {
  state: z.enum(READING_STATES).nullable().optional(),
  priority: z.enum(PRIORITIES).nullable().optional(),
};
const given = z.array(z.object({ id: z.string().max(60), ...reading })).max(20_000);

/** What is said of the reading of some sources: the same of all, or of each its own. */
export const readingSaid = z.union([
  z.strictObject({ ids: z.array(z.string().max(60)).max(20_000), ...reading }),
  z.strictObject({ each: given }),
]);

/**
 * Keeps how far the person is with some sources. It is theirs alone and changes nothing of the library: who only reads has it
 * too. What is not said stays. Gives what takes it back, of those for which it was a change.
 */
export async function keepReading(
  ctx: Context,
  said: z.infer<typeof readingSaid>,
): Promise<{ back: { each: z.infer<typeof given> } }> {
  const wanted = 'each' in said ? said.each : said.ids.map((id) => ({ ...said, id }));
  return transaction(ctx, async (inner) => {
    const ids = wanted.map(({ id }) => id);
    await checkSources(inner, ids);
    const before = await readingOf(inner, ids);
    const back: z.infer<typeof given> = [];
    const at = now();
    for await (const { id, state, priority } of inTurn(wanted)) {
      const was = before.get(id) ?? { state: null, priority: null };
      const is: Reading = {
        state: state === undefined ? was.state : state,
        priority: priority === undefined ? was.priority : priority,
      };
      if (was.state === is.state && was.priority === is.priority) continue;
      await putReading(inner, id, is, at);
      back.push({ id, ...was });
    }
    tell(inner.libraryId, 'sources');
    return { back: { each: back } };
  });
}
