import {
  figurePlace,
  type CutOut,
  type Figure,
  type FigurePlace,
  type FigureWords,
} from '../../core/figures';
import { scoped, type Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { getCopy } from '../copies/repository';
import { pictureOf } from '../copies';
import { inParts } from '../db/ids';
import { keepFile, placeOf, readKept } from '../files/store';
import { read } from '../workers/pools';
import { getPassage, type Passage } from './repository';

/** A box to be cut out of a copy, to be looked at before it is kept. */
export const cutRequest = figurePlace;

/** Cuts a figure out of a copy. Refuses a place that is not in it. */
async function cutOut(ctx: Context, copyId: string, place: FigurePlace) {
  const copy = await getCopy(ctx, copyId);
  const { box } = place;
  if (place.on === 'picture') {
    await pictureOf(ctx, copyId, place.sha256);
    return read({ task: 'cut', path: placeOf(place.sha256), box });
  }
  if (copy.kind === 'image' && place.leaf === 1)
    return read({ task: 'cut', path: placeOf(copy.sha256), box });
  if (copy.kind !== 'pdf') throw new Refusal(422, 'This copy has no such page to cut a figure out of.');
  return read({ task: 'cut', path: placeOf(copy.sha256), leaf: place.leaf, box });
}

async function keptCut(ctx: Context, copyId: string, place: FigurePlace): Promise<CutOut> {
  const { png, width, height } = await cutOut(ctx, copyId, place);
  return { sha256: await keepFile(png), mediaType: 'image/png', width, height };
}

/** A figure of a copy, cut out and in the store. */
export async function figureOf(
  ctx: Context,
  copyId: string,
  given: FigureWords & { place: FigurePlace },
): Promise<Figure> {
  const { place, number, alt, drawing } = given;
  return { place, number, alt, drawing, image: await keptCut(ctx, copyId, place) };
}

/** What a kept figure is with other words, another drawing or, cut out anew, in another box. */
export async function changedFigure(
  ctx: Context,
  { figure, copyId }: Passage,
  given: FigureWords & { place?: FigurePlace | undefined },
): Promise<Figure> {
  if (!figure) throw new Refusal(422, 'This passage is no figure.');
  const { number, alt, drawing, place } = given;
  const words = { number, alt, drawing };
  if (!place || JSON.stringify(place) === JSON.stringify(figure.place)) return { ...figure, ...words };
  if (!copyId) throw new Refusal(422, 'The copy this figure was cut out of is not here any more.');
  return { ...words, place, image: await keptCut(ctx, copyId, place) };
}

/** A box of a copy as a picture, as it would be kept. */
export const previewFigure = async (ctx: Context, copyId: string, place: FigurePlace): Promise<Buffer> =>
  Buffer.from((await cutOut(ctx, copyId, place)).png);

/** The picture of a figure as it was cut out, or, for writing it out, with what is drawn over it. */
export async function figurePicture(
  ctx: Context,
  id: string,
  drawn = false,
): Promise<{ bytes: Buffer; mediaType: string }> {
  const { figure } = await getPassage(ctx, id);
  if (!figure) throw new Refusal(404, 'This passage is no figure.');
  if (!drawn) return { bytes: await readKept(figure.image.sha256), mediaType: figure.image.mediaType };
  return { bytes: (await drawnFigure(figure)).png, mediaType: 'image/png' };
}

/** A figure with what is drawn over it, as PNG, with its size in pixels. */
export async function drawnFigure({ image, drawing }: Figure) {
  const { png, width, height } = await read({ task: 'drawn', path: placeOf(image.sha256), drawing });
  return { png: Buffer.from(png), width, height };
}

/** A file as a revision names it. */
const FILE = /(?<=")[0-9a-f]{64}(?=")/g;

/** The files of the figures some passages are or, before they were changed, were. */
export async function figuresOf(ctx: Context, ids: readonly string[]): Promise<string[]> {
  const found = new Set<string>();
  for (const part of inParts([...ids])) {
    const rows = (await scoped(ctx, 'passage')
      .whereIn('id', part)
      .whereNotNull('figure_sha256')
      .select('id', 'figure_sha256')) as { id: string; figure_sha256: string }[];
    for (const row of rows) found.add(row.figure_sha256);
    const revisions = (await scoped(ctx, 'revision')
      .whereIn(
        'subject_id',
        rows.map((row) => row.id),
      )
      .select('forward', 'backward')) as { forward: string; backward: string }[];
    for (const { forward, backward } of revisions)
      for (const text of [forward, backward]) for (const file of text.match(FILE) ?? []) found.add(file);
  }
  return [...found];
}
