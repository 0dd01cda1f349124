import { z } from 'zod';
import type { CiteItem, Run } from '../../core/citing';
import {
  passagesDocument,
  passagesToCsv,
  passagesToHtml,
  passagesToMarkdown,
  passagesToText,
  type FigureOut,
  type OutLayout,
  type PassageOut,
  type PassagesOut,
} from '../../core/passages-out';
import { scoped, type Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { inParts } from '../db/ids';
import { threadsOf } from '../replies';
import { printCitations, printList, type Look } from '../lists/printing';
import { getSources } from '../sources/repository';
import { drawnFigure } from './figures';
import { itemsOf, type PassageItem } from './listing';
import { getPassages } from './repository';
import { passageIds } from './requests';

/** Ways passages are written out. */
export const PASSAGE_OUTPUTS = ['docx', 'html', 'markdown', 'text', 'csv'] as const;
/** Ways in which pictures are written. */
const PICTURED: ReadonlySet<PassageOutput> = new Set(['docx', 'html', 'markdown']);
export type PassageOutput = (typeof PASSAGE_OUTPUTS)[number];

/** Passages to write out, in this order, and how. */
export const outRequest = z.strictObject({
  ids: passageIds,
  as: z.enum(PASSAGE_OUTPUTS),
  layout: z.enum(['beside', 'below']).default('beside'),
  title: z.string().trim().max(300).default('Passages'),
  /** What was said to them goes out too. */
  replies: z.boolean().optional(),
});

/** Passages for the clipboard, in this order. */
export const copyRequest = z.strictObject({
  ids: passageIds,
  layout: z.enum(['beside', 'below']).default('below'),
});

/** Addresses of copies, by id. */
async function addressesOf(ctx: Context, ids: string[]): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  for (const part of inParts(ids))
    for (const { id, address } of (await scoped(ctx, 'copy').whereIn('id', part).select('id', 'address')) as {
      id: string;
      address: string;
    }[])
      found.set(id, address);
  return found;
}

/** Most figures written out at once with their pictures. */
const MOST_FIGURES = 300;

/** The figures among passages as they are written out, by the id of the passage, with their pictures or without. */
async function figuresOut(items: readonly PassageItem[], pictures: boolean): Promise<Map<string, FigureOut>> {
  const figures = items.filter((p) => p.figure);
  if (pictures && figures.length > MOST_FIGURES)
    throw new Refusal(
      422,
      `${figures.length.toLocaleString('en')} figures are chosen; at most ${MOST_FIGURES} are written at once with their pictures. Choose fewer.`,
    );
  const out = new Map<string, FigureOut>();
  for (const { id, figure } of figures) {
    if (!figure) continue;
    const { number, alt, drawing, image } = figure;
    const drawn = pictures ? await drawnFigure(figure) : undefined;
    out.set(id, {
      number,
      alt,
      drawing,
      png: drawn?.png.toString('base64') ?? '',
      width: drawn?.width ?? image.width,
      height: drawn?.height ?? image.height,
    });
  }
  return out;
}

/** Living passages one may see, in the order given. Refuses where one is gone. */
export async function passagesGiven(ctx: Context, ids: readonly string[]): Promise<PassageItem[]> {
  const byId = new Map((await getPassages(ctx, ids)).filter((p) => !p.binned).map((p) => [p.id, p]));
  if (byId.size !== new Set(ids).size)
    throw new Refusal(404, 'One of these passages is no longer here. Look again and choose once more.');
  return itemsOf(
    ctx,
    [...new Set(ids)].map((id) => byId.get(id)!),
  );
}

/** A passage as a citation cites it: its source, with its place. */
export const citedFor = ({ sourceId, locator }: Pick<PassageItem, 'sourceId' | 'locator'>): CiteItem => ({
  id: sourceId,
  ...(locator ? { label: locator.label, locator: locator.value } : {}),
});

/** Passages as they are written out, each with its citation; `keys` are the citekeys of their sources. */
export async function passagesOut(
  ctx: Context,
  items: readonly PassageItem[],
  citations: readonly Run[][],
  keys: ReadonlyMap<string, string>,
  pictures: boolean,
): Promise<PassageOut[]> {
  const figures = await figuresOut(items, pictures);
  const addresses = await addressesOf(
    ctx,
    items.flatMap((p) => p.copyId ?? []),
  );
  return items.map((p, i) => ({
    kind: p.kind,
    source: p.sourceLabel,
    citekey: keys.get(p.sourceId) ?? '',
    quotation: p.wording ?? p.exact,
    exact: p.exact,
    gist: p.gist,
    ownWords: p.ownWords,
    locator: p.locator,
    citation: citations[i]!,
    tint: p.tint,
    tags: p.tags,
    sections: p.sections.map((section) => section.name),
    state: p.anchor,
    added: p.added,
    address: (p.copyId && addresses.get(p.copyId)) ?? '',
    figure: figures.get(p.id) ?? null,
  }));
}

/** Citations of some sources in a style, told apart and numbered as they are first cited, and their reference list. */
export async function citedInOrder(
  ctx: Context,
  cited: readonly CiteItem[],
  look: Look,
): Promise<{ keys: Map<string, string>; citations: Run[][]; references: PassagesOut['references'] }> {
  const order = [...new Set(cited.map((cite) => cite.id))];
  const found = new Map((await getSources(ctx, order)).map((s) => [s.id, s]));
  const sources = order.flatMap((id) => found.get(id) ?? []);
  const references = await printList(ctx, sources, look, 'passages');
  return {
    keys: new Map(sources.map((s) => [s.id, s.citekey])),
    citations: await printCitations(
      ctx,
      sources,
      cited.map((cite) => [cite]),
      look,
    ),
    references: references.hasList
      ? { ...references, entries: references.entries.filter((e) => e.failed === undefined) }
      : undefined,
  };
}

/** Passages with their citations in a style, and the reference list of their sources. Refuses where one is gone. */
async function gathered(
  ctx: Context,
  ids: readonly string[],
  look: Look,
  title: string,
  { pictures, replies = false }: { pictures: boolean; replies?: boolean | undefined },
): Promise<PassagesOut> {
  const items = await passagesGiven(ctx, ids);
  const { keys, citations, references } = await citedInOrder(ctx, items.map(citedFor), look);
  const threads = replies ? await threadsOf(ctx, ids) : undefined;
  const passages = (await passagesOut(ctx, items, citations, keys, pictures)).map((passage, i) => ({
    ...passage,
    replies: (threads?.get(items[i]!.id)?.replies ?? []).map(({ owner, text }) => ({ by: owner, text })),
  }));
  return { title, lang: look.locale, references, passages };
}

/** Passages as a file, in the order given, cited in a style. */
export async function writePassages(ctx: Context, given: z.infer<typeof outRequest>, look: Look) {
  const out = await gathered(ctx, given.ids, look, given.title || 'Passages', {
    pictures: PICTURED.has(given.as),
    replies: given.replies,
  });
  const file = (extension: string, mediaType: string, body: string) => ({
    name: `passages.${extension}`,
    mediaType,
    body,
    binary: false,
  });
  switch (given.as) {
    case 'docx':
      return {
        name: 'passages.docx',
        mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
        body: (await (await import('./docx')).passagesDocx(out, given.layout)).toString('base64'),
        binary: true,
      };
    case 'html':
      return file('html', 'text/html; charset=utf-8', passagesDocument(out, given.layout));
    case 'markdown':
      return file('md', 'text/markdown; charset=utf-8', passagesToMarkdown(out, given.layout));
    case 'text':
      return file('txt', 'text/plain; charset=utf-8', passagesToText(out));
    case 'csv':
      return file('csv', 'text/csv; charset=utf-8', passagesToCsv(out.passages));
  }
}

/** Passages for the clipboard: as plain text and as rich text. */
export async function passagesToCopy(
  ctx: Context,
  ids: readonly string[],
  look: Look,
  layout: OutLayout,
): Promise<{ plain: string; rich: string }> {
  const out = await gathered(ctx, ids, look, 'Passages', { pictures: true });
  return { plain: passagesToText(out), rich: passagesToHtml(out, layout) };
}
