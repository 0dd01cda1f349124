import { z } from 'zod';

/** The colours a tag can have. */
export const TAG_TINTS = ['ochre', 'moss', 'lagoon', 'heather', 'brick', 'slate'] as const;
export type TagTint = (typeof TAG_TINTS)[number];
/** The patterns its colour is laid on in, so that no tag is told by colour alone. */
export const TAG_PATTERNS = ['full', 'stripes', 'dots', 'chequers'] as const;
export type TagPattern = (typeof TAG_PATTERNS)[number];

/** How a tag looks wherever it stands, and what it belongs to among the tags; nothing where that was not said. */
export const tagLook = z.strictObject({
  tint: z.enum(TAG_TINTS).nullable(),
  pattern: z.enum(TAG_PATTERNS),
  group: z
    .string()
    .trim()
    .max(80)
    .transform((text) => text.replace(/\s+/g, ' ') || null)
    .nullable(),
});
export type TagLook = z.output<typeof tagLook>;

/** A tag of which nothing was said. */
export const PLAIN_LOOK: TagLook = { tint: null, pattern: 'full', group: null };
