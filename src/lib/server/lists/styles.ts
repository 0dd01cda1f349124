import { localeFile, shippedStyle } from '../catalogue';
import type { Context } from '../access/context';
import { change } from '../access/change';
import { keepFile } from '../files/store';
import { Refusal } from '../access/refusal';
import { styleName, styleOf } from './catalogue';
import { forgetPrinted } from './printing';
import { keepOwnStyle, setFavourite, takeOutOwnStyle } from './repository';
import { textOfBytes } from '../../reading/text';
import { readStyle } from '../workers/pools';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['styles'] } as const;

/**
 * Takes in a style a person brings; refuses one the schema or the processor does not accept, with each problem and its
 * line. One that only points at a style of the catalogue gives that style, and `of` says whose look it is.
 */
export async function bringStyle(
  ctx: Context,
  bytes: Uint8Array,
  name: string,
): Promise<{ id: string; title: string; of?: string }> {
  const read = await readStyle(textOfBytes(bytes), localeFile('en-US'));
  if (read.problems)
    throw new Refusal(
      422,
      `${name} is no style that can be used:`,
      read.problems.slice(0, 20).map((p) => `line ${p.line}: ${p.text}`),
    );
  if (read.parent !== undefined) {
    const id = read.parent.replace(/^.*\//, '');
    if (!shippedStyle(id))
      throw new Refusal(
        422,
        `${name} only points at another style, ${read.parent}, which is not in the catalogue. Bring that one.`,
      );
    return { id, title: await styleName(ctx, id), of: read.title };
  }
  const sha256 = await keepFile(Buffer.from(bytes));
  return change(ctx, CHANGE, async (inner) => {
    const style = await keepOwnStyle(inner, { title: read.title, sha256, facts: read.facts });
    // What was printed in a style of this name may print otherwise now.
    await forgetPrinted(inner, style.id);
    return style;
  });
}

/** Keeps a style at hand or no longer; takes an own style out of the catalogue. */
export const changeStyle = (
  ctx: Context,
  {
    style,
    favourite,
    takeOut,
  }: { style: string; favourite?: boolean | undefined; takeOut?: true | undefined },
): Promise<void> =>
  change(ctx, CHANGE, async (inner) => {
    if (takeOut) await takeOutOwnStyle(inner, style);
    if (favourite === undefined) return;
    await styleOf(inner, style);
    await setFavourite(inner, style, favourite);
  });
