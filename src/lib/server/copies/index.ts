import type { Context } from '../access/context';
import { readKept } from '../files/store';
import { getCopy, type Copy } from './repository';

export { receiveFile } from './files';
export { contentsOf, leafPicture, linksOnLeaf, pdfOf } from './leaves';
export type { ContentsEntry, LeafLink } from '../../reading/pdf-inside';
export { keepPlace, placeIn, readingPlace, readOf, type ReadingPlace } from './place';
export { pictureOf, picturesOf } from './pictures';
export { copiesOf, getCopy, type Copy, type CopyHead } from './repository';

/** The document of a copy as it was kept. */
export async function documentOf(ctx: Context, id: string): Promise<{ copy: Copy; bytes: Buffer }> {
  const copy = await getCopy(ctx, id);
  return { copy, bytes: await readKept(copy.sha256) };
}

/** What the reader shows of a copy: the sanitised page. */
export async function readingOf(ctx: Context, id: string): Promise<{ copy: Copy; html: string }> {
  const copy = await getCopy(ctx, id);
  return { copy, html: (await readKept(copy.reading_sha256)).toString('utf8') };
}
