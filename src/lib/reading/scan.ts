import { mkdtempSync, rmSync, symlinkSync } from 'node:fs';
import { createRequire } from 'node:module';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { Worker } from 'tesseract.js';
import { RECOGNISED, type Leaf, type Recognised as Language } from '../core/documents';
import { Unreadable } from './failure';
import { isOpened, LONGEST_SIDE, MOST_PIXELS, pictureSize } from './sniff';

const require = createRequire(import.meta.url);

/** The recogniser that runs, and for which languages: it is started anew for others. */
let recogniser: { languages: string; folder: string; worker: Promise<Worker> } | undefined;
let idle: NodeJS.Timeout | undefined;

/** A folder in which the data of all languages is found, as the recogniser asks for it; it is gone with the recogniser. */
function dataFolder(): string {
  const folder = mkdtempSync(join(tmpdir(), 'retexa-languages-'));
  for (const code of Object.keys(RECOGNISED)) {
    const home = dirname(require.resolve(`@tesseract.js-data/${code}/package.json`));
    const file = `${code}.traineddata.gz`;
    symlinkSync(join(home, '4.0.0_best_int', file), join(folder, file));
  }
  return folder;
}

async function start(languages: readonly Language[], langPath: string): Promise<Worker> {
  const { createWorker } = (await import('tesseract.js')).default;
  return createWorker([...languages], 1, { langPath, cacheMethod: 'none', errorHandler: () => undefined });
}

async function recogniserFor(languages: readonly Language[]): Promise<Worker> {
  const wanted = languages.join(' ');
  if (recogniser && recogniser.languages !== wanted) await endRecogniser();
  if (!recogniser) {
    const folder = dataFolder();
    recogniser = { languages: wanted, folder, worker: start(languages, folder) };
  }
  return recogniser.worker;
}

/** Ends the recogniser; the next picture starts it again. */
export async function endRecogniser(): Promise<void> {
  clearTimeout(idle);
  const running = recogniser;
  recogniser = undefined;
  await (await running?.worker.catch(() => undefined))?.terminate();
  if (running) rmSync(running.folder, { recursive: true, force: true });
}

/** The picture as recognition and the reader take it, with its size in pixels; refuses what is too large to open. */
async function prepared(bytes: Uint8Array): Promise<{ png: Buffer; width: number; height: number }> {
  const size = pictureSize(bytes);
  if (!size)
    throw new Unreadable(
      'The picture is damaged or of a kind that cannot be opened. PNG, JPEG, WebP and GIF can.',
    );
  if (!isOpened(size))
    throw new Unreadable(
      `The picture is ${size.width} × ${size.height} pixels; at most ${MOST_PIXELS / 1e6} million are opened, and at most ${LONGEST_SIDE.toLocaleString('en')} a side.`,
    );
  const { loadImage, createCanvas } = await import('@napi-rs/canvas');
  const image = await loadImage(Buffer.from(bytes)).catch(() => {
    throw new Unreadable('The picture is damaged and cannot be opened.');
  });
  // Photos of pages come with many more pixels than letters need; about 2,400 across a page is 300 dpi.
  const scale = Math.min(1, 2_400 / Math.max(image.width, image.height * 0.7));
  const canvas = createCanvas(
    Math.max(1, Math.round(image.width * scale)),
    Math.max(1, Math.round(image.height * scale)),
  );
  const context = canvas.getContext('2d');
  context.fillStyle = '#fff';
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  return { png: canvas.toBuffer('image/png'), width: canvas.width, height: canvas.height };
}

/** What was read in a picture: its text with places, and how sure the recogniser is of it, 0 to 100. */
export interface Recognised {
  leaf: Leaf;
  sureness: number;
}

/**
 * Reads the text in a picture of a page, in the languages it is in, with places, as a leaf `width` points wide. Words the recogniser is unsure
 * of (under 30 of 100) are left out rather than guessed at; `sureness` is the mean of those kept.
 */
export async function recognise(
  bytes: Uint8Array,
  languages: readonly Language[] = ['eng'],
  width = 595,
): Promise<Recognised> {
  const picture = await prepared(bytes);
  clearTimeout(idle);
  const worker = await recogniserFor(languages);
  const { data } = await worker.recognize(picture.png, {}, { blocks: true, text: false });
  idle = setTimeout(() => void endRecogniser(), 60_000);
  idle.unref();
  const scale = width / picture.width;
  const leaf: Leaf = { width, height: picture.height * scale, runs: [] };
  let [sum, count] = [0, 0];
  for (const block of data.blocks ?? [])
    for (const paragraph of block.paragraphs)
      for (const line of paragraph.lines) {
        const words = line.words.filter((w) => w.confidence >= 30);
        if (words.length === 0) continue;
        // The row's height counts ascenders and descenders whether the line has them or not, as a type size does.
        const row = line.rowAttributes?.rowHeight ?? line.bbox.y1 - line.bbox.y0;
        const size = Math.max(4, row * scale * 0.8);
        const base = line.baseline?.y0 ? Math.max(line.baseline.y0, line.baseline.y1) : line.bbox.y1;
        for (const [i, word] of words.entries()) {
          sum += word.confidence;
          count++;
          leaf.runs.push({
            text: word.text + (i < words.length - 1 ? ' ' : ''),
            x: word.bbox.x0 * scale,
            y: base * scale,
            width: ((words[i + 1]?.bbox.x0 ?? word.bbox.x1) - word.bbox.x0) * scale,
            size,
          });
        }
      }
  return { leaf, sureness: count ? Math.round(sum / count) : 0 };
}
