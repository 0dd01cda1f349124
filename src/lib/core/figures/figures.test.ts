import { describe, expect, it } from 'vitest';
import {
  boxOfFragment,
  boxOfSvg,
  boxToSvg,
  captionNear,
  drawingInWords,
  drawingSvg,
  figurePlace,
  picturesIn,
  readCaption,
  shape,
  type Box,
  type LeafLine,
  type Shape,
} from './index';

const box: Box = { x: 0.1, y: 0.25, width: 0.5, height: 0.4 };

describe('a caption', () => {
  it('is told apart from its number, in the languages that are read', () => {
    expect(readCaption('Fig. 3. A sluice at low water')).toEqual({
      number: 'Fig. 3',
      caption: 'A sluice at low water',
    });
    expect(readCaption('Abbildung 12: Das Wehr').number).toBe('Abbildung 12');
    expect(readCaption('TABLE II — Tides by year')).toEqual({ number: 'TABLE II', caption: 'Tides by year' });
    expect(readCaption('Figure 2.1a The pond').number).toBe('Figure 2.1a');
    expect(readCaption('Planche IV. Le moulin').number).toBe('Planche IV');
  });
  it('without a number is its words; a word that only begins as a name does is none', () => {
    expect(readCaption('The mill at dusk')).toEqual({ number: '', caption: 'The mill at dusk' });
    expect(readCaption('Figurative speech 3').number).toBe('');
    expect(readCaption('Tables turned').number).toBe('');
  });

  const line = (text: string, y: number, more: Partial<LeafLine> = {}): LeafLine => ({
    text,
    x: 60,
    y,
    width: 300,
    size: 9,
    ...more,
  });
  const page = { width: 600, height: 800 };
  // The box stands from 60 to 360 across and from 200 to 520 down.
  it('is found under a box, with the lines that go on from it and words parted at their ends joined', () => {
    const lines = [
      line('Figure 1. Another', 180),
      line('Figure 2. A tide mill with its', 534),
      line('pond and the sluice-', 545),
      line('gates open', 556),
      line('The text goes on here.', 590, { size: 11 }),
    ];
    expect(captionNear(lines, box, page)).toEqual({
      number: 'Figure 2',
      caption: 'A tide mill with its pond and the sluicegates open',
    });
  });
  it('is found over a table, and ends where that begins', () => {
    const lines = [line('Table 4. Mills by county', 186), line('Kent', 214), line('12', 226)];
    expect(captionNear(lines, box, page)).toEqual({ number: 'Table 4', caption: 'Mills by county' });
  });
  it('of the column beside is not taken, nor one far away', () => {
    expect(captionNear([line('Figure 7. Beside', 534, { x: 400 })], box, page)).toBeUndefined();
    expect(captionNear([line('Figure 8. Far', 700)], box, page)).toBeUndefined();
  });
});

describe('a box', () => {
  it('goes out as an SVG selector and comes in again', () => {
    expect(boxOfSvg(boxToSvg(box))).toEqual({
      x: 0.1,
      y: 0.25,
      width: expect.closeTo(0.5, 9) as number,
      height: expect.closeTo(0.4, 9) as number,
    });
  });
  it('is read from the SVG of the model’s example: a path of straight lines, of a picture of known size', () => {
    // Web Annotation Data Model, 4.2.7, example 26 has a path in an SVG without a viewBox; numbers of our own.
    const svg = '<svg xmlns="http://www.w3.org/2000/svg"><path d="M 10,20 L 60,20 60,70 10,70 z"/></svg>';
    expect(boxOfSvg(svg, { width: 100, height: 100 })).toEqual({
      x: 0.1,
      y: 0.2,
      width: 0.5,
      height: expect.closeTo(0.5, 9) as number,
    });
    expect(boxOfSvg(svg)).toBeUndefined();
  });
  it('is around circles, ellipses and polygons, cut at the edges', () => {
    expect(boxOfSvg('<svg viewBox="0 0 10 10"><circle cx="5" cy="5" r="10"/></svg>')).toEqual({
      x: 0,
      y: 0,
      width: 1,
      height: 1,
    });
    expect(boxOfSvg('<svg width="10" height="10"><ellipse cx="5" cy="5" rx="2" ry="1"/></svg>')).toEqual({
      x: 0.3,
      y: 0.4,
      width: expect.closeTo(0.4, 9) as number,
      height: expect.closeTo(0.2, 9) as number,
    });
  });
  it('is read from a media fragment (Media Fragments URI 1.0, 4.2.2)', () => {
    expect(boxOfFragment('xywh=percent:25,25,50,50')).toEqual({ x: 0.25, y: 0.25, width: 0.5, height: 0.5 });
    expect(boxOfFragment('#xywh=160,120,320,240', { width: 640, height: 480 })).toEqual({
      x: 0.25,
      y: 0.25,
      width: 0.5,
      height: 0.5,
    });
    expect(boxOfFragment('#xywh=pixel:160,120,320,240')).toBeUndefined();
    expect(boxOfFragment('#t=10,20')).toBeUndefined();
  });
  it('beyond the page or of no size is refused', () => {
    const at = (b: Box) => figurePlace.safeParse({ on: 'leaf', leaf: 1, box: b }).success;
    expect(at(box)).toBe(true);
    expect(at({ ...box, x: 0.7 })).toBe(false);
    expect(at({ ...box, width: 0 })).toBe(false);
  });
});

describe('the pictures of a page', () => {
  it('have the captions of the figures they are in', () => {
    const [a, b, c] = ['a', 'b', 'c'].map((letter) => letter.repeat(64));
    const img = (sha: string | undefined, alt: string) =>
      `<img src="pictures/${sha}" alt="${alt}" width="9" height="9">`;
    const html = `<p>${img(a, 'without description')}</p><figure>${img(b, 'A &amp; B')}<figcaption class="x">Figure 2. <em>Two</em> gates</figcaption></figure><p>${img(c, '')}</p>`;
    expect(picturesIn(html)).toEqual([
      { sha256: a, alt: '', number: '', caption: '' },
      { sha256: b, alt: 'A & B', number: 'Figure 2', caption: 'Two gates' },
      { sha256: c, alt: '', number: '', caption: '' },
    ]);
  });
});

describe('a drawing', () => {
  const drawing: Shape[] = [
    { id: 'a', tint: 'doubt', shape: 'arrow', from: [0, 0], to: [0.5, 0.5] },
    { id: 'b', tint: 'claim', shape: 'box', from: [0.6, 0.8], to: [0.2, 0.4] },
    { id: 'c', tint: 'term', shape: 'words', at: [0.1, 0.1], text: '<gate> & "weir"' },
  ];
  it('is SVG as large as its picture, boxes drawn from any corner, words never markup', () => {
    const svg = drawingSvg(drawing, { width: 200, height: 100 });
    expect(svg).toContain('width="200" height="100" viewBox="0 0 200 100"');
    expect(svg).toContain('<rect x="40" y="40" width="80" height="40"');
    expect(svg).toContain('&lt;gate&gt; &amp;');
    expect(svg).not.toContain('<gate>');
  });
  it('is said in words', () => {
    expect(drawingInWords(drawing)).toBe('1 box, 1 arrow, “<gate> & "weir"”');
    expect(drawingInWords([])).toBe('');
  });
  it('with a point outside or without words is refused', () => {
    expect(shape.safeParse({ ...drawing[0], to: [1.2, 0] }).success).toBe(false);
    expect(shape.safeParse({ ...drawing[2], text: ' ' }).success).toBe(false);
  });
});
