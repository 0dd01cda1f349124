/** Pictures that are damaged, or say of themselves what is not so. Each is opened by nobody, and nobody is harmed by it. */
import { createCanvas } from '@napi-rs/canvas';
import { deflateSync, crc32 } from 'node:zlib';

function drawn(kind: 'image/png' | 'image/jpeg' | 'image/webp'): Buffer {
  const canvas = createCanvas(320, 200);
  const context = canvas.getContext('2d');
  context.fillStyle = '#fff';
  context.fillRect(0, 0, 320, 200);
  context.fillStyle = '#123';
  for (let i = 0; i < 40; i++) context.fillRect((i * 37) % 320, (i * 53) % 200, 9, 7);
  return kind === 'image/png'
    ? canvas.toBuffer('image/png')
    : kind === 'image/jpeg'
      ? canvas.toBuffer('image/jpeg', 80)
      : canvas.toBuffer('image/webp', 80);
}

/** A chunk of a PNG (W3C PNG, 5.3): length, name, data, check sum. */
function chunk(name: string, data: Buffer): Buffer {
  const body = Buffer.concat([Buffer.from(name, 'latin1'), data]);
  const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
  length.writeUInt32BE(data.length);
  sum.writeUInt32BE((crc32 as (b: Buffer) => number)(body) >>> 0);
  return Buffer.concat([length, body, sum]);
}
const SIGNATURE = Buffer.from('89504e470d0a1a0a', 'hex');
function header(width: number, height: number, depth = 8, colour = 2): Buffer {
  const data = Buffer.alloc(13);
  data.writeUInt32BE(width, 0);
  data.writeUInt32BE(height, 4);
  data.set([depth, colour, 0, 0, 0], 8);
  return chunk('IHDR', data);
}
const png = (...chunks: Buffer[]) => Buffer.concat([SIGNATURE, ...chunks, chunk('IEND', Buffer.alloc(0))]);
const rows = (width: number, height: number) =>
  chunk('IDAT', deflateSync(Buffer.alloc((width * 3 + 1) * height)));

/** Where the size stands in a JPEG, and what is behind it (ITU-T T.81, B.2.2). */
function afterSize(jpeg: Buffer): number {
  for (let at = 2; at < jpeg.length;) {
    const marker = jpeg[at + 1]!;
    const length = jpeg.readUInt16BE(at + 2);
    if (marker >= 0xc0 && marker <= 0xc2) return at + 2 + length;
    at += 2 + length;
  }
  throw new Error('no frame header');
}

/** Fifteen damaged pictures by what is wrong with them. */
export function damagedPictures(): Record<string, Buffer> {
  const [whole, jpeg, webp] = [drawn('image/png'), drawn('image/jpeg'), drawn('image/webp')];
  const flipped = Buffer.from(whole);
  for (let i = 60; i < flipped.length; i += 97) flipped[i]! ^= 0xff;
  const oddJpeg = Buffer.from(jpeg);
  for (let i = afterSize(jpeg) + 40; i < oddJpeg.length; i += 61) oddJpeg[i] = 0xff;
  return {
    'a GIF that is only its header': Buffer.from('GIF89a\x20\x03\x58\x02\0\0\0', 'latin1'),
    'a GIF cut in its colour table': Buffer.from('GIF89a\x20\x03\x58\x02\xf7\0\0abcabc', 'latin1'),
    'a GIF whose frame lies outside of it': Buffer.concat([
      Buffer.from('GIF89a\x01\0\x01\0\x80\0\0\0\0\0\xff\xff\xff', 'latin1'),
      Buffer.from(',\xff\xff\xff\xff\xff\xff\xff\xff\0\x02\x02D\x01\0;', 'latin1'),
    ]),
    'the first 33 bytes of a PNG': whole.subarray(0, 33),
    'a PNG with two headers': png(header(320, 200), header(9_000, 9_000), rows(320, 200)),
    'a PNG without data': png(header(320, 200)),
    'a PNG with data for another size': png(header(2_000, 2_000), rows(10, 10)),
    'a PNG with bytes turned over': flipped,
    'a PNG of a depth there is not': png(header(320, 200, 77), rows(320, 200)),
    'a PNG of no width': png(header(0, 200), rows(1, 200)),
    'a PNG of one by sixty million': png(header(1, 60_000_000), rows(1, 1)),
    'a JPEG cut after its size': jpeg.subarray(0, afterSize(jpeg)),
    'a JPEG whose data is noise': oddJpeg,
    'a WebP cut at 200 bytes': webp.subarray(0, 200),
    'a WebP that says it is larger than it is': Buffer.concat([
      webp.subarray(0, 4),
      Buffer.from('ffffff7f', 'hex'),
      webp.subarray(8, Math.min(webp.length, 400)),
    ]),
  };
}

/** A picture that is sound, to see that reading goes on. */
export const soundPicture = (): Buffer => drawn('image/png');
