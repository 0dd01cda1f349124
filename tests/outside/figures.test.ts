/**
 * Figures cut out of PDFs. Outside: pdf-lib sets a picture of known pixels on a page; what is cut out must be those pixels, as
 * many of them as the picture has. Drawings are looked at by an SVG reader that is not ours (Skia’s).
 */
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { degrees, PDFDocument, StandardFonts } from 'pdf-lib';
import { beforeAll, describe, expect, it } from 'vitest';
import { captionNear, type Shape } from '../../src/lib/core/figures';
import { cutLeaf, cutPicture, withDrawing } from '../../src/lib/reading/cut';
import { readPdfText } from '../../src/lib/reading/pdf';

/** A picture of squares of 40 by 40 pixels, each of its own grey. */
function squares(width: number, height: number): Buffer {
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  for (let x = 0; x < width; x += 40)
    for (let y = 0; y < height; y += 40) {
      const grey = 10 + (((x / 40) * 7 + (y / 40) * 31) % 240);
      context.fillStyle = `rgb(${grey},${grey},${grey})`;
      context.fillRect(x, y, 40, 40);
    }
  return canvas.toBuffer('image/png');
}

async function pixels(png: Uint8Array) {
  const image = await loadImage(Buffer.from(png));
  const canvas = createCanvas(image.width, image.height);
  canvas.getContext('2d').drawImage(image, 0, 0);
  const { data } = canvas.getContext('2d').getImageData(0, 0, image.width, image.height);
  return (x: number, y: number) => [...data.slice((y * image.width + x) * 4, (y * image.width + x) * 4 + 3)];
}

let path: string;
const PICTURE = squares(800, 400);
beforeAll(async () => {
  const doc = await PDFDocument.create();
  const font = await doc.embedFont(StandardFonts.TimesRoman);
  const page = doc.addPage([400, 600]);
  // 800 pixels on 200 points: four to a point, 288 to the inch.
  page.drawImage(await doc.embedPng(PICTURE), { x: 100, y: 400, width: 200, height: 100 });
  page.drawText('Figure 1. Squares of many greys,', { x: 100, y: 385, size: 9, font });
  page.drawText('as they were set.', { x: 100, y: 374, size: 9, font });
  page.drawText('The text goes on.', { x: 60, y: 300, size: 12, font });
  const turned = doc.addPage([400, 600]);
  turned.setRotation(degrees(90));
  turned.drawRectangle({ x: 0, y: 0, width: 200, height: 300 });
  path = join(mkdtempSync(join(tmpdir(), 'retexa-figure-')), 'a.pdf');
  writeFileSync(path, await doc.save());
});

describe('a figure of a PDF', () => {
  const box = { x: 100 / 400, y: 100 / 600, width: 200 / 400, height: 100 / 600 };
  it('has as many pixels as its picture, and they are the same', async () => {
    const cut = await cutLeaf(path, 1, box);
    expect([cut.width, cut.height]).toEqual([800, 400]);
    const [before, after] = [await pixels(PICTURE), await pixels(cut.png)];
    for (const [x, y] of [[20, 20], [420, 220], [780, 380], [60, 300]] as const)
      expect(after(x, y)).toEqual(before(x, y)); // prettier-ignore
  });
  it('is at 300 to the inch where nothing on it is a picture', async () => {
    const cut = await cutLeaf(path, 1, { x: 0.1, y: 0.4, width: 0.5, height: 0.2 });
    expect([cut.width, cut.height]).toEqual([833, 500]);
  });
  it('of a page that is turned is what is seen there', async () => {
    // The page is shown 600 by 400 with what was lowest on its left: the black corner is the upper left of what is seen.
    const cut = await cutLeaf(path, 2, { x: 0, y: 0, width: 1, height: 1 });
    const at = await pixels(cut.png);
    expect(cut.width / cut.height).toBeCloseTo(1.5, 2);
    expect(at(20, 20)).toEqual([0, 0, 0]);
    expect(at(cut.width - 20, cut.height - 20)).toEqual([255, 255, 255]);
  });
  it('has its caption found beside it', async () => {
    const { leaves } = await readPdfText(new Uint8Array((await import('node:fs')).readFileSync(path)));
    const { runs, width, height } = leaves[0]!;
    expect(captionNear(runs, box, { width, height })).toEqual({
      number: 'Figure 1',
      caption: 'Squares of many greys, as they were set.',
    });
  });
});

describe('a figure of a picture', () => {
  it('is a part of it, pixel for pixel', async () => {
    const cut = await cutPicture(PICTURE, { x: 0.25, y: 0.5, width: 0.25, height: 0.5 });
    expect([cut.width, cut.height]).toEqual([200, 200]);
    const [before, after] = [await pixels(PICTURE), await pixels(cut.png)];
    expect(after(100, 100)).toEqual(before(300, 300));
  });
  it('is written out with its drawing in the ink of its tint, and with the words in it', async () => {
    const white = createCanvas(400, 200);
    white.getContext('2d').fillStyle = '#fff';
    white.getContext('2d').fillRect(0, 0, 400, 200);
    const drawing: Shape[] = [
      { id: 'a', tint: 'doubt', shape: 'line', from: [0, 0.5], to: [1, 0.5] },
      { id: 'b', tint: 'claim', shape: 'words', at: [0.1, 0.1], text: 'MMMM' },
    ];
    const bare = await pixels((await withDrawing(white.toBuffer('image/png'), [])).png);
    const drawn = await pixels((await withDrawing(white.toBuffer('image/png'), drawing)).png);
    expect(bare(3, 100)).toEqual([255, 255, 255]);
    expect(drawn(3, 100)).toEqual([0xc0, 0x39, 0x2b]);
    const inked = Array.from({ length: 60 * 20 }, (_, i) => drawn(40 + (i % 60), 20 + Math.floor(i / 60)));
    expect(inked.some(([r, g, b]) => r! < 220 && b! < 120 && g! < 180)).toBe(true);
  });
});
