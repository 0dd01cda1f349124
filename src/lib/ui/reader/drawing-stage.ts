import type Konva from 'konva';
import { arrowHead, INKS, PEN, type Point, type Shape } from '$lib/core/figures';
import type { Tint } from '$lib/core/passages';

/** What the pointer does on a picture: take hold of what is drawn, or draw something. */
export const TOOLS = ['hold', 'arrow', 'box', 'line', 'words', 'stroke'] as const;
export type Tool = (typeof TOOLS)[number];

/** What is shown: everything drawn, what of it is taken hold of, and with what the next thing is drawn. */
export interface Showing {
  drawing: readonly Shape[];
  chosen: string | undefined;
  tool: Tool;
  tint: Tint;
  /** Of the picture on the screen, in pixels. */
  width: number;
  height: number;
}

/** Told of what is done on a picture. */
export interface Told {
  /** Something was drawn or moved; `shape` is as it is now. */
  put: (shape: Shape) => void;
  choose: (id: string | undefined) => void;
}

/** A line shorter than this, in pixels, is a click. */
const CLICK = 5;
/** Points of a stroke are at least so far apart, in pixels. */
const APART = 2;

const inside = (n: number) => Math.min(1, Math.max(0, n));

/** A shape moved by parts of the width and height of its picture, within it. */
export function moved(shape: Shape, dx: number, dy: number): Shape {
  const by = ([x, y]: Point): Point => [inside(x + dx), inside(y + dy)];
  switch (shape.shape) {
    case 'words':
      return { ...shape, at: by(shape.at) };
    case 'stroke':
      return { ...shape, points: shape.points.map(by) };
    default:
      return { ...shape, from: by(shape.from), to: by(shape.to) };
  }
}

/** A shape with its end moved by parts of the width and height of its picture; one without an end stays as it is. */
export const stretched = (shape: Shape, dx: number, dy: number): Shape =>
  'to' in shape ? { ...shape, to: [inside(shape.to[0] + dx), inside(shape.to[1] + dy)] } : shape;

/** The id of a new shape: one no other of the drawing has. */
export const newShapeId = (): string => crypto.randomUUID();

/** A layer over a picture on which is drawn, in an element as large as the picture. Loads the drawing library. */
export async function openStage(container: HTMLDivElement, told: Told) {
  const { default: K } = await import('konva');
  const stage = new K.Stage({ container, width: 1, height: 1 });
  const layer = new K.Layer();
  stage.add(layer);
  let now: Showing | undefined;
  let begun: Shape | undefined;
  let start: { x: number; y: number } | undefined;

  const at = (): Point | undefined => {
    const p = stage.getPointerPosition();
    return p && now ? [inside(p.x / now.width), inside(p.y / now.height)] : undefined;
  };

  function nodesOf(shape: Shape, { width, height }: Showing): Konva.Shape[] {
    const px = ([x, y]: Point): Point => [x * width, y * height];
    const longer = Math.max(width, height);
    const { color, dash } = INKS[shape.tint];
    const pen = Math.max(1.5, PEN.line * longer);
    const line = {
      stroke: color,
      strokeWidth: pen,
      lineCap: 'round',
      lineJoin: 'round',
      hitStrokeWidth: 16,
      ...(dash.length ? { dash: dash.map((n) => n * pen) } : {}),
    } as const;
    switch (shape.shape) {
      case 'box': {
        const [[x1, y1], [x2, y2]] = [px(shape.from), px(shape.to)];
        const [x, y] = [Math.min(x1, x2), Math.min(y1, y2)];
        return [new K.Rect({ x, y, width: Math.abs(x2 - x1), height: Math.abs(y2 - y1), ...line })];
      }
      case 'line':
      case 'arrow': {
        const [from, to] = [px(shape.from), px(shape.to)];
        const shaft = new K.Line({ points: [...from, ...to], ...line });
        if (shape.shape === 'line') return [shaft];
        const [left, right] = arrowHead(from, to, PEN.head * longer);
        return [shaft, new K.Line({ points: [...left, ...to, ...right], ...line, dash: [] })];
      }
      case 'words': {
        const [x, y] = px(shape.at);
        const fontSize = PEN.letters * longer;
        return [
          new K.Text({
            x,
            y,
            text: shape.text,
            fontSize,
            fontFamily: 'Source Serif 4 Variable, Georgia, serif',
            fontStyle: '600',
            fill: color,
            stroke: '#fff',
            strokeWidth: fontSize / 5,
            fillAfterStrokeEnabled: true,
          }),
        ];
      }
      case 'stroke':
        return [new K.Line({ points: shape.points.flatMap(px), ...line })];
    }
  }

  /** A knob at an end of a shape, to move that end by. */
  function knob(shape: Extract<Shape, { from: Point }>, end: 'from' | 'to', { width, height }: Showing) {
    const [x, y] = shape[end];
    const circle = new K.Circle({
      x: x * width,
      y: y * height,
      radius: 6,
      fill: '#fff',
      stroke: '#0e6378',
      strokeWidth: 2,
      hitStrokeWidth: 14,
      draggable: true,
    });
    circle.on('dragend', () =>
      told.put({ ...shape, [end]: [inside(circle.x() / width), inside(circle.y() / height)] }),
    );
    return circle;
  }

  function paint(): void {
    if (!now) return;
    const showing = now;
    stage.size({ width: showing.width, height: showing.height });
    layer.destroyChildren();
    const shapes = begun ? [...showing.drawing, begun] : showing.drawing;
    for (const shape of shapes) {
      const chosen = shape.id === showing.chosen;
      const group = new K.Group({ draggable: showing.tool === 'hold' });
      if (chosen) group.opacity(0.85);
      group.add(...nodesOf(shape, showing));
      group.on('pointerdown', () => showing.tool === 'hold' && told.choose(shape.id));
      group.on('dragend', () =>
        told.put(moved(shape, group.x() / showing.width, group.y() / showing.height)),
      );
      layer.add(group);
      if (chosen && 'from' in shape) layer.add(knob(shape, 'from', showing), knob(shape, 'to', showing));
    }
    layer.batchDraw();
  }

  stage.on('pointerdown', ({ target }) => {
    const point = at();
    if (!now || !point) return;
    const { tool, tint } = now;
    if (tool === 'hold') {
      if (target === (stage as Konva.Node)) told.choose(undefined);
      return;
    }
    const id = newShapeId();
    if (tool === 'words') return told.put({ id, tint, shape: 'words', at: point, text: '…' });
    start = stage.getPointerPosition() ?? undefined;
    begun =
      tool === 'stroke'
        ? { id, tint, shape: 'stroke', points: [point] }
        : { id, tint, shape: tool, from: point, to: point };
  });
  stage.on('pointermove', () => {
    const point = at();
    if (!begun || !point || !now) return;
    if (begun.shape === 'stroke') {
      const last = begun.points.at(-1)!;
      const away = Math.hypot((point[0] - last[0]) * now.width, (point[1] - last[1]) * now.height);
      if (away >= APART && begun.points.length < 2_000)
        begun = { ...begun, points: [...begun.points, point] };
    } else if ('to' in begun) begun = { ...begun, to: point };
    paint();
  });
  const finish = () => {
    const made = begun;
    const end = stage.getPointerPosition();
    begun = undefined;
    if (!made || !start) return;
    const far = end ? Math.hypot(end.x - start.x, end.y - start.y) : 0;
    if (made.shape === 'stroke' ? made.points.length >= 2 : far >= CLICK) told.put(made);
    else paint();
  };
  stage.on('pointerup', finish);
  stage.on('pointerleave', finish);

  return {
    show(next: Showing): void {
      now = next;
      paint();
    },
    close: () => stage.destroy(),
  };
}
export type DrawingStage = Awaited<ReturnType<typeof openStage>>;
