import { z } from 'zod';
import { ANNOTATION_KINDS } from '../../core/citing';
import { citedWork } from '../../core/drafting';
import { LOCATOR_LABELS } from '../../core/passages';
import { ids } from '../requests';
import { OUTPUTS } from './outputs';

/** How references print: the style and the language. */
export const look = z.object({ style: z.string().max(200), locale: z.string().max(20) });

/** What a list or a file is of. */
export const scope = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('library') }),
  z.object({ kind: z.literal('project'), projectId: z.string() }),
  z.object({ kind: z.literal('section'), sectionId: z.string().max(60) }),
  z.object({ kind: z.literal('tag'), tag: z.string().max(120), projectId: z.string().max(60).optional() }),
  z.object({ kind: z.literal('selection'), ids }),
]);

/** How a list is set. */
export const setting = z.object({
  heading: z.string().trim().max(200).optional(),
  group: z.enum(['kind', 'section']).optional(),
  annotate: z.array(z.enum(ANNOTATION_KINDS)).optional(),
});

/** A reference list that a view shows. */
export const listAsked = z.object({ view: z.string().max(60), scope, look, setting: setting.default({}) });

/** What tells the works of a list apart. */
export const toldAsked = z.object({ scope, look });

/** A manuscript, in Markdown. */
export const manuscriptAsked = z.object({ text: z.string().max(5_000_000) });

/** A work as it is cited, with its place. */
export const workCited = citedWork.extend({ label: z.enum(LOCATOR_LABELS).optional() });

/** A citation of works; `named`: the author of the first stands in the sentence. */
export const citationAsked = z.object({
  works: z.array(workCited).min(1).max(50),
  named: z.boolean().default(false),
});

/** Sources whose references are printed, in another look than the usual when asked. */
export const printedAsked = z.object({ ids, look: look.optional() });

/** A scope that goes out as a file. */
export const exportAsked = z.object({ scope, look, output: z.enum(OUTPUTS), setting: setting.optional() });

/** A style that is kept at hand or no longer, or an own one that is taken out. */
export const styleChange = z.object({
  style: z.string().max(200),
  favourite: z.boolean().optional(),
  takeOut: z.literal(true).optional(),
});
