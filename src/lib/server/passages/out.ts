import { z } from 'zod';
import type { CiteItem } from '../../core/citing';
import {
  passagesDocument,
  passagesToCsv,
  passagesToHtml,
  passagesToMarkdown,
  passagesToText,
  type FigureOut,
  type OutLayout,
  type PassagesOut,
} from '../../core/passages-out';
import { scoped, type Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { inParts } from '../db/ids';
import { printCitations, printList, type Look } from '../lists/printing';
import { getSources } from '../sources/repository';
import { passagesDocx } from './docx';
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

/** Passages with their citations in a style, and the reference list of their sources. Refuses where one is gone. */
async function gathered(
  ctx: Context,
  ids: readonly string[],
  look: Look,
  title: string,
  pictures: boolean,
): Promise<PassagesOut> {
  const byId = new Map((await getPassages(ctx, ids)).filter((p) => !p.binned).map((p) => [p.id, p]));
  if (byId.size !== new Set(ids).size)
    throw new Refusal(404, 'One of these passages is no longer here. Look again and choose once more.');
  const items = await itemsOf(
    ctx,
    [...new Set(ids)].map((id) => byId.get(id)!),
  );
  // In the order they are first cited, which is what numbers them in a style that numbers.
  const order = [...new Set(items.map((p) => p.sourceId))];
  const found = new Map((await getSources(ctx, order)).map((s) => [s.id, s]));
  const sources = order.flatMap((id) => found.get(id) ?? []);
  const keys = new Map(sources.map((s) => [s.id, s.citekey]));
  const cited = items.map((p): CiteItem[] => [
    { id: p.sourceId, ...(p.locator ? { label: p.locator.label, locator: p.locator.value } : {}) },
  ]);
  const citations = await printCitations(ctx, sources, cited, look);
  const references = await printList(ctx, sources, look);
  const figures = await figuresOut(items, pictures);
  const addresses = await addressesOf(
    ctx,
    items.flatMap((p) => p.copyId ?? []),
  );
  return {
    title,
    lang: look.locale,
    references: references.hasList
      ? { ...references, entries: references.entries.filter((e) => e.failed === undefined) }
      : undefined,
    passages: items.map((p, i) => ({
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
    })),
  };
}

/** Passages as a file, in the order given, cited in a style. */
export async function writePassages(ctx: Context, given: z.infer<typeof outRequest>, look: Look) {
  const out = await gathered(ctx, given.ids, look, given.title || 'Passages', PICTURED.has(given.as));
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
        body: (await passagesDocx(out, given.layout)).toString('base64'),
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
  const out = await gathered(ctx, ids, look, 'Passages', true);
  return { plain: passagesToText(out), rich: passagesToHtml(out, layout) };
}
