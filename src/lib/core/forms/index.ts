import { z } from 'zod';
import { changeProblem, CSL_TYPES, isTextVariable } from '../source';
import { nfc } from '../text';

/** A project: its name, and the style and language it prints in. */
export const projectWords = z.object({
  name: z.string().trim().min(1, 'A project needs a name').max(200),
  style: z.string().max(200),
  locale: z.string().max(20),
  /** What is placed in a section stands first there, not last. */
  newFirst: z.boolean().optional(),
});
export type ProjectWords = z.infer<typeof projectWords>;

const field = z.string().max(60);

/** A capture preset. `defaults` fill fields that a capture leaves empty. */
export const presetWords = z.strictObject({
  name: z.string().trim().min(1, 'A preset needs a name').max(120).transform(nfc),
  projectId: z.string().max(60).nullable(),
  sectionId: z.string().max(60).nullable(),
  type: z.enum(CSL_TYPES).nullable(),
  asked: z.array(field).max(60),
  defaults: z.record(
    field.refine((f) => Boolean(isTextVariable(f)), 'Only fields of text can have a default'),
    z.string().trim().max(2_000).transform(nfc),
  ),
  tags: z.array(z.string().trim().min(1).max(120).transform(nfc)).max(50),
  keepPage: z.boolean(),
  keepPdf: z.boolean(),
});
export type PresetWords = z.infer<typeof presetWords>;

/** A source that is started by hand: its kind, and what is known of it already. */
export const byHandWords = z.object({
  type: z.enum(CSL_TYPES),
  title: z.string().max(4_000).optional(),
  URL: z.string().max(4_000).optional(),
  DOI: z.string().max(400).optional(),
  ISBN: z.string().max(40).optional(),
  PMID: z.string().max(20).optional(),
});
export type ByHandWords = z.infer<typeof byHandWords>;

const changedField = z.string().max(60);
/** What is done to one field of many sources. */
export const fieldChangeWords = z
  .discriminatedUnion('act', [
    z.strictObject({
      act: z.literal('set'),
      field: changedField,
      value: z.string().max(4_000).transform(nfc),
    }),
    z.strictObject({ act: z.literal('clear'), field: changedField }),
    z.strictObject({
      act: z.literal('replace'),
      field: changedField,
      find: z.string().max(400).transform(nfc),
      by: z.string().max(400).transform(nfc),
      exact: z.boolean(),
    }),
  ])
  .superRefine((change, ctx) => {
    const problem = changeProblem(change);
    if (problem) ctx.addIssue({ code: 'custom', message: problem });
  });

export {
  accountChange,
  accountWords,
  codeAsked,
  forgottenWords,
  newPhrase,
  passkeyWords,
  phraseAsked,
  phraseChange,
  signInWords,
  tokenWords,
} from './accounts';
export { invitationWords, libraryWords, memberWords, roleWords } from './members';
export {
  choiceChange,
  choiceWords,
  MOST_CANDIDATES,
  MOST_ORDERED,
  voteWords,
  type ChoiceWords,
} from './choices';
export { leadWords, queryWords, replyText, taskWords, versionWords } from './kept';
export { orcidWords, renameWords } from './people';
export { tagName, tagRenamed, tagWords } from './tags';
export { shareWords, type ShareWords } from './shares';
