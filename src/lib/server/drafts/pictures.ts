import { blocksIn, type Block } from '../../core/drafting';
import type { PictureOut } from '../../core/drafting-out';
import { MOST_PIXELS } from '../../reading/sniff';
import { change, checkRight } from '../access/change';
import { scoped, type Context } from '../access/context';
import { notHere, Refusal } from '../access/refusal';
import { keepPicture } from '../copies/pictures';
import { placeOf, readKept } from '../files/store';
import { drawnFigure } from '../passages/figures';
import { getPassages } from '../passages/repository';
import { read } from '../workers/pools';
import { getDraft } from './repository';

/** Most figures that are written with their pictures. */
const MOST_FIGURES = 300;

/** Keeps a picture of one’s own with a draft, which names it by its SHA-256. Refuses what is none that is shown. */
export async function keepDraftPicture(
  ctx: Context,
  draftId: string,
  bytes: Uint8Array,
): Promise<{ sha256: string; width: number; height: number }> {
  // Before anything is kept: a file that is refused is not.
  checkRight(ctx, 'edit');
  await getDraft(ctx, draftId);
  const kept = await keepPicture(bytes, '');
  if (!kept)
    throw new Refusal(
      422,
      `This is no picture that is shown here: PNG, JPEG, WebP and GIF are, up to ${MOST_PIXELS / 1e6} million pixels.`,
    );
  const { sha256, mediaType, width, height } = kept;
  await change(ctx, { right: 'edit', of: [], names: { draft: draftId } }, (inner) =>
    insertPicture(inner, draftId, sha256, mediaType),
  );
  return { sha256, width, height };
}

const insertPicture = (ctx: Context, draft_id: string, sha256: string, media_type: string) =>
  ctx
    .db('draft_picture')
    .insert({ library_id: ctx.libraryId, draft_id, sha256, media_type })
    .onConflict(['draft_id', 'sha256'])
    .ignore();

/** Pictures that a draft names, which may come from another of the library, are its own as well. */
export async function adoptPictures(
  ctx: Context,
  draftId: string,
  sha256s: readonly string[],
): Promise<void> {
  for (const sha256 of sha256s) {
    const there = (await scoped(ctx, 'draft_picture').where({ sha256 }).first('media_type')) as
      { media_type: string } | undefined;
    if (there) await insertPicture(ctx, draftId, sha256, there.media_type);
  }
}

/** A picture of one’s own in a draft; refuses one that is not of it. */
export async function draftPicture(
  ctx: Context,
  draftId: string,
  sha256: string,
): Promise<{ bytes: Buffer; mediaType: string }> {
  await getDraft(ctx, draftId);
  const row = (await scoped(ctx, 'draft_picture')
    .where({ draft_id: draftId, sha256 })
    .first('media_type')) as { media_type: string } | undefined;
  if (!row) throw notHere('picture');
  return { bytes: await readKept(sha256), mediaType: row.media_type };
}

const figuresIn = (block: Block): Extract<Block, { type: 'figure' }>['attrs'][] =>
  block.type === 'figure' ? [block.attrs] : blocksIn(block).flatMap(figuresIn);

/** The pictures of the figures in a draft as PNG, as `DraftOut` has them. Refuses more than are written. */
export async function picturesFor(
  ctx: Context,
  draftId: string,
  parts: readonly { content: Block }[],
): Promise<Map<string, PictureOut>> {
  const figures = parts.flatMap(({ content }) => figuresIn(content));
  if (figures.length > MOST_FIGURES)
    throw new Refusal(
      422,
      `The draft has ${figures.length.toLocaleString('en')} figures; at most ${MOST_FIGURES} are written with their pictures.`,
    );
  const found = new Map<string, PictureOut>();
  const put = (name: string, { png, width, height }: { png: Uint8Array; width: number; height: number }) =>
    found.set(name, { png: Buffer.from(png).toString('base64'), width, height });
  const passages = figures.flatMap((f) => f.passage ?? []);
  for (const { id, figure } of await getPassages(ctx, passages))
    if (figure) put(id, await drawnFigure(figure));
  const own = new Set(figures.flatMap((f) => (f.passage ? [] : (f.picture ?? []))));
  const kept = (await scoped(ctx, 'draft_picture').where({ draft_id: draftId }).select('sha256')) as {
    sha256: string;
  }[];
  for (const { sha256 } of kept)
    if (own.has(sha256)) put(sha256, await read({ task: 'drawn', path: placeOf(sha256), drawing: [] }));
  return found;
}
