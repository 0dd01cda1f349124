import { z } from 'zod';
import { change, checkRight } from '../access/change';
import { contextOf, type Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { membersAmong } from '../access/shown';
import { copiesOf, getCopy } from '../copies';
import { insertCopy } from '../copies/repository';
import { insertPictures, pictureRows, picturesOf, type KeptPicture } from '../copies/pictures';
import { insertPassage, passagesOfSources } from '../passages/repository';
import { binSources } from '../sources';
import { getSources, insertSource } from '../sources/repository';
import { inTurn } from '../turns';
import { putCrossing, sameThere } from './repository';

export * from './requests';

/** Sources that are brought to another library at once. */
const MOST = 500;

/** Which sources go to which library: a copy of each, or the source itself, which is then in the bin here. */
export const crossingRequest = z.strictObject({
  ids: z.array(z.string().max(60)).min(1).max(MOST),
  libraryId: z.string().max(60),
  move: z.boolean(),
});

/** What became of sources that were brought to another library. */
export interface Crossed {
  /** Those that are new there. */
  added: number;
  /** Those that were there already: by their DOI, or since they were brought before. What they lacked came to them. */
  known: number;
  documents: number;
  passages: number;
  /** Revisions that put what was moved in the bin here, for undoing. */
  revisions: string[];
  /** Sources that are new there, for undoing. */
  ids: string[];
}

/**
 * Brings sources to another library that the person may edit: their records, their documents, and the person's own passages with
 * whom they are for. What others keep stays where it is. The same work is known there and made once. One transaction for both
 * libraries.
 */
export async function bringTo(
  ctx: Context,
  { ids, libraryId, move }: z.infer<typeof crossingRequest>,
): Promise<Crossed> {
  if (libraryId === ctx.libraryId) throw new Refusal(422, 'They are in this library already.');
  const there = await contextOf(ctx.db, libraryId, ctx.personId);
  if (!there) throw new Refusal(404, 'You are not in this library.');
  if (move) checkRight(ctx, 'edit');
  return change({ ...there, db: ctx.db }, { right: 'edit', of: ['sources', 'passages'] }, async (into) => {
    const from: Context = { ...ctx, db: into.db };
    const sources = (await getSources(from, ids)).filter((s) => !s.mergedInto && !s.binned);
    if (sources.length !== new Set(ids).size)
      throw new Refusal(404, 'One of these sources is no longer here. Look again; nothing was brought over.');
    const crossed: Crossed = { added: 0, known: 0, documents: 0, passages: 0, revisions: [], ids: [] };
    for await (const source of inTurn(sources)) {
      const known = await sameThere(into, source);
      let to = known;
      if (!known) {
        const why = 'brought from another library';
        to = (await insertSource(into, source.record, { checked: source.checked !== null, why })).id;
        crossed.added++;
        crossed.ids.push(to);
      } else crossed.known++;
      await putCrossing(into, source.id, to!);
      const copies = await bringCopies(from, into, source.id, to!, crossed);
      await bringPassages(from, into, source.id, to!, copies, crossed);
    }
    if (move)
      crossed.revisions = await binSources(
        from,
        sources.map((s) => s.id),
        true,
      );
    return crossed;
  });
}

/** Brings documents that are not there yet; gives which copy there is which here. Their bytes are kept once for all libraries. */
async function bringCopies(
  from: Context,
  into: Context,
  source: string,
  to: string,
  crossed: Crossed,
): Promise<Map<string, string>> {
  const there = new Map((await copiesOf(into, to)).map((copy) => [copy.sha256, copy.id]));
  const which = new Map<string, string>();
  // The oldest first, so that the latest is the latest there too.
  for (const { id, sha256 } of (await copiesOf(from, source)).reverse()) {
    const known = there.get(sha256);
    if (known) {
      which.set(id, known);
      continue;
    }
    const { id: _id, source_id: _source, ...copy } = await getCopy(from, id);
    const { kind, media_type, size, reading_sha256, title, address, captured, text, labels, note } = copy;
    const made = await insertCopy(into, { source_id: to, kind, media_type, sha256, size, reading_sha256, title, address, captured, text, labels, note }); // prettier-ignore
    const pictures = await pictureRows(from, id);
    const addresses = await picturesOf(from, id);
    await insertPictures(
      into,
      made.id,
      pictures.map(
        (p) =>
          ({
            sha256: p.sha256,
            mediaType: p.media_type,
            address: addresses.get(p.sha256) ?? '',
          }) as KeptPicture,
      ),
    );
    which.set(id, made.id);
    crossed.documents++;
  }
  return which;
}

/** Brings the person's own passages that are not there yet. */
async function bringPassages(
  from: Context,
  into: Context,
  source: string,
  to: string,
  copies: Map<string, string>,
  crossed: Crossed,
): Promise<void> {
  const signOf = (p: {
    exact: string;
    gist: string;
    ownWords: string;
    kind: string;
    copyId: string | null;
  }) => JSON.stringify([p.kind, p.exact, p.gist, p.ownWords, p.copyId]);
  const there = new Set(
    (await passagesOfSources(into, [to])).filter((p) => p.ownerId === into.personId).map(signOf),
  );
  for (const passage of await passagesOfSources(from, [source])) {
    if (passage.ownerId !== from.personId || passage.binned) continue;
    const copyId = passage.copyId ? (copies.get(passage.copyId) ?? null) : null;
    const brought = { ...passage, sourceId: to, copyId };
    if (there.has(signOf(brought))) continue;
    const {
      id: _id,
      revision: _revision,
      added: _added,
      binned: _binned,
      ownerId: _owner,
      ...said
    } = brought;
    // Shown to those of them who are in that library too.
    await insertPassage(into, { ...said, shownTo: await membersAmong(into, said.shownTo) });
    crossed.passages++;
  }
}

/** Takes back what was brought: what is new there goes into the bin there, and what was moved is here again. */
export async function takeBack(
  ctx: Context,
  { libraryId, ids, moved }: { libraryId: string; ids: string[]; moved: string[] },
): Promise<void> {
  const there = await contextOf(ctx.db, libraryId, ctx.personId);
  if (!there) throw new Refusal(404, 'You are not in this library.');
  await change({ ...there, db: ctx.db }, { right: 'edit', of: ['sources'] }, async (into) => {
    if (ids.length) await binSources(into, ids, true);
    if (moved.length) await binSources({ ...ctx, db: into.db }, moved, false);
  });
}
