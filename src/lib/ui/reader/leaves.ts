import type { LeafLink } from '$lib/server/copies';
import type { Quiet } from './quiet.svelte';

/** Room around a leaf and between leaves, in pixels. */
const MARGIN = 18;
/** Widest a leaf is set when its width fits, in pixels. */
const WIDEST = 900;
/** How many leaves before and behind those that are seen are drawn too. */
const AHEAD = 2;

/** Quarter turns clockwise. */
export type Turn = 0 | 1 | 2 | 3;

/** How leaves are set: how large, how many beside each other, how turned. */
export interface LeafSetting extends Pick<Quiet, 'zoom' | 'fit' | 'twoUp'> {
  turn: Turn;
  /** Height of what is seen, in pixels. */
  seen: number;
}

interface Leaf {
  section: HTMLElement;
  /** What is turned with the leaf; what is on the leaf stands in it once it is unfolded. */
  face: HTMLElement;
  unfolded: boolean;
  /** The setting its face was set by; none where it was not yet. */
  setAs: string | undefined;
  width: number;
  height: number;
  label: string;
  lines: HTMLElement[] | undefined;
  /** At which scale its lines were laid; none where they were not yet. */
  laid: number | undefined;
  linked: boolean;
}

/** The leaves of a document with pages, in its frame. */
export interface Leaves {
  count: number;
  /** The printed label of a leaf (counted from 1), or nothing where none is known. */
  label: (leaf: number) => string;
  /** Sets all leaves anew. */
  set: (setting: LeafSetting) => void;
  /** Draws the leaves that are seen between two heights of the document, lets the others go, and gives the first of them. */
  seen: (top: number, bottom: number) => number;
  /** Where a leaf begins, in pixels from the top of the document. */
  topOf: (leaf: number) => number;
  /** Where a mark on a leaf is, without its leaf being drawn. */
  topOfMark: (mark: Element) => number | undefined;
  /** Where a mark ends, in pixels from the top of the document; its leaf is laid for it. */
  bottomOfMark: (mark: Element) => number;
}

/** When leaves that were not seen begin to be unfolded, after the first are drawn, in milliseconds. */
const UNFOLDS_AFTER = 1_500;
/** How long leaves are unfolded before the page may answer, in milliseconds. */
const SLICE = 8;

/** Puts what is on a leaf into its face. Until then it is not shown and costs nothing. */
function unfold(leaf: Leaf): void {
  if (leaf.unfolded) return;
  leaf.unfolded = true;
  // Boxes of figures may be on the face already; they stand above the text.
  leaf.face.prepend(...[...leaf.section.childNodes].filter((node) => node !== leaf.face));
}

function leafOf(section: HTMLElement): Leaf {
  const face = section.ownerDocument.createElement('div');
  face.className = 'face';
  section.append(face);
  return {
    section,
    face,
    unfolded: false,
    setAs: undefined,
    width: Number(section.dataset.width),
    height: Number(section.dataset.height),
    label: section.dataset.page ?? '',
    lines: undefined,
    laid: undefined,
    linked: false,
  };
}

/**
 * Sets the leaves of a document in its frame: the picture of each behind its lines of text, which are laid over the printed
 * ones so that they can be selected and marked. Only leaves that are seen have their picture and their lines laid, and text
 * that is not seen yet is shown to the browser a little at a time, so that a long document opens at once and stays small. Nothing for a page of the web. Styles are set from here since nothing in
 * the frame may bring its own.
 */
export function openLeaves(
  doc: Document,
  copyId: string,
  links: (leaf: number) => Promise<LeafLink[]>,
  goTo: (leaf: number) => void,
): Leaves | undefined {
  const sections = [...doc.querySelectorAll<HTMLElement>('section.leaf')];
  if (sections.length === 0) return undefined;
  doc.body.classList.add('leaves');
  const leaves = sections.map(leafOf);
  let setting: LeafSetting | undefined;
  let scales: number[] = [];
  let tops: number[] = [];
  let drawn = new Set<number>();

  /** How leaves were set last: what changes nothing is not set again, since it has all of them laid out anew. */
  let laidAs: string | undefined;
  function set(next: LeafSetting): void {
    setting = next;
    const room = doc.documentElement.clientWidth - 2 * MARGIN;
    if (room <= 0) return;
    const { zoom, fit, twoUp, turn } = next;
    const how = [room, zoom, fit, twoUp, turn, fit === 'page' ? next.seen : ''].join(' ');
    if (how === laidAs) return;
    laidAs = how;
    const across = next.twoUp ? (room - MARGIN) / 2 : room;
    const sideways = next.turn % 2 === 1;
    doc.body.classList.toggle('two-up', next.twoUp);
    scales = leaves.map(({ section, width, height }) => {
      const [wide, high] = sideways ? [height, width] : [width, height];
      const fits =
        next.fit === 'page'
          ? Math.min(across / wide, (next.seen - 2 * MARGIN) / high)
          : Math.min(across, WIDEST) / wide;
      const scale = fits * next.zoom;
      section.style.cssText = `width:${wide * scale}px;height:${high * scale}px`;
      return scale;
    });
    // One below the other, they stand where their heights say; to ask each takes as long as there are leaves.
    let top = leaves[0]!.section.offsetTop;
    tops = leaves.map(({ section, width, height }, i) => {
      if (next.twoUp) return section.offsetTop;
      const at = top;
      top += (sideways ? width : height) * scales[i]! + MARGIN;
      return at;
    });
    const again = drawn;
    drawn = new Set();
    for (const n of again) draw(n);
  }

  /** Sets the face of a leaf in it, as large and turned as all are. */
  function setFace({ face, width, height }: Leaf, scale: number, turn: Turn): void {
    const [wide, high] = turn % 2 ? [height * scale, width * scale] : [width * scale, height * scale];
    Object.assign(face.style, {
      width: `${width * scale}px`,
      height: `${height * scale}px`,
      transform: [
        '',
        `translateX(${wide}px) rotate(90deg)`,
        `translate(${wide}px, ${high}px) rotate(180deg)`,
        `translateY(${high}px) rotate(-90deg)`,
      ][turn]!,
    });
  }

  /** Lays the text of a leaf where it is printed. */
  function lay(n: number): void {
    const leaf = leaves[n]!;
    unfold(leaf);
    if (leaf.setAs !== laidAs) {
      leaf.setAs = laidAs;
      setFace(leaf, scales[n]!, setting!.turn);
    }
    layLines(leaf, scales[n]!);
  }

  function draw(n: number): void {
    const leaf = leaves[n]!;
    drawn.add(n);
    lay(n);
    if (!leaf.face.querySelector('img')) {
      const picture = doc.createElement('img');
      picture.alt = '';
      picture.src = `/copies/${copyId}/leaves/${n + 1}`;
      leaf.face.prepend(picture);
    }
    if (!leaf.linked) {
      leaf.linked = true;
      void links(n + 1).then((found) => layLinks(leaf, found));
    }
  }

  function layLines(leaf: Leaf, scale: number): void {
    if (leaf.laid === scale) return;
    leaf.laid = scale;
    leaf.lines ??= [...leaf.face.querySelectorAll<HTMLElement>('.line')];
    for (const line of leaf.lines) {
      const [x, y, size] = [Number(line.dataset.x), Number(line.dataset.y), Number(line.dataset.s)];
      line.style.left = `${x * scale}px`;
      line.style.top = `${(y - size * 0.98) * scale}px`;
      line.style.fontSize = `${size * scale}px`;
      line.style.transform = '';
    }
    // All widths are read before any is changed, so that the page is laid out once for a leaf.
    const widths = leaf.lines.map((line) => line.offsetWidth);
    leaf.lines.forEach((line, i) => {
      if (widths[i]! > 0) line.style.transform = `scaleX(${(Number(line.dataset.w) * scale) / widths[i]!})`;
    });
  }

  /** Lays links over a leaf, in parts of it, so that they stay in place at every size. */
  function layLinks({ face, width, height }: Leaf, found: LeafLink[]): void {
    const parts = (n: number, of: number) => `${(100 * n) / of}%`;
    for (const link of found) {
      const a = doc.createElement('a');
      a.className = 'leaf-link';
      Object.assign(a.style, {
        left: parts(link.x, width),
        top: parts(link.y, height),
        width: parts(link.width, width),
        height: parts(link.height, height),
      });
      if (link.leaf) {
        const to = link.leaf;
        a.href = `#leaf-${to}`;
        a.title = leaves[to - 1]?.label ? `p. ${leaves[to - 1]!.label}` : `page ${to} of the file`;
        a.addEventListener('click', (event) => {
          event.preventDefault();
          goTo(to);
        });
      } else if (link.address) {
        Object.assign(a, {
          href: link.address,
          target: '_blank',
          rel: 'noopener noreferrer nofollow',
          title: link.address,
        });
      }
      face.append(a);
    }
  }

  /** The last leaf that begins at or above a height. */
  function at(height: number): number {
    let [low, high] = [0, leaves.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (tops[middle]! <= height) low = middle;
      else high = middle - 1;
    }
    return low;
  }

  function seen(top: number, bottom: number): number {
    if (!setting) return 1;
    const last = at(bottom);
    let first = at(top + MARGIN);
    // Of leaves beside each other the first one counts.
    while (first > 0 && tops[first - 1] === tops[first]) first--;
    const [from, to] = [Math.max(0, first - AHEAD), Math.min(leaves.length - 1, last + AHEAD)];
    for (const n of drawn)
      if (n < from || n > to) {
        leaves[n]!.face.querySelector('img')?.remove();
        drawn.delete(n);
      }
    // What is seen is drawn first.
    for (let n = first; n <= last; n++) draw(n);
    for (let n = from; n <= to; n++) draw(n);
    return first + 1;
  }

  // All can be selected, found by the browser and read out in the end, whether it was seen or not.
  let unfolds = 0;
  function unfoldSome(): void {
    if (!doc.defaultView) return;
    for (const since = performance.now(); unfolds < leaves.length; unfolds++) {
      if (performance.now() - since > SLICE) return void setTimeout(unfoldSome);
      unfold(leaves[unfolds]!);
    }
  }
  setTimeout(unfoldSome, UNFOLDS_AFTER);

  const numberOf = (mark: Element) => Number(mark.closest<HTMLElement>('.leaf')?.dataset.leaf) - 1;

  return {
    count: leaves.length,
    label: (leaf) => leaves[leaf - 1]?.label ?? '',
    set,
    seen,
    topOf: (leaf) => tops[leaf - 1] ?? 0,
    topOfMark(mark) {
      const line = mark.closest<HTMLElement>('.line');
      const n = numberOf(mark);
      const scale = scales[n];
      if (scale === undefined) return undefined;
      const { at: part } = (mark as HTMLElement).dataset;
      if (part !== undefined)
        return tops[n]! + (setting?.turn ? 0 : Number(part) * leaves[n]!.height * scale);
      if (!line) return undefined;
      const y = (Number(line.dataset.y) - Number(line.dataset.s)) * scale;
      return tops[n]! + (setting?.turn ? 0 : y);
    },
    bottomOfMark(mark) {
      const n = numberOf(mark);
      if (scales[n] !== undefined) lay(n);
      return mark.getBoundingClientRect().bottom;
    },
  };
}
