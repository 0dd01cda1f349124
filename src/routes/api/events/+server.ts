import { whenEnding } from '$lib/server/ending';
import { listen, whenEnded } from '$lib/server/access/events';
import type { RequestHandler } from './$types';

/** What happens in the library, as server-sent events, for as long as the page is open. */
export const GET: RequestHandler = ({ locals }) => {
  let leave = () => {};
  const stream = new ReadableStream<string>({
    start(controller) {
      const send = (text: string) => {
        try {
          controller.enqueue(text);
        } catch {
          leave();
        }
      };
      const ends = () => {
        leave();
        controller.close();
      };
      const stop = listen(locals.ctx.libraryId, (event) => send(`data: ${JSON.stringify(event)}\n\n`));
      const stay = whenEnded(locals.ctx.personId, () => ends());
      const beat = setInterval(() => send(': beat\n\n'), 25_000);
      leave = () => {
        stop();
        stay();
        clearInterval(beat);
        whenEnding.removeEventListener('abort', ends);
      };
      whenEnding.addEventListener('abort', ends);
      send(': open\n\n');
    },
    cancel() {
      leave();
    },
  });
  return new Response(stream.pipeThrough(new TextEncoderStream()), {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' },
  });
};
