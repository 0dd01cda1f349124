import type { DocxAsked } from '../../../workers/docx';

/** The running text of a .docx document, or its headings as Markdown, read in a worker, so that a long document never holds up the page. Throws an Error with words for the person. */
export function readDocx(bytes: Uint8Array<ArrayBuffer>, as: DocxAsked['as'] = 'text'): Promise<string> {
  const worker = new Worker(new URL('../../../workers/docx.ts', import.meta.url), { type: 'module' });
  return new Promise<string>((read, failed) => {
    worker.onmessage = ({ data }: MessageEvent<{ text: string } | { problem: string }>) =>
      'text' in data ? read(data.text) : failed(new Error(data.problem));
    worker.onerror = () =>
      failed(new Error('The document could not be read. Load the page again and try once more.'));
    worker.postMessage({ bytes, as } satisfies DocxAsked, [bytes.buffer]);
  }).finally(() => worker.terminate());
}
