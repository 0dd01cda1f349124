import { z } from 'zod';

/** The look of a stretch of words. */
export type NoteMark =
  { type: 'bold' | 'italic' | 'underline' | 'strike' } | { type: 'link'; attrs: { href: string } };

/** A source or a note that is named. `label` is what a source is called; of a note nothing is kept but its id. */
export interface Named {
  kind: 'source' | 'note';
  id: string;
  label: string;
}

/** What a line of a note is made of. */
export type NoteInline =
  | { type: 'text'; text: string; marks?: NoteMark[] | undefined }
  | { type: 'hardBreak' }
  | { type: 'named'; attrs: Named };

/** What a note is made of. */
export type NoteBlock =
  | { type: 'paragraph'; content?: NoteInline[] | undefined }
  | { type: 'bulletList' | 'orderedList' | 'listItem' | 'blockquote'; content: NoteBlock[] };

/** A note as it is written, from its first block to its last. */
export type NoteContent = NoteBlock[];

/** How deep lists and quotations may stand in each other. */
const DEEPEST = 12;
/** Longest a note may be, in characters of its words. */
const LONGEST = 100_000;

const mark: z.ZodType<NoteMark> = z.discriminatedUnion('type', [
  z.object({ type: z.enum(['bold', 'italic', 'underline', 'strike']) }),
  z.object({
    type: z.literal('link'),
    attrs: z.object({
      href: z
        .string()
        .max(4_000)
        .regex(/^(?:https?:|mailto:)/i, 'A link begins with http, https or mailto'),
    }),
  }),
]);
const inline: z.ZodType<NoteInline> = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('text'),
    text: z.string().min(1).max(LONGEST),
    marks: z.array(mark).max(8).optional(),
  }),
  z.object({ type: z.literal('hardBreak') }),
  z.object({
    type: z.literal('named'),
    attrs: z.object({
      kind: z.enum(['source', 'note']),
      id: z.string().min(1).max(60),
      label: z.string().max(400).default(''),
    }),
  }),
]);
const block: z.ZodType<NoteBlock> = z.lazy(() =>
  z.discriminatedUnion('type', [
    z.object({ type: z.literal('paragraph'), content: z.array(inline).max(20_000).optional() }),
    z.object({
      type: z.enum(['bulletList', 'orderedList', 'listItem', 'blockquote']),
      content: z.array(block).max(5_000),
    }),
  ]),
);

const deep = (blocks: NoteBlock[], left = DEEPEST): boolean =>
  left < 0 || blocks.some((one) => one.type !== 'paragraph' && deep(one.content, left - 1));
/** How deep plain data is, looked at no further than `most`. */
const deeper = (value: unknown, most: number): boolean =>
  typeof value === 'object' &&
  value !== null &&
  (most === 0 || Object.values(value).some((part) => deeper(part, most - 1)));

/** What a note can be made of. What is nested too deep is refused before it is read. */
export const noteContent = z
  .unknown()
  .refine((value) => !deeper(value, 4 * DEEPEST), 'Lists and quotations stand too deep in each other')
  .pipe(z.array(block).max(5_000))
  .refine((blocks) => !deep(blocks), 'Lists and quotations stand too deep in each other')
  .refine(
    (blocks) => deep(blocks) || plainOf(blocks).length <= LONGEST,
    `A note has at most ${LONGEST.toLocaleString('en')} characters`,
  ) as unknown as z.ZodType<NoteContent, NoteContent>;

const lineOf = (inlines: readonly NoteInline[] = []): string =>
  inlines
    .map((one) => {
      if (one.type === 'text') return one.text;
      if (one.type === 'hardBreak') return '\n';
      return one.attrs.label || (one.attrs.kind === 'note' ? 'another note' : 'a source');
    })
    .join('');

const indented = (text: string, first: string): string => first + text.replace(/\n/g, '\n  ');

/** The words of a note without their look: a blank line between blocks, items of lists with a dash or their number. */
export function plainOf(content: NoteContent): string {
  return content
    .map((one) => {
      switch (one.type) {
        case 'paragraph':
          return lineOf(one.content);
        case 'bulletList':
          return one.content.map((item) => indented(plainOf([item]), '- ')).join('\n');
        case 'orderedList':
          return one.content.map((item, i) => indented(plainOf([item]), `${i + 1}. `)).join('\n');
        case 'listItem':
          return one.content.map((part) => plainOf([part])).join('\n');
        case 'blockquote':
          return indented(plainOf(one.content), '> ').replace(/\n {2}/g, '\n> ');
      }
    })
    .join('\n\n');
}

/** Words typed without an editor, as an editor has them: a blank line ends a paragraph. */
export const contentOf = (words: string): NoteContent =>
  words
    .trim()
    .split(/\n[^\S\n]*\n\s*/)
    .map((paragraph) => ({
      type: 'paragraph',
      content: paragraph
        .split('\n')
        .flatMap((line, i): NoteInline[] => [
          ...(i ? [{ type: 'hardBreak' } as const] : []),
          ...(line ? [{ type: 'text', text: line } as const] : []),
        ]),
    }));

const isPlain = (content: NoteContent): boolean =>
  content.every(
    (one) =>
      one.type === 'paragraph' &&
      (one.content ?? []).every(
        (part) => part.type === 'hardBreak' || (part.type === 'text' && !part.marks?.length),
      ),
  );

/** What is kept of a note beside its words: nothing where they have no look and name nothing. */
export const asContent = (content: NoteContent): NoteContent | null => (isPlain(content) ? null : content);

/** What a note names, each once, in order. */
export function namedIn(content: NoteContent): Named[] {
  const found = new Map<string, Named>();
  const walk = (blocks: NoteContent): void => {
    for (const one of blocks)
      if (one.type !== 'paragraph') walk(one.content);
      else
        for (const part of one.content ?? [])
          if (part.type === 'named' && !found.has(part.attrs.id)) found.set(part.attrs.id, part.attrs);
  };
  walk(content);
  return [...found.values()];
}

/** A note with what it names called otherwise; what is given no name becomes the words it was called by. */
export function renamed(content: NoteContent, name: (named: Named) => string | undefined): NoteContent {
  const inlines = (all: readonly NoteInline[]): NoteInline[] =>
    all.flatMap((one): NoteInline[] => {
      if (one.type !== 'named') return [one];
      const label = name(one.attrs);
      if (label !== undefined) return [{ type: 'named', attrs: { ...one.attrs, label } }];
      const text = lineOf([one]);
      return [{ type: 'text', text }];
    });
  return content.map((one) =>
    one.type === 'paragraph'
      ? one.content
        ? { ...one, content: inlines(one.content) }
        : one
      : { ...one, content: renamed(one.content, name) },
  );
}
