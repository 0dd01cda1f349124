import type { Tint } from '../passages';
import { escapeHtml, withoutControls } from '../text';
import type { Point, Shape } from './types';

/** The ink of each tint over a picture: its colour, and the pattern of its lines in widths of the line. */
export const INKS: Record<Tint, { color: string; dash: readonly number[] }> = {
  claim: { color: '#c98a00', dash: [] },
  evidence: { color: '#1f7a4d', dash: [1, 2] },
  method: { color: '#3556b8', dash: [8, 2.5] },
  term: { color: '#8a3fb0', dash: [4, 2] },
  doubt: { color: '#c0392b', dash: [6, 2, 1, 2] },
};

/** How wide a line is, how long the head of an arrow, and how large letters are, in parts of the longer side. */
export const PEN = { line: 0.006, head: 0.03, letters: 0.032 };

/** The face of words in a drawing. */
export const FACE = 'Source Serif 4';

/** The size of a picture, in pixels. */
export interface Size {
  width: number;
  height: number;
}

/** Rounded, as drawings need no more. */
const short = (n: number): number => Math.round(n * 100) / 100;

/** The two ends behind the tip of an arrow. */
export function arrowHead(from: Point, to: Point, length: number): [Point, Point] {
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const end = (turn: number): Point => [
    to[0] - length * Math.cos(angle + turn),
    to[1] - length * Math.sin(angle + turn),
  ];
  return [end(0.45), end(-0.45)];
}

/** One shape as an element of SVG, in pixels. */
function elementOf(shape: Shape, { width, height }: Size): string {
  const longer = Math.max(width, height);
  const px = ([x, y]: Point): Point => [short(x * width), short(y * height)];
  const { color, dash } = INKS[shape.tint];
  const pen = PEN.line * longer;
  const stroke = `fill="none" stroke="${color}" stroke-width="${short(pen)}" stroke-linecap="round" stroke-linejoin="round"`;
  const pattern = dash.length ? ` stroke-dasharray="${dash.map((n) => short(n * pen)).join(' ')}"` : '';
  switch (shape.shape) {
    case 'box': {
      const [a, b] = [px(shape.from), px(shape.to)];
      const [x, y] = [Math.min(a[0], b[0]), Math.min(a[1], b[1])];
      return `<rect x="${x}" y="${y}" width="${short(Math.abs(b[0] - a[0]))}" height="${short(Math.abs(b[1] - a[1]))}" ${stroke}${pattern}/>`;
    }
    case 'line':
    case 'arrow': {
      const [a, b] = [px(shape.from), px(shape.to)];
      const line = `<path d="M${a.join(' ')}L${b.join(' ')}" ${stroke}${pattern}/>`;
      if (shape.shape === 'line') return line;
      const [left, right] = arrowHead(a, b, PEN.head * longer);
      return `${line}<path d="M${left.map(short).join(' ')}L${b.join(' ')}L${right.map(short).join(' ')}" ${stroke}/>`;
    }
    case 'words': {
      const [x, y] = px(shape.at);
      const size = PEN.letters * longer;
      const halo = `fill="none" stroke="#ffffff" stroke-width="${short(size / 5)}" stroke-linejoin="round"`;
      const text = (look: string) =>
        `<text x="${x}" y="${short(y + size)}" font-family="${FACE}, Georgia, serif" font-size="${short(size)}" font-weight="600" ${look}>${escapeHtml(withoutControls(shape.text))}</text>`;
      // The halo lies under the letters; not every reader of SVG knows an order of painting.
      return text(halo) + text(`fill="${color}"`);
    }
    case 'stroke':
      return `<path d="M${shape.points.map((p) => px(p).join(' ')).join('L')}" ${stroke}${pattern}/>`;
  }
}

/** A drawing as SVG (SVG 2, W3C), as large as its picture, with nothing but what was drawn. */
export function drawingSvg(drawing: readonly Shape[], size: Size): string {
  const body = drawing.map((shape) => elementOf(shape, size)).join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${size.width}" height="${size.height}" viewBox="0 0 ${size.width} ${size.height}">${body}</svg>`;
}

/** How a drawing is said in words, for those who do not see it: what is drawn, and the words in it. */
export function drawingInWords(drawing: readonly Shape[]): string {
  const names: Record<Shape['shape'], string> = {
    box: 'box',
    arrow: 'arrow',
    line: 'line',
    words: '',
    stroke: 'drawn line',
  };
  const counted = (['box', 'arrow', 'line', 'stroke'] as const).flatMap((kind) => {
    const n = drawing.filter((s) => s.shape === kind).length;
    return n ? [`${n} ${names[kind]}${n === 1 ? '' : kind === 'box' ? 'es' : 's'}`] : [];
  });
  const words = drawing.flatMap((s) => (s.shape === 'words' ? [`“${s.text}”`] : []));
  return [...counted, ...words].join(', ');
}
