import type { TracedPrint } from '../../core/citing';
import { toCsl } from '../../core/source';
import type { Context } from '../access/context';
import type { Source } from '../sources/repository';
import { print } from '../workers/pools';
import { styleOf, styleName } from './catalogue';
import { printingIn, type Look } from './printing';

/** What a style prints of some sources, and which of its elements printed each stretch. */
export interface TracedStyle extends TracedPrint {
  style: string;
  title: string;
}

/** Prints sources one by itself after the other, with the elements of the style each stretch came through. Not cached. */
export async function printTraced(ctx: Context, sources: Source[], look: Look): Promise<TracedStyle> {
  await styleOf(ctx, look.style);
  const items = sources.map((source) => toCsl(source.id, source.record));
  const traced = await print({ ...(await printingIn(ctx, look)), items, what: 'traced' });
  return { ...traced, style: look.style, title: await styleName(ctx, look.style) };
}
