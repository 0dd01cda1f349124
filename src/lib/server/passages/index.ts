import { membersAmong } from '../access/shown';
import { anchor, describe, wordsOf, type Selectors } from '../../core/passages';
import { codePointLength, sliceCodePoints } from '../../core/text';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { getCopy, type Copy } from '../copies/repository';
import { now } from '../db/ids';
import { placePassages } from '../projects/sections';
import { inTurn } from '../turns';
import { changedFigure, figureOf } from './figures';
import { getPassage, getPassages, insertPassage, updatePassage, type Passage } from './repository';
import type { ManyAct, NewPassage, PassageChange } from './requests';

export { getPassages, passagesWhere, type Passage } from './repository';
export {
  carryingTo,
  selectionGiven,
  linkRequest,
  manyRequest,
  MOST_PASSAGES,
  newPassage,
  passageChange,
  type NewPassage,
  type PassageWords,
} from './requests';
export {
  itemsOf,
  listPassages,
  PASSAGE_SORTS,
  PASSAGE_STATES,
  passageIdsOf,
  peopleOfPassages,
  tagsOfPassages,
  type PassageFilter,
  type PassageItem,
  type PassageSort,
} from './listing';
export { cutRequest, figurePicture, previewFigure } from './figures';
export { annotationsOfCopy, bringAnnotations, type Brought } from './annotations';
export { bringMarks, markedPdf } from './pdf-marks';
export { copyRequest, outRequest, passagesToCopy, writePassages, type PassageOutput } from './out';
export { carryPassages, renewCopy, type Carried, type Renewal } from './carrying';
export { readingCopy } from './reading-copy';
export { recogniseAgain, recogniseRequest, type RecognisedAgain } from './recognising';
export { linesInPhoto } from './from-photo';
export { keepFromPage, pageHere, type FromPage, type PageHere } from './from-page';
export { linkPassages, linksOf, unlinkPassages, type PassageLink } from './links';

/** What is changed here. */
const CHANGE = { right: 'annotate', of: ['passages'] } as const;

/**
 * The place of words in a copy. The selectors must name a stretch that is in the copy's text; where the position does not
 * fit, the quote decides.
 */
function placeIn(copy: Copy, given: Selectors): Selectors {
  const { start, end } = given.position;
  if (end <= codePointLength(copy.text) && sliceCodePoints(copy.text, start, end) === given.quote.exact)
    return given;
  const found = anchor(copy.text, given);
  if (found.state === 'lost') throw new Refusal(422, 'These words are not in the copy. Select them again.');
  // What is kept is what the copy says.
  return describe(copy.text, found.start, found.end);
}

/** The places of words in a copy, in its order; refuses those that stand over one another. */
function placesIn(copy: Copy, given: readonly Selectors[]): Selectors[] {
  const places = given.map((one) => placeIn(copy, one)).sort((a, b) => a.position.start - b.position.start);
  if (places.some((place, i) => i > 0 && place.position.start < places[i - 1]!.position.end))
    throw new Refusal(422, 'Words that are joined with an omission between them must not overlap.');
  return places;
}

/** Keeps a passage: of words in a copy, a figure cut out of one, of a whole copy, or of a source by hand. */
export async function keepPassage(ctx: Context, given: NewPassage): Promise<Passage> {
  const {
    copyId,
    sourceId: typed = null,
    selectors: place,
    further: more = [],
    exact = '',
    wording = null,
    tags = [],
    figure: box = null,
    shownTo = [],
    ...said
  } = given;
  const figure = box && copyId ? await figureOf(ctx, copyId, box) : null;
  return change(ctx, { ...CHANGE, names: { source: typed } }, async (inner) => {
    const copy = copyId ? await getCopy(inner, copyId) : undefined;
    const [where = null, ...further] = copy && place ? placesIn(copy, [place, ...more]) : [];
    return insertPassage(inner, {
      ...said,
      shownTo: await membersAmong(inner, shownTo),
      wording,
      tags,
      sourceId: copy?.source_id ?? typed!,
      copyId: copy?.id ?? null,
      selectors: where,
      further,
      figure,
      // What is said in a recording is typed, as what stands in print is.
      exact: where ? wordsOf(where, further) : copy && !figure && copy.kind !== 'audio' ? '' : exact.trim(),
      anchor: 'found',
    });
  });
}

/**
 * Changes what was said of a passage, on revision `base`; with `selectors`, it stands at other words of its copy from then
 * on, and with `exact`, where no copy has it, other words were read.
 */
export async function editPassage(ctx: Context, id: string, given: PassageChange) {
  const { base, selectors: place, further: more = [], exact, figure: box } = given;
  const { shownTo, ...said } = given.said;
  const held = box && (await getPassage(ctx, id));
  const figure = held && box ? await changedFigure(ctx, held, box) : undefined;
  return change(ctx, CHANGE, async (inner) => {
    const { copyId, selectors: before, figure: its, ownerId } = await getPassage(inner, id);
    if ((said.kind === 'figure') !== (its !== null))
      throw new Refusal(422, 'A figure stays a figure, and words stay words. Keep it anew as the other.');
    if (its && place) throw new Refusal(422, 'A figure stands in a box, not at words.');
    if (exact !== undefined && before)
      throw new Refusal(422, 'The words of a passage in a copy are what the copy says. Select others there.');
    if (place && !copyId)
      throw new Refusal(422, 'This passage is in no copy. Type its words, or keep it anew from the copy.');
    const [where, ...further] =
      place && copyId ? placesIn(await getCopy(inner, copyId), [place, ...more]) : [];
    const moved = where && {
      selectors: where,
      further,
      exact: wordsOf(where, further),
      anchor: 'found' as const,
    };
    return updatePassage(
      inner,
      id,
      base,
      {
        ...said,
        ...(shownTo && ownerId === inner.personId ? { shownTo: await membersAmong(inner, shownTo) } : {}),
        ...moved,
        ...(figure ? { figure } : {}),
        ...(exact === undefined ? {} : { exact: exact.trim() }),
      },
      moved ? 'set to other words' : 'edited',
    );
  });
}

/**
 * Does the same to several passages, all or none. Gives the revisions made, for undoing, and the ids it changed. Those that
 * are gone meanwhile refuse it.
 */
export async function changeMany(
  ctx: Context,
  ids: readonly string[],
  act: ManyAct,
): Promise<{ revisions: string[]; changed: string[] }> {
  const section = 'sectionId' in act ? act.sectionId : null;
  // What stands in a section is the library's.
  const right = section ? 'edit' : CHANGE.right;
  return change(
    ctx,
    { ...CHANGE, right, of: ['passages', 'projects'], names: { section } },
    async (inner) => {
      const passages = await getPassages(inner, ids);
      if (passages.length !== new Set(ids).size)
        throw new Refusal(404, 'One of these passages is no longer here. Look again; nothing was changed.');
      if ('sectionId' in act) {
        const changed = await placePassages(inner, act.sectionId, ids, act.act === 'place');
        return { revisions: [], changed };
      }
      const [revisions, changed]: [string[], string[]] = [[], []];
      for await (const { id, revision, tags } of inTurn(passages)) {
        const [next, why] =
          act.act === 'bin'
            ? [{ binned: now() }, 'put in the bin']
            : act.act === 'tag'
              ? [{ tags: [...new Set([...tags, act.tag])] }, `tagged “${act.tag}”`]
              : [{ tags: tags.filter((tag) => tag !== act.tag) }, `tag “${act.tag}” taken away`];
        const { revisionId } = await updatePassage(inner, id, revision, next, why);
        if (!revisionId) continue;
        revisions.push(revisionId);
        changed.push(id);
      }
      return { revisions, changed };
    },
  );
}

/** Puts a passage in the bin or takes it out. */
export async function binPassage(ctx: Context, id: string, binned: boolean) {
  return change(ctx, CHANGE, async (inner) => {
    const { revision } = await getPassage(inner, id);
    return updatePassage(
      inner,
      id,
      revision,
      { binned: binned ? now() : null },
      binned ? 'put in the bin' : 'taken out of the bin',
    );
  });
}
