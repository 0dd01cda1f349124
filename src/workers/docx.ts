import { textOfDocx } from '../lib/reading/docx';

/** Reads the text of a .docx document: bytes come in, `text` or a `problem` in words goes out. */
self.onmessage = ({ data }: MessageEvent<Uint8Array>) => {
  try {
    self.postMessage({ text: textOfDocx(data) });
  } catch (error) {
    self.postMessage({ problem: (error as Error).message });
  }
};
