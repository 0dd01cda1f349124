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
import { sourcesByKeys } from '../sources/repository';
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
 * of the library. Refuses, with words, what is no manuscript.
 */
export async function printGiven(
  ctx: Context,
  given: Uint8Array,
  name: string,
  look: Look,
): Promise<PrintedManuscript> {
  const kind = manuscriptKind(name);
  if (!kind)
    throw new Refusal(422, `“${name}” is none of the kinds that are printed: .docx, .odt, .md and .tex.`);
  const known = await sourcesByKeys(ctx, await manuscript({ what: 'keys', kind, bytes: given }));
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
