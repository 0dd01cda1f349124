import { z } from 'zod';
import { nfc } from '../text';

/** What a tag is called. */
export const tagName = z
  .string()
  .trim()
  .min(1, { message: 'A tag has a name.' })
  .max(120, { message: 'A tag is called by at most 120 characters.' })
  .transform(nfc);

/** A tag that is put on what is selected. */
export const tagWords = z.strictObject({ tag: tagName });

/** What a tag is called from now on. */
export const tagRenamed = z.strictObject({ to: tagName });
