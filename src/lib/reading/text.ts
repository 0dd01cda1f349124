import { unmarkedUtf16 } from './sniff';

/** Text of a file's bytes: UTF-8 (or UTF-16, with its mark or plainly without), else Latin-1, which every byte sequence is. */
export function textOfBytes(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  const unmarked = unmarkedUtf16(bytes);
  if (unmarked) return new TextDecoder(unmarked).decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}
