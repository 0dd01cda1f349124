import type { IncomingMessage, ServerResponse } from 'node:http';

/** What is said in every recording here: a stand-in hears nothing. */
export const SAID = 'umm, ask Tessa whether the gauge, uh, was read at neaps. and who paid for it';

/** A service that writes recordings out: takes one as the field `file` of a form and answers with its words. */
export function transcribe(request: IncomingMessage, response: ServerResponse): void {
  let [bytes, head] = [0, ''];
  request.on('data', (part: Buffer) => {
    if (head.length < 2_000) head += part.toString('latin1');
    bytes += part.length;
  });
  request.on('end', () => {
    const form = /^multipart\/form-data/.test(request.headers['content-type'] ?? '');
    const ok = request.method === 'POST' && form && /name="file"/.test(head) && bytes > 100;
    response
      .writeHead(ok ? 200 : 422, { 'content-type': 'application/json' })
      .end(JSON.stringify(ok ? { text: SAID } : { error: 'no recording in the form' }));
  });
}
