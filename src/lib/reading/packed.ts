import { unzipSync } from 'fflate';

/** Most files in a packed document. */
export const MOST_FILES = 20_000;

/**
 * What a packed file is: an EPUB by its first entry (EPUB Open Container Format 3.3, 4.3), a .docx by the part its text is in
 * (ECMA-376, part 2). Nothing for any other.
 */
export function packedKind(bytes: Uint8Array): 'epub' | 'docx' | undefined {
  let [epub, docx, seen] = [false, false, 0];
  try {
    unzipSync(bytes, {
      filter: ({ name }) => {
        epub ||= name === 'META-INF/container.xml';
        docx ||= name === 'word/document.xml';
        if (++seen > MOST_FILES) throw new RangeError('too many files');
        return false;
      },
    });
  } catch {
    return undefined;
  }
  return epub ? 'epub' : docx ? 'docx' : undefined;
}
