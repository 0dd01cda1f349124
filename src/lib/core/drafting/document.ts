import { z } from 'zod';
import { citedWork, type CitedWork } from './cites';

/** How deep what stands in a part may stand in itself. */
const DEEPEST = 40;
/** Longest a part may be, in characters of JSON. */
export const LONGEST_PART = 500_000;
const id = z.string().min(1).max(60);

/** The look of a stretch of text, what it is of, and what one says of it to oneself. */
export type Mark =
  | { type: 'bold' | 'italic' | 'underline' | 'strike' | 'code' }
  | { type: 'link'; attrs: { href: string } }
  /** It came from a passage, as its words or as one’s own. */
  | { type: 'passage'; attrs: { id: string; as: 'quotation' | 'own' } }
  /** A word to oneself, which is never printed. */
  | { type: 'remark'; attrs: { words: string } };

/** What a line of text is made of. */
export type Inline =
  | { type: 'text'; text: string; marks?: Mark[] | undefined }
  | { type: 'hardBreak' }
  /** A citation; `named`: the author of the first work stands in the sentence. */
  | { type: 'cite'; attrs: { id: string; works: CitedWork[]; named: boolean }; marks?: Mark[] | undefined }
  | { type: 'footnote'; attrs: { id: string; content: Inline[] }; marks?: Mark[] | undefined }
  /** A formula in TeX. */
  | { type: 'formula'; attrs: { tex: string }; marks?: Mark[] | undefined }
  /** What a figure, a table or a heading is called, by the id of its part. */
  | { type: 'crossref'; attrs: { to: string }; marks?: Mark[] | undefined };

/** What is said of a figure or a table: a line that may cite. Drafts written before captions could cite have words alone. */
export type Caption = string | Inline[];

/** What a draft is made of. Those at the top are its parts, and have an id. */
export type Block =
  | { type: 'paragraph'; attrs?: { id?: string | null | undefined } | undefined; content?: Inline[] | undefined }
  | {
      type: 'heading';
      /** `goal`: how many words its section is to have. `section`: the section of the outline it is. */
      attrs: { id?: string | null | undefined; level: number; goal?: number | null | undefined; section?: string | null | undefined };
      content?: Inline[] | undefined;
    }
  | {
      type: 'blockquote';
      /** `passage`: what is quoted. */
      attrs?: { id?: string | null | undefined; passage?: string | null | undefined } | undefined;
      content: Block[];
    }
  | { type: 'bulletList'; attrs?: { id?: string | null | undefined } | undefined; content: Block[] }
  | { type: 'orderedList'; attrs?: { id?: string | null | undefined; start?: number | undefined } | undefined; content: Block[] }
  | { type: 'listItem'; content: Block[] }
  | { type: 'table'; attrs?: { id?: string | null | undefined; caption?: Caption | null | undefined } | undefined; content: Block[] }
  | { type: 'tableRow'; content: Block[] }
  | {
      type: 'tableCell' | 'tableHeader';
      attrs?: { colspan?: number | undefined; rowspan?: number | undefined } | undefined;
      content: Block[];
    }
  | { type: 'codeBlock'; attrs?: { id?: string | null | undefined } | undefined; content?: Inline[] | undefined }
  | { type: 'horizontalRule'; attrs?: { id?: string | null | undefined } | undefined }
  /**
   * A figure: one that was kept as a passage, which prints with its source’s citation, or a picture of one’s own, the SHA-256 of
   * which is `picture`.
   */
  | {
      type: 'figure';
      attrs: { id?: string | null | undefined; passage?: string | null | undefined; picture?: string | null | undefined; caption: Caption; alt: string; works: CitedWork[]; cite: string };
    }
  | { type: 'formulaBlock'; attrs: { id?: string | null | undefined; tex: string } }; // prettier-ignore

const mark: z.ZodType<Mark> = z.discriminatedUnion('type', [
  z.object({ type: z.enum(['bold', 'italic', 'underline', 'strike', 'code']) }),
  z.object({
    type: z.literal('link'),
    attrs: z.object({ href: z.string().max(4_000).regex(/^(?:https?:|mailto:)/i, 'A link begins with http, https or mailto') }),
  }),
  z.object({ type: z.literal('passage'), attrs: z.object({ id, as: z.enum(['quotation', 'own']) }) }),
  z.object({ type: z.literal('remark'), attrs: z.object({ words: z.string().max(5_000) }) }),
]); // prettier-ignore
const marks = z.array(mark).max(12).optional();
const works = z.array(citedWork).max(60);
const tex = z.string().max(20_000);

const inline: z.ZodType<Inline> = z.lazy(() =>
  z.discriminatedUnion('type', [
    z.object({ type: z.literal('text'), text: z.string().min(1).max(LONGEST_PART), marks }),
    z.object({ type: z.literal('hardBreak') }),
    z.object({
      type: z.literal('cite'),
      attrs: z.object({ id, works, named: z.boolean().default(false) }),
      marks,
    }),
    z.object({ type: z.literal('footnote'), attrs: z.object({ id, content: inlines }), marks }),
    z.object({ type: z.literal('formula'), attrs: z.object({ tex }), marks }),
    z.object({ type: z.literal('crossref'), attrs: z.object({ to: id }), marks }),
  ]),
) as z.ZodType<Inline>;
const inlines = z.array(inline).max(20_000);
const caption = z.union([z.string().max(5_000), inlines]);

const partId = id.nullable().optional();
const ofPart = z.object({ id: partId }).optional();
const blocks: z.ZodType<Block[]> = z.lazy(() => z.array(block).max(5_000));
const span = z.number().int().min(1).max(100).optional();
const block: z.ZodType<Block> = z.lazy(() =>
  z.discriminatedUnion('type', [
    z.object({ type: z.literal('paragraph'), attrs: ofPart, content: inlines.optional() }),
    z.object({
      type: z.literal('heading'),
      attrs: z.object({
        id: partId,
        level: z.number().int().min(1).max(6),
        goal: z.number().int().min(1).max(10_000_000).nullable().optional(),
        section: id.nullable().optional(),
      }),
      content: inlines.optional(),
    }),
    z.object({
      type: z.literal('blockquote'),
      attrs: z.object({ id: partId, passage: id.nullable().optional() }).optional(),
      content: blocks,
    }),
    z.object({ type: z.literal('bulletList'), attrs: ofPart, content: blocks }),
    z.object({
      type: z.literal('orderedList'),
      attrs: z.object({ id: partId, start: z.number().int().optional() }).optional(),
      content: blocks,
    }),
    z.object({ type: z.literal('listItem'), content: blocks }),
    z.object({
      type: z.literal('table'),
      attrs: z.object({ id: partId, caption: caption.nullable().optional() }).optional(),
      content: blocks,
    }),
    z.object({ type: z.literal('tableRow'), content: blocks }),
    z.object({
      type: z.enum(['tableCell', 'tableHeader']),
      attrs: z.object({ colspan: span, rowspan: span }).optional(),
      content: blocks,
    }),
    z.object({ type: z.literal('codeBlock'), attrs: ofPart, content: inlines.optional() }),
    z.object({ type: z.literal('horizontalRule'), attrs: ofPart }),
    z.object({
      type: z.literal('figure'),
      attrs: z.object({
        id: partId,
        passage: id.nullable().optional(),
        picture: z
          .string()
          .regex(/^[0-9a-f]{64}$/, 'A picture is named by its SHA-256')
          .nullable()
          .optional(),
        caption: caption.default(''),
        alt: z.string().max(5_000).default(''),
        works,
        cite: id,
      }),
    }),
    z.object({ type: z.literal('formulaBlock'), attrs: z.object({ id: partId, tex }) }),
  ]),
) as z.ZodType<Block>;

/** Whether a value holds others no deeper than a draft can be. It is gone through a level at a time: depth may be hostile. */
function shallow(value: unknown): boolean {
  let level = [value];
  for (let depth = 0; level.length; depth++) {
    if (depth > DEEPEST) return false;
    level = level.flatMap((v) => (typeof v === 'object' && v !== null ? Object.values(v) : []));
  }
  return true;
}

/** What stands in a part of a draft, as the editor has it. */
export const partContent = z
  .unknown()
  .refine(shallow, 'This part stands in itself deeper than a draft can be')
  .pipe(block) as unknown as z.ZodType<Block, unknown>;

/** A part of a draft: what stands at its top, one after the other. */
export interface DraftPart {
  id: string;
  content: Block;
}

/** What stands in a block, where other blocks do. */
export const blocksIn = (given: Block): Block[] =>
  'content' in given && given.content && !HOLDS_TEXT.has(given.type) ? (given.content as Block[]) : [];

/** What a block of text says. */
export const inlinesIn = (given: Block): Inline[] =>
  HOLDS_TEXT.has(given.type) ? (((given as { content?: Inline[] }).content ?? []) as Inline[]) : [];

/** What is said of a figure or a table; nothing of anything else. */
export function captionIn(given: Block): Inline[] {
  const caption = given.type === 'figure' || given.type === 'table' ? given.attrs?.caption : undefined;
  if (typeof caption !== 'string') return caption ?? [];
  return caption ? [{ type: 'text', text: caption }] : [];
}

const HOLDS_TEXT: ReadonlySet<Block['type']> = new Set(['paragraph', 'heading', 'codeBlock']);
