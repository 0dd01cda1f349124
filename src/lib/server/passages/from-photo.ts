import { linesOf } from '../../core/documents';
import { squash } from '../../core/text';
import { sniffBytes } from '../../reading/sniff';
import { checkRight } from '../access/change';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { config } from '../config';
import { read } from '../workers/pools';

/** The lines of text in a photo of a page, from above; nothing is kept of it. Refuses what is no picture that can be opened. */
export async function linesInPhoto(ctx: Context, bytes: Uint8Array): Promise<string[]> {
  checkRight(ctx, 'edit');
  if (!/^image\/(?:png|jpeg|webp|gif)$/.test(sniffBytes(bytes)))
    throw new Refusal(415, 'This is no picture that can be opened. PNG, JPEG, WebP and GIF can.');
  const { leaf } = await read({ task: 'scan', bytes, languages: config.recognised });
  return linesOf(leaf)
    .map(({ text }) => squash(text))
    .filter(Boolean);
}
