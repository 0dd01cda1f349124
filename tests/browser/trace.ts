import type { Page } from 'puppeteer-core';

/** One task of a page's main thread, in milliseconds: by the clock, and of the processor’s time. */
export interface Task {
  wall: number;
  cpu: number;
}

interface TraceEvent {
  name: string;
  ph: string;
  pid: number;
  tid: number;
  dur?: number;
  tdur?: number;
  args?: { name?: string; data?: { frames?: { url: string; processId?: number }[] } };
}

/**
 * Traces a page from now on. The function given back ends the trace and tells the tasks of the page’s main thread,
 * the longest by the clock first. The two times differ where the machine was busy with something else.
 */
export async function traced(page: Page): Promise<() => Promise<Task[]>> {
  await page.tracing.start({
    categories: ['toplevel', 'disabled-by-default-devtools.timeline', '__metadata'],
  });
  const origin = await page.evaluate(() => location.origin);
  return async () => {
    const file = await page.tracing.stop();
    const { traceEvents } = JSON.parse(Buffer.from(file!).toString('utf8')) as { traceEvents: TraceEvent[] };
    const started = traceEvents.filter((e) => e.name === 'TracingStartedInBrowser').at(-1);
    const process = started?.args?.data?.frames?.find((f) => f.url.startsWith(origin))?.processId;
    const main = traceEvents.find(
      (e) => e.name === 'thread_name' && e.args?.name === 'CrRendererMain' && e.pid === process,
    );
    if (!main) throw new Error('the trace names no main thread of the page');
    return traceEvents
      .filter((e) => e.ph === 'X' && e.pid === main.pid && e.tid === main.tid)
      .map((e) => ({ wall: (e.dur ?? 0) / 1000, cpu: (e.tdur ?? 0) / 1000 }))
      .sort((a, b) => b.wall - a.wall);
  };
}
