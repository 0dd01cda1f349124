import type { TextCitation, Tree } from '$lib/core/citing';
import type { CslItem } from '$lib/core/source';
import type { FromPrinting, ToPrinting } from '../../../workers/printing';
import { call } from '../frame/client';

/** What citations are printed with, in a worker of its own: typing never waits for it. */
export function printingOf(told: (message: FromPrinting) => void) {
  const worker = new Worker(new URL('../../../workers/printing.ts', import.meta.url), { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<FromPrinting>) => told(data);
  worker.onerror = () =>
    told({ what: 'trouble', words: 'Citations are not printed. Load the page again; nothing is lost.' });
  const say = (message: ToPrinting) => worker.postMessage(message);
  let turn = 0;
  return {
    /** Prints in another style from now on. Throws an ApiError when it cannot be had. */
    async style(style: string, locale: string): Promise<void> {
      const sent = await call<{ style: Tree; locale: Tree; lang: string }>(
        'GET',
        `/api/styles/sent?${new URLSearchParams({ style, locale })}`,
      );
      say({ what: 'style', ...sent });
    },
    /** Works that came or were changed. */
    works: (works: CslItem[]): void => say({ what: 'works', works }),
    /** The text as it is now; gives its turn, which the answer names. */
    text(works: string[], citations: TextCitation[]): number {
      say({ what: 'text', turn: ++turn, works, citations });
      return turn;
    },
    end: (): void => worker.terminate(),
  };
}
