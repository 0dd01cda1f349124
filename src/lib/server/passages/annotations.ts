import type { Figure, FigurePlace } from '../../core/figures';
import {
  anchor,
  anchorAll,
  describe,
  findWords,
  leavesIn,
  type LeafText,
  locatorIn,
  sameWords,
  wordsOf,
  type Selectors,
  type Sought,
} from '../../core/passages';
import { annotationPage, readAnnotations, type ReadAnnotation } from '../../core/passages-out';
import { toCodeUnit } from '../../core/text';
import { textOfBytes } from '../../reading/text';
import { change } from '../access/change';
import { personName, type Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { picturesOf, readingOf, type Copy } from '../copies';
import { threadsOf } from '../replies';
import { inTurn } from '../turns';
import { figureOf } from './figures';
import { insertPassage, passagesWhere, type Passage } from './repository';
import { MOST_PASSAGES } from './requests';

/** What is changed here. */
const CHANGE = { right: 'annotate', of: ['passages'] } as const;

/** The leaf each of some passages of a copy begins on, counted from 1; none of a page of the web. */
function leavesOf(copy: Copy, html: string, passages: readonly Passage[]): Map<string, number> {
  const leaves = leavesIn(html);
  const of = new Map<string, number>();
  if (leaves.length === 0) return of;
  for (const { id, selectors } of passages) {
    if (!selectors) continue;
    const at = toCodeUnit(copy.text, selectors.position.start);
    const leaf = leaves.find(({ end }) => at < end);
    if (leaf) of.set(id, leaf.leaf);
  }
  return of;
}

/** What was said to some passages, as annotations have it. */
const repliesTo = async (ctx: Context, passages: readonly Passage[]) =>
  new Map(
    [
      ...(await threadsOf(
        ctx,
        passages.map(({ id }) => id),
      )),
    ].map(([id, { replies }]) => [
      id,
      replies.map((one) => ({ id: one.id, by: one.owner, text: one.text, added: one.added })),
    ]),
  );

/** The passages of a copy as annotations of the W3C model, in JSON-LD. */
export async function annotationsOfCopy(
  ctx: Context,
  copyId: string,
): Promise<{ name: string; body: string }> {
  const { copy, html } = await readingOf(ctx, copyId);
  const passages = await passagesWhere(ctx, { copy_id: copyId });
  const page = annotationPage(passages, {
    address: copy.address,
    title: copy.title,
    mediaType: copy.media_type,
    creator: await personName(ctx),
    leafOf: leavesOf(copy, html, passages),
    pictures: await picturesOf(ctx, copyId),
    replies: await repliesTo(ctx, passages),
  });
  return { name: 'annotations.jsonld', body: `${JSON.stringify(page, null, 2)}\n` };
}

/** What became of annotations that were brought: how many are kept, were there already, and what was not found or read. */
export interface Brought {
  kept: string[];
  already: number;
  lost: { nth: number; words: string }[];
  problems: { nth: number; reason: string }[];
}

/** Words of which the leaf is known, looked for there: the same words, be they blank apart or not, else what is like them. */
function onLeaf(copy: Copy, { start, end }: LeafText, quote: Sought['quote']): Selectors | undefined {
  const text = copy.text.slice(start, end);
  const same = findWords(text, quote.exact);
  const at = same ? { state: 'found', ...same } : anchor(text, { quote });
  return at.state === 'lost' ? undefined : describe(copy.text, start + at.start, start + at.end);
}

/** Where each annotation stands in a copy, in the order given: `null` for one on the whole of it, nothing where it is lost. */
function placesOf(
  copy: Copy,
  html: string,
  given: readonly ReadAnnotation[],
): (Selectors | null | undefined)[] {
  const leaves = new Map(leavesIn(html).map((leaf) => [leaf.leaf, leaf]));
  const places = new Map<number, Selectors | undefined>();
  for (const [i, { quote, leaf, position }] of given.entries()) {
    const its = leaf && !position ? leaves.get(leaf) : undefined;
    const place = its && quote ? onLeaf(copy, its, quote) : undefined;
    if (place) places.set(i, place);
  }
  const located = given.flatMap((one, i) => (one.quote && !places.has(i) ? [i] : []));
  const sought = located.map((i): Sought => ({
    quote: given[i]!.quote!,
    ...(given[i]!.position ? { position: given[i]!.position } : {}),
  }));
  for (const [n, at] of anchorAll(copy.text, sought).entries())
    places.set(located[n]!, at.state === 'lost' ? undefined : describe(copy.text, at.start, at.end));
  return given.map(({ position }, i) => {
    if (places.has(i)) return places.get(i);
    if (!position) return null;
    const [start, end] = [toCodeUnit(copy.text, position.start), toCodeUnit(copy.text, position.end)];
    return copy.text.slice(start, end).trim() ? describe(copy.text, start, end) : undefined;
  });
}

/** Where the further words of an annotation stand; nothing where some of them are lost. */
function furtherOf(copy: Copy, further: ReadAnnotation['further']): Selectors[] | undefined {
  const places = anchorAll(copy.text, further);
  if (places.some((at) => at.state === 'lost')) return undefined;
  return places.map((at) => describe(copy.text, at.start, at.end));
}

/** The figures among annotations, cut out of a copy; nothing for one whose picture or leaf the copy does not have. */
async function figuresOf(
  ctx: Context,
  copy: Copy,
  given: readonly ReadAnnotation[],
): Promise<Map<number, Figure | undefined>> {
  const pictures = await picturesOf(ctx, copy.id);
  const found = new Map<number, Figure | undefined>();
  for (const [i, { region, leaf }] of given.entries()) {
    if (!region) continue;
    const { box, number, alt, drawing, picture } = region;
    const sha256 = [...pictures].find((one) => one.includes(picture))?.[0];
    const page = copy.kind === 'image' ? 1 : leaf;
    const place: FigurePlace | undefined = sha256
      ? { on: 'picture', sha256, box }
      : page
        ? { on: 'leaf', leaf: page, box }
        : undefined;
    const cut = place && figureOf(ctx, copy.id, { place, number, alt, drawing });
    found.set(
      i,
      await cut?.catch((error: unknown) => {
        if (error instanceof Refusal) return undefined;
        throw error;
      }),
    );
  }
  return found;
}

/**
 * Keeps annotations of the W3C model, in JSON-LD, as passages of a copy, each looked for in its text. What is lost or cannot
 * be read is said and not kept; what is there already is not kept twice.
 */
export async function bringAnnotations(ctx: Context, copyId: string, bytes: Uint8Array): Promise<Brought> {
  let read;
  try {
    read = readAnnotations(textOfBytes(bytes));
  } catch (error) {
    throw new Refusal(422, (error as Error).message);
  }
  if (read.annotations.length > MOST_PASSAGES)
    throw new Refusal(
      422,
      `The file holds ${read.annotations.length.toLocaleString('en')} annotations; at most ${MOST_PASSAGES.toLocaleString('en')} are taken at once.`,
    );
  return keepAnnotations(ctx, copyId, read.annotations, read.problems);
}

/** Where the words or the figure of an annotation are in the work, as the document says it. */
function placeSaid(copy: Copy, html: string, place: Selectors | null, figure: Figure | undefined) {
  if (place) return locatorIn(html, place.quote.exact);
  const label = figure?.place.on === 'leaf' ? copy.labels?.[figure.place.leaf - 1] : undefined;
  return label ? { label: 'page' as const, value: label } : null;
}

/** Keeps annotations that were read as passages of a copy, all in one step. */
export async function keepAnnotations(
  ctx: Context,
  copyId: string,
  annotations: readonly ReadAnnotation[],
  problems: Brought['problems'] = [],
): Promise<Brought> {
  const { copy, html } = await readingOf(ctx, copyId);
  const places = placesOf(copy, html, annotations);
  const figures = await figuresOf(ctx, copy, annotations);
  const brought: Brought = { kept: [], already: 0, lost: [], problems };
  await change(ctx, CHANGE, async (inner) => {
    const there = await passagesWhere(inner, { copy_id: copyId });
    for await (const [i, one] of inTurn(annotations.entries())) {
      const [place, figure] = [places[i], figures.get(i)];
      const further = place ? furtherOf(copy, one.further) : [];
      if (place === undefined || !further || (one.region && !figure)) {
        brought.lost.push({
          nth: one.nth,
          words: (one.quote?.exact ?? one.region?.caption ?? '').slice(0, 120),
        });
        continue;
      }
      const same = there.some(
        (p) =>
          p.kind === one.kind &&
          p.ownWords === one.ownWords &&
          (figure ? JSON.stringify(p.figure?.place) === JSON.stringify(figure.place) : !p.figure) &&
          (place
            ? p.selectors?.position.start === place.position.start &&
              sameWords(p.exact, wordsOf(place, further))
            : !p.selectors),
      );
      if (same) {
        brought.already++;
        continue;
      }
      const { kind, tint, gist, ownWords, tags, wording, locator } = one;
      const { id } = await insertPassage(inner, {
        ...{ kind, tint, gist, ownWords, tags, wording, copyId, selectors: place, further },
        sourceId: copy.source_id,
        figure: figure ?? null,
        exact: place ? wordsOf(place, further) : (one.region?.caption ?? ''),
        locator: locator ?? placeSaid(copy, html, place, figure),
        visibility: 'library',
        anchor: 'found',
      });
      brought.kept.push(id);
    }
  });
  return brought;
}
