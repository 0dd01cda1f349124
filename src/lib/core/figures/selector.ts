import { box, type Box } from './types';

/** How many parts a box in an SVG selector is said in. */
const PARTS = 10_000;

/**
 * A box as an SVG selector says it: a rectangle in a drawing laid over all of the picture or the page. Source: Web Annotation
 * Data Model (W3C Recommendation 23 February 2017), 4.2.7.
 */
export function boxToSvg({ x, y, width, height }: Box): string {
  const part = (n: number) => Math.round(n * PARTS);
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${PARTS} ${PARTS}" preserveAspectRatio="none"><rect x="${part(x)}" y="${part(y)}" width="${part(width)}" height="${part(height)}"/></svg>`;
}

const NUMBER = /[+-]?(?:\d{1,9}(?:\.\d{0,9})?|\.\d{1,9})(?:e[+-]?\d{1,2})?/gi;
const numbersIn = (text: string): number[] => [...text.matchAll(NUMBER)].map(([n]) => Number(n));

const attribute = (element: string, name: string): string =>
  new RegExp(`\\s${name}\\s*=\\s*["']([^"']*)["']`, 'i').exec(element)?.[1] ?? '';

/** What the points of an element span, in units of the drawing; nothing for an element that is none of the simple ones. */
function spanOf(element: string): [xs: number[], ys: number[]] | undefined {
  const n = (name: string) => numbersIn(attribute(element, name))[0] ?? 0;
  const alternate = (all: number[]): [number[], number[]] => [
    all.filter((_, i) => i % 2 === 0),
    all.filter((_, i) => i % 2 === 1),
  ];
  switch (/^<(\w+)/.exec(element)?.[1]?.toLowerCase()) {
    case 'rect':
      return [
        [n('x'), n('x') + n('width')],
        [n('y'), n('y') + n('height')],
      ];
    case 'circle':
      return [
        [n('cx') - n('r'), n('cx') + n('r')],
        [n('cy') - n('r'), n('cy') + n('r')],
      ];
    case 'ellipse':
      return [
        [n('cx') - n('rx'), n('cx') + n('rx')],
        [n('cy') - n('ry'), n('cy') + n('ry')],
      ];
    case 'polygon':
    case 'polyline':
      return alternate(numbersIn(attribute(element, 'points')));
    case 'path': {
      const d = attribute(element, 'd');
      // A path of straight lines between points that are said outright; others span what cannot be told from their numbers.
      return /^[\sMLZz\d.,e+-]*$/.test(d) ? alternate(numbersIn(d)) : undefined;
    }
  }
  return undefined;
}

/**
 * The box around what an SVG selector draws, in parts of the picture it lies on. The drawing must say its own size, by a
 * `viewBox` or by `width` and `height`, or `size` must say that of the picture, in pixels. Nothing where it draws nothing that
 * is understood.
 */
export function boxOfSvg(svg: string, size?: { width: number; height: number }): Box | undefined {
  const text = svg.slice(0, 100_000);
  const root = /<svg\b[^<>]*>/i.exec(text)?.[0] ?? '';
  const view = numbersIn(attribute(root, 'viewBox'));
  const [w, h] = ['width', 'height'].map((name) => numbersIn(attribute(root, name))[0]);
  const [x0, y0, width, height] =
    view.length === 4 ? view : size ? [0, 0, size.width, size.height] : [0, 0, w ?? 0, h ?? 0];
  if (!(width! > 0 && height! > 0)) return undefined;
  const spans = [...text.matchAll(/<(?:rect|circle|ellipse|polygon|polyline|path)\b[^<>]*>/gi)].flatMap(
    ([element]) => spanOf(element) ?? [],
  );
  const xs = spans.filter((_, i) => i % 2 === 0).flat();
  const ys = spans.filter((_, i) => i % 2 === 1).flat();
  return boxAround(
    xs.map((x) => (x - x0!) / width!),
    ys.map((y) => (y - y0!) / height!),
  );
}

/** The box around points, cut at the edges. */
function boxAround(xs: readonly number[], ys: readonly number[]): Box | undefined {
  if (xs.length < 2 || ys.length < 2 || ![...xs, ...ys].every(Number.isFinite)) return undefined;
  const inside = (n: number) => Math.min(1, Math.max(0, n));
  const [left, right] = [
    inside(xs.reduce((a, b) => Math.min(a, b))),
    inside(xs.reduce((a, b) => Math.max(a, b))),
  ];
  const [top, bottom] = [
    inside(ys.reduce((a, b) => Math.min(a, b))),
    inside(ys.reduce((a, b) => Math.max(a, b))),
  ];
  return box.safeParse({ x: left, y: top, width: right - left, height: bottom - top }).data;
}

/**
 * The box a media fragment names: `xywh=percent:10,20,30,40`, or in pixels, of a picture of which the size is known. Source:
 * Media Fragments URI 1.0 (W3C Recommendation 25 September 2012), 4.2.2.
 */
export function boxOfFragment(fragment: string, size?: { width: number; height: number }): Box | undefined {
  const [, unit, numbers = ''] = /(?:^|[#&])xywh=(?:(pixel|percent):)?([\d.,]{7,60})/.exec(fragment) ?? [];
  const [x, y, width, height] = numbers.split(',').map(Number);
  if (height === undefined) return undefined;
  const [wide, high] = unit === 'percent' ? [100, 100] : size ? [size.width, size.height] : [0, 0];
  if (!(wide > 0 && high > 0)) return undefined;
  return boxAround([x! / wide, (x! + width!) / wide], [y! / high, (y! + height) / high]);
}
