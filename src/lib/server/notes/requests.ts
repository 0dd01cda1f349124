import { z } from 'zod';
import { noteContent } from '../../core/notes';
import { TAG_TINTS } from '../../core/source';
import { nfc } from '../../core/text';

/** What a person says of a note. */
export const noteWords = z.strictObject({
  /** Its words; of a note that has a look they follow from how it is written. */
  body: z.string().max(100_000).transform(nfc).default(''),
  content: noteContent.nullable().default(null),
  tint: z.enum(TAG_TINTS).nullable().default(null),
  projectId: z.string().max(60).nullable(),
  sourceId: z.string().max(60).nullable(),
  visibility: z.enum(['private', 'library']).default('library'),
  /** Who sees it too where it is private, by id. */
  shownTo: z.array(z.string().max(60)).max(200).default([]),
});
export type NoteWords = z.input<typeof noteWords>;

/** What is changed of a note; what is not named stays. */
export const noteChange = z
  .strictObject({
    body: noteWords.shape.body.unwrap(),
    content: noteWords.shape.content.unwrap(),
    tint: noteWords.shape.tint.unwrap(),
    projectId: noteWords.shape.projectId,
    sourceId: noteWords.shape.sourceId,
    visibility: noteWords.shape.visibility.unwrap(),
    shownTo: noteWords.shape.shownTo.unwrap(),
  })
  .partial();

/** A change of a note, made on revision `base`. */
export const noteEdit = z.object({ base: z.number().int(), change: noteChange });

/** Words of what is to be named. */
export const namingWords = z.object({ words: z.string().max(200) });
