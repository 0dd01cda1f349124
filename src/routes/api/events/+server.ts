import { listen } from '$lib/server/events';
import type { RequestHandler } from './$types';

/** What happens in the library, as server-sent events, for as long as the page is open. */
export const GET: RequestHandler = ({ locals }) => {
  let stop = () => {};
  let beat: NodeJS.Timeout | undefined;
  const stream = new ReadableStream<string>({
    start(controller) {
      const send = (text: string) => {
        try {
          controller.enqueue(text);
        } catch {
          stop();
        }
      };
      send(': open\n\n');
      beat = setInterval(() => send(': beat\n\n'), 25_000);
      stop = listen(locals.ctx.libraryId, (event) => send(`data: ${JSON.stringify(event)}\n\n`));
    },
    cancel() {
      stop();
      clearInterval(beat);
    },
  });
  return new Response(stream.pipeThrough(new TextEncoderStream()), {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' },
  });
};
