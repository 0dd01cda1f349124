import { localeFile, type OwnStyle } from '../catalogue';
import type { Context } from '../context';
import { tell } from '../events';
import { keepFile } from '../files/store';
import { Refusal } from '../refusal';
import { keepOwnStyle } from '../repositories/styles';
import { textOfBytes } from '../../reading/text';
import { readStyle } from '../workers/pools';

/** Takes in a style a person brings; refuses one the schema or the processor does not accept, with each problem and its line. */
export async function bringStyle(ctx: Context, bytes: Uint8Array, name: string): Promise<OwnStyle> {
  const read = await readStyle(textOfBytes(bytes), localeFile('en-US'));
  if (read.problems)
    throw new Refusal(
      422,
      `${name} is no style that can be used:`,
      read.problems.slice(0, 20).map((p) => `line ${p.line}: ${p.text}`),
    );
  const sha256 = await keepFile(Buffer.from(bytes));
  const style = await keepOwnStyle(ctx, { title: read.title.slice(0, 200), sha256, facts: read.facts });
  // What was printed in a style of this name may print otherwise now.
  await ctx.db('printed').where({ style: style.id }).delete();
  tell(ctx.libraryId, { kind: 'changed' });
  return style;
}
