import { z } from 'zod';
import { nfc } from '../text';

const id = z.string().min(1).max(60);

/** A link to read: what it opens, what is shown with it, and for how many days, or until it is withdrawn. */
export const shareWords = z.strictObject({
  of: z.discriminatedUnion('what', [
    z.strictObject({ what: z.literal('project'), projectId: id }),
    z.strictObject({ what: z.literal('section'), sectionId: id }),
    z.strictObject({ what: z.literal('list'), ids: z.array(id).min(1).max(5_000) }),
  ]),
  /** What stands on top of the page, and in the list of links. */
  name: z.string().trim().min(1, { message: 'Say what it is called.' }).max(200).transform(nfc),
  documents: z.boolean(),
  passages: z.boolean(),
  days: z.number().int().min(1).max(3_650).nullable(),
});
export type ShareWords = z.infer<typeof shareWords>;
