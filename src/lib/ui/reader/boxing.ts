import {
  captionNear,
  isCaption,
  readCaption,
  SMALLEST,
  WHOLE,
  type Box,
  type FigurePlace,
} from '$lib/core/figures';
import type { Locator } from '$lib/core/passages';
import { squash } from '$lib/core/text';
import { placeOf } from './marking';

/** A figure that is begun: where it is, with what was found beside it and is proposed. */
export interface FreshFigure {
  place: FigurePlace;
  number: string;
  caption: string;
  alt: string;
  locator: Locator | null;
}

/** A box with a shorter side than this, in pixels, is a click. */
const CLICK = 8;

/** What figures are cut out of: the face of a leaf, or a picture of a page. */
const GROUND = '.face, .pictured';

/** Puts each picture of a page into an element that boxes can be laid over. Text is not changed by it. */
export function framePictures(doc: Document): void {
  for (const picture of doc.querySelectorAll('img')) {
    if (picture.closest(GROUND)) continue;
    const within = doc.createElement('span');
    within.className = 'pictured';
    picture.replaceWith(within);
    within.append(picture);
  }
}

const shaOf = (ground: Element): string | undefined =>
  /\/([0-9a-f]{64})(?:[?#]|$)/.exec(ground.querySelector('img')?.src ?? '')?.[1];

/** Where a box on something in the document is, as it is kept. */
function placeIn(ground: Element, box: Box): FigurePlace | undefined {
  const leaf = ground.closest<HTMLElement>('.leaf');
  if (leaf) return { on: 'leaf', leaf: Number(leaf.dataset.leaf), box };
  const sha256 = shaOf(ground);
  return sha256 ? { on: 'picture', sha256, box } : undefined;
}

/** What a figure is in, in the document; nothing where it is not there. */
export function groundOf(doc: Document, place: FigurePlace): HTMLElement | undefined {
  if (place.on === 'leaf')
    return doc.querySelector<HTMLElement>(`.leaf[data-leaf="${place.leaf}"] .face`) ?? undefined;
  return [...doc.querySelectorAll<HTMLElement>('.pictured')].find((one) => shaOf(one) === place.sha256);
}

/** Sets an element over a box of what it is in. */
export function setOver(element: HTMLElement, { x, y, width, height }: Box): void {
  const part = (n: number) => `${100 * n}%`;
  Object.assign(element.style, { left: part(x), top: part(y), width: part(width), height: part(height) });
}

/** What stands beside a figure and is proposed for it: number, caption, description, printed page. */
export function proposedFor(ground: Element, place: FigurePlace): FreshFigure {
  const leaf = ground.closest<HTMLElement>('.leaf');
  if (leaf) {
    const number = (element: HTMLElement, name: string) => Number(element.dataset[name]);
    const lines = [...leaf.querySelectorAll<HTMLElement>('.line')].map((line) => ({
      text: line.textContent,
      x: number(line, 'x'),
      y: number(line, 'y'),
      width: number(line, 'w'),
      size: number(line, 's'),
    }));
    const size = { width: number(leaf, 'width'), height: number(leaf, 'height') };
    const found = captionNear(lines, place.box, size) ?? { number: '', caption: '' };
    return { place, ...found, alt: '', locator: placeOf(leaf) ?? null };
  }
  const figure = ground.closest('figure');
  const beside = figure ?? ground.closest('p, div') ?? ground;
  const after = squash(beside.nextElementSibling?.textContent ?? '');
  const words =
    squash(figure?.querySelector('figcaption')?.textContent ?? '') || (isCaption(after) ? after : '');
  const { number, caption } = readCaption(words);
  const said = ground.querySelector('img')?.alt ?? '';
  const alt = said === 'without description' ? '' : said;
  const nth = /\d.*$/.exec(number)?.[0];
  return {
    place,
    number,
    caption,
    alt,
    locator: nth ? { label: 'figure', value: nth } : (placeOf(ground) ?? null),
  };
}

/**
 * Draws boxes in a document, with the pointer or by keys: what is drawn over, or chosen with Enter, is told as a figure. Off
 * until it is begun.
 */
export function boxing(doc: Document, told: (figure: FreshFigure) => void) {
  let on = false;
  let from: { ground: HTMLElement; x: number; y: number; box: HTMLElement; id: number } | undefined;

  const grounds = () =>
    [...doc.querySelectorAll<HTMLElement>(GROUND)].filter((g) => g.classList.contains('face') || shaOf(g));

  function take(ground: HTMLElement, box: Box): void {
    const place = placeIn(ground, box);
    if (place) told(proposedFor(ground, place));
  }

  /** The box between where the pointer went down and where it is, in parts of what it is drawn on. */
  function boxTo(event: PointerEvent): { box: Box; wide: number; high: number } | undefined {
    if (!from) return undefined;
    const at = from.ground.getBoundingClientRect();
    const inside = (n: number) => Math.min(1, Math.max(0, n));
    const [x1, x2] = [from.x, event.clientX]
      .map((x) => inside((x - at.left) / at.width))
      .sort((a, b) => a - b);
    const [y1, y2] = [from.y, event.clientY]
      .map((y) => inside((y - at.top) / at.height))
      .sort((a, b) => a - b);
    const box = { x: x1!, y: y1!, width: x2! - x1!, height: y2! - y1! };
    return { box, wide: box.width * at.width, high: box.height * at.height };
  }

  function end(): void {
    from?.box.remove();
    from = undefined;
  }

  doc.addEventListener('pointerdown', (event) => {
    const ground = on ? (event.target as Element).closest<HTMLElement>(GROUND) : null;
    if (!ground || !event.isPrimary || event.button !== 0) return;
    event.preventDefault();
    const box = doc.createElement('span');
    box.className = 'figure-box new';
    ground.append(box);
    from = { ground, x: event.clientX, y: event.clientY, box, id: event.pointerId };
    setOver(box, { x: 0, y: 0, width: 0, height: 0 });
  });
  doc.addEventListener('pointermove', (event) => {
    const to = boxTo(event);
    if (from && to) setOver(from.box, to.box);
  });
  doc.addEventListener('pointerup', (event) => {
    const to = boxTo(event);
    const ground = from?.ground;
    end();
    if (!to || !ground) return;
    const small = Math.max(to.wide, to.high) < CLICK;
    // A click takes a picture whole; on a leaf nothing says which part is meant.
    if (small && ground.classList.contains('pictured')) take(ground, WHOLE);
    else if (Math.min(to.wide, to.high) >= CLICK && Math.min(to.box.width, to.box.height) >= SMALLEST)
      take(ground, to.box);
  });
  doc.addEventListener('pointercancel', end);
  doc.addEventListener(
    'keydown',
    (event) => {
      if (!on || event.key !== 'Enter') return;
      const ground = (event.target as Element).closest<HTMLElement>(GROUND);
      if (!ground) return;
      event.preventDefault();
      event.stopImmediatePropagation();
      take(ground, WHOLE);
    },
    true,
  );

  return {
    get on() {
      return on;
    },
    /** How many things in the document a figure can be cut out of. */
    get grounds() {
      return grounds().length;
    },
    begin(): void {
      on = true;
      doc.body.classList.add('boxing');
      for (const ground of grounds()) ground.tabIndex = 0;
    },
    end(): void {
      on = false;
      end();
      doc.body.classList.remove('boxing');
      for (const ground of grounds()) ground.removeAttribute('tabindex');
    },
  };
}
export type Boxing = ReturnType<typeof boxing>;

/** Lays the boxes of figures over a document, and gives the box of each by its id. */
export function layFigures(
  doc: Document,
  figures: readonly { id: string; tint: string; place: FigurePlace; name: string }[],
): Map<string, HTMLElement> {
  for (const box of doc.querySelectorAll('.figure-box')) box.remove();
  const laid = new Map<string, HTMLElement>();
  for (const { id, tint, place, name } of figures) {
    const ground = groundOf(doc, place);
    if (!ground) continue;
    const box = doc.createElement('span');
    box.className = `figure-box ${tint}`;
    box.dataset.passage = id;
    box.dataset.at = String(place.box.y);
    box.title = name;
    setOver(box, place.box);
    ground.append(box);
    laid.set(id, box);
  }
  return laid;
}
