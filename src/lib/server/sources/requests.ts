import { z } from 'zod';
import { fieldChangeWords, tagName } from '../../core/forms';
import { CITEKEY_BETWEEN, CITEKEY_PARTS, credibility, translations } from '../../core/source';
import { ids } from '../requests';

/** How citekeys are made. */
export const citekeyPatternAsked = z.object({
  parts: z.array(z.enum(CITEKEY_PARTS)).min(1, 'A citekey needs a part').max(6),
  between: z.enum(CITEKEY_BETWEEN),
});

/** Citekeys as a pattern would make them. */
export const citekeysTried = z.object({ pattern: citekeyPatternAsked, ids });

/** The pattern of citekeys, and whose are made anew. */
export const citekeysMade = z.object({ pattern: citekeyPatternAsked, renew: ids.optional() });

/** What is taken back, by the revisions made. */
export const undone = z.object({ revisions: ids });

/** The source a page looks at, or none any more. */
export const lookingAt = z.object({ page: z.string().min(1).max(40), source: z.string().max(60).nullable() });

/** A change of a field that is tried on sources. */
export const fieldChangeTried = z.object({ ids, change: fieldChangeWords });

/** What is changed of many sources. */
export const sourcesEdit = z.object({
  ids,
  tag: tagName.optional(),
  fix: z.boolean().optional(),
  checked: z.boolean().optional(),
  change: fieldChangeWords.optional(),
});

/** What is copied of sources, a line each. */
export const linesAsked = z.object({ ids, what: z.enum(['addresses', 'titles with notes']) });

/** An earlier revision, or one field of it, that is brought back. */
export const restoring = z.object({ number: z.number().int().min(1), field: z.string().max(60).optional() });

/** A change of a record, made on revision `base`. */
export const sourceEdit = z.object({
  base: z.number().int(),
  fields: z.record(z.string().max(60), z.unknown()).default({}),
  tags: z.array(z.string().max(120)).max(200).optional(),
  citekey: z.string().max(200).optional(),
  credibility: credibility.optional(),
  translations: translations.optional(),
  why: z.string().max(200).optional(),
});

/** Whether a source was looked at, said on revision `base`. */
export const sourceChecked = z.object({ base: z.number().int(), checked: z.boolean() });

/** An edit that is not saved yet. */
export const editTried = z.object({ fields: z.record(z.string().max(60), z.unknown()).default({}) });

/** Sources that go to the bin, or come out of it. */
export const sourcesBinned = z.object({ ids, binned: z.boolean() });
