import { toCsl, type SourceRecord } from '../../core/source';
import {
  MANUSCRIPTS,
  manuscriptKind,
  type ManuscriptKind,
  type ManuscriptOut,
} from '../../reading/manuscripts';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { citesInNotes, printingIn, type Look } from '../lists/printing';
import { listIds } from '../sources';
import { getSources, sourcesByKeys } from '../sources/repository';
import { manuscript } from '../workers/pools';
import { sourcesFor } from './works';

/** A manuscript that was written elsewhere, as it prints, with what is to be told of it. */
export interface PrintedManuscript extends Omit<ManuscriptOut, 'bytes'> {
  name: string;
  mediaType: string;
  /** The file, in base64. */
  body: string;
  binary: true;
}

/** A manuscript printed in a style, with works by their citekeys. */
export const printedManuscript = async (
  ctx: Context,
  file: { kind: ManuscriptKind; bytes: Uint8Array },
  works: readonly { key: string; record: SourceRecord }[],
  look: Look,
): Promise<ManuscriptOut> =>
  manuscript({
    what: 'manuscript',
    ...(await printingIn(ctx, look)),
    ...file,
    works: works.map(({ key, record }) => [key, toCsl(key, record)]),
    notes: await citesInNotes(ctx, look),
  });

/**
 * Prints the citations and the list of a manuscript that was written elsewhere, in a style. Works are named in it by the citekeys
 * of the library; where it lists all there are (`@*`), those are the sources of the project, or of the library where none is chosen. Refuses,
 * with words, what is no manuscript.
 */
export async function printGiven(
  ctx: Context,
  given: Uint8Array,
  name: string,
  look: Look,
  projectId?: string,
): Promise<PrintedManuscript> {
  const kind = manuscriptKind(name);
  if (!kind)
    throw new Refusal(422, `“${name}” is none of the kinds that are printed: .docx, .odt, .md and .tex.`);
  const keys = await manuscript({ what: 'keys', kind, bytes: given });
  const known = await sourcesByKeys(ctx, keys);
  if (keys.includes('*')) for (const [key, id] of await allListed(ctx, projectId)) known.set(key, id);
  const sources = await sourcesFor(ctx, [...known.values()]);
  const { bytes, ...told } = await printedManuscript(
    ctx,
    { kind, bytes: given },
    [...known].flatMap(([key, id]) => {
      const source = sources.get(id);
      return source ? [{ key, record: source.record }] : [];
    }),
    look,
  );
  return {
    ...told,
    name: name.replace(/(?:-printed)?(\.[^.]+)$/, '-printed$1'),
    mediaType: MANUSCRIPTS[kind].mediaType,
    body: Buffer.from(bytes).toString('base64'),
    binary: true,
  };
}

/** Most works that are listed because all are asked for. */
const MOST_LISTED = 5_000;

/** All sources of a project, or of the library, by their citekeys. Refuses where those are too many for a list. */
async function allListed(ctx: Context, projectId: string | undefined): Promise<[string, string][]> {
  const ids = await listIds(ctx, projectId ? { projectId } : {});
  if (ids.length > MOST_LISTED)
    throw new Refusal(
      422,
      `It lists all there are (@*), which are ${ids.length.toLocaleString('en')} sources; at most ${MOST_LISTED.toLocaleString('en')} are listed. Choose a project first.`,
    );
  return (await getSources(ctx, ids)).map(({ citekey, id }) => [citekey, id]);
}
