import { outlineOfDocx, textOfDocx } from '../lib/reading/docx';

/** What is asked of a .docx document: its bytes, and whether its running text is wanted or its headings. */
export interface DocxAsked {
  bytes: Uint8Array;
  as: 'text' | 'outline';
}

/** Reads a .docx document: bytes come in, `text` or a `problem` in words goes out. */
self.onmessage = ({ data: { bytes, as } }: MessageEvent<DocxAsked>) => {
  try {
    self.postMessage({ text: as === 'text' ? textOfDocx(bytes) : outlineOfDocx(bytes) });
  } catch (error) {
    self.postMessage({ problem: (error as Error).message });
  }
};
