/** What a file is by its first bytes. */
export type Sniffed =
  | 'pdf'
  | 'html'
  | 'image/png'
  | 'image/jpeg'
  | 'image/webp'
  | 'image/gif'
  | 'image/tiff'
  | 'zip'
  | 'audio'
  | 'text'
  | 'binary';

const ascii = (bytes: Uint8Array, from: number, to: number) =>
  String.fromCharCode(...bytes.subarray(from, to));

/**
 * The byte order of text in UTF-16 that has no mark: every other byte of its beginning is zero, as in most text that has
 * markup. `undefined` for anything else.
 */
export function unmarkedUtf16(bytes: Uint8Array): 'utf-16le' | 'utf-16be' | undefined {
  const head = bytes.subarray(0, 256 - (bytes.length % 2));
  if (head.length < 8) return undefined;
  const zeros = [0, 0];
  for (let i = 0; i < head.length; i++) if (head[i] === 0) zeros[i % 2]!++;
  const half = head.length / 2;
  if (zeros[1]! > half * 0.7 && zeros[0] === 0) return 'utf-16le';
  return zeros[0]! > half * 0.7 && zeros[1] === 0 ? 'utf-16be' : undefined;
}

/** The tags with which bytes are taken for HTML, whatever they are called (WHATWG MIME Sniffing, 7.1), and a few more. */
const HTML_START =
  /^(?:\xef\xbb\xbf)?\s*(?:<!doctype html|<!--|<\?xml[^>]*>\s*<(?:!doctype html|html)|<(?:html|head|script|iframe|h[1-6]|div|font|table|a|style|title|b|body|br|p|meta|link|base|main|article|section|header|nav|span|ul|ol)[\s>/])/i;

/**
 * Tells a file by its signature: WHATWG MIME Sniffing for HTML and pictures, ISO 32000 for PDF (the header may begin
 * within the first 1,024 bytes).
 */
export function sniffBytes(bytes: Uint8Array): Sniffed {
  const start = ascii(bytes, 0, Math.min(bytes.length, 1_024));
  if (/^[^\n]{0,1000}%PDF-\d/s.test(start) && start.includes('%PDF-')) return 'pdf';
  if (start.startsWith('\x89PNG\r\n')) return 'image/png';
  if (start.startsWith('\xff\xd8\xff')) return 'image/jpeg';
  if (/^GIF8[79]a/.test(start)) return 'image/gif';
  if (start.startsWith('RIFF') && start.slice(8, 12) === 'WEBP') return 'image/webp';
  if (start.startsWith('II*\0') || start.startsWith('MM\0*')) return 'image/tiff';
  if (start.startsWith('PK\x03\x04')) return 'zip';
  if (
    /^(?:OggS|ID3|\x1aE\xdf\xa3)/.test(start) ||
    start.slice(4, 8) === 'ftyp' ||
    (start.startsWith('RIFF') && start.slice(8, 12) === 'WAVE')
  )
    return 'audio';
  if (HTML_START.test(start)) return 'html';
  const utf16 = /^(?:\xff\xfe|\xfe\xff)/.test(start) || unmarkedUtf16(bytes) !== undefined;
  if (utf16) return HTML_START.test(start.replace(/^(?:\xff\xfe|\xfe\xff)|\0/g, '')) ? 'html' : 'text';
  if (bytes.subarray(0, 1_024).includes(0)) return 'binary';
  return 'text';
}

/** The media type of sound, by its signature (WHATWG MIME Sniffing, 6.2). Video with sound in the same boxes counts as sound. */
export function soundType(bytes: Uint8Array): string {
  const start = ascii(bytes, 0, 12);
  if (start.startsWith('OggS')) return 'audio/ogg';
  if (start.startsWith('RIFF')) return 'audio/wav';
  if (start.startsWith('\x1aE\xdf\xa3')) return 'audio/webm';
  return start.slice(4, 8) === 'ftyp' ? 'audio/mp4' : 'audio/mpeg';
}

/** Width and height of a picture in pixels, from its header alone; `undefined` when the header does not say. */
export function pictureSize(bytes: Uint8Array): { width: number; height: number } | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kind = sniffBytes(bytes);
  if (kind === 'image/png' && bytes.length > 24)
    return { width: view.getUint32(16), height: view.getUint32(20) };
  if (kind === 'image/gif' && bytes.length > 10)
    return { width: view.getUint16(6, true), height: view.getUint16(8, true) };
  if (kind === 'image/webp' && bytes.length > 30) {
    const form = ascii(bytes, 12, 16);
    const at24 = (i: number) => bytes[i]! | (bytes[i + 1]! << 8) | (bytes[i + 2]! << 16);
    if (form === 'VP8X') return { width: at24(24) + 1, height: at24(27) + 1 };
    if (form === 'VP8 ')
      return { width: view.getUint16(26, true) & 0x3fff, height: view.getUint16(28, true) & 0x3fff };
    if (form === 'VP8L') {
      const bits = view.getUint32(21, true);
      return { width: (bits & 0x3fff) + 1, height: ((bits >> 14) & 0x3fff) + 1 };
    }
  }
  if (kind === 'image/jpeg')
    for (let at = 2; at + 9 < bytes.length;) {
      if (bytes[at] !== 0xff) return undefined;
      const marker = bytes[at + 1]!;
      if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker))
        return { height: view.getUint16(at + 5), width: view.getUint16(at + 7) };
      at += 2 + view.getUint16(at + 2);
    }
  return undefined;
}

/** Most pixels of a picture that is opened: 50 million, a page scanned at 600 dpi; and of one of its sides. */
export const MOST_PIXELS = 50_000_000;
export const LONGEST_SIDE = 30_000;

/** Whether a picture of a size is opened. What its header says is believed only for refusing it. */
export const isOpened = ({ width, height }: { width: number; height: number }): boolean =>
  width > 0 && height > 0 && Math.max(width, height) <= LONGEST_SIDE && width * height <= MOST_PIXELS;
