import { z } from 'zod';
import { nfc } from '../text';

/** Something to do: what, and by when if one likes (a day, `YYYY-MM-DD`). */
export const taskWords = z.strictObject({
  text: z.string().trim().min(1, { message: 'Say what is to be done.' }).max(2_000).transform(nfc),
  due: z.iso.date({ message: 'The day is written YYYY-MM-DD.' }).nullable(),
});

/** Works met while reading, as they are pasted: one or many, told apart when they are kept. */
export const leadWords = z.strictObject({
  text: z.string().trim().min(1, { message: 'Paste a reference first.' }).max(200_000),
});

/** What a query is kept by. */
export const queryWords = z.strictObject({
  name: z.string().trim().min(1, 'A query is kept by a name').max(80),
});

/** What a version of a draft is kept by. */
export const versionWords = z.strictObject({
  name: z.string().trim().min(1, 'A version has a name').max(200),
});

/** What is said to a passage. */
export const replyText = z.strictObject({
  text: z.string().trim().min(1, { message: 'Write what you want to say.' }).max(10_000).transform(nfc),
});
