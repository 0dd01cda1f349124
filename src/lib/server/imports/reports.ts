import type { Skipped } from '../../core/formats';
import { scoped, type Context } from '../access/context';
import { getJob, type Job } from '../jobs/repository';
import type { FirstOf } from '../lists/first-of';
import type { Added, ImportInput, ImportQuestion, ImportReport, ImportResult } from './types';

/** What the import's own page shows of a report; the report itself can be as long as its file. */
export interface ShownReport {
  kind: 'done';
  added: number;
  merged: number;
  leftOut: number;
  skipped: FirstOf<Skipped>;
  doubles: FirstOf<ImportReport['doubles'][number]>;
  /** Entries that were read otherwise than written. */
  noted: FirstOf<Added>;
}

/** What is said of an import beside every page. */
export type ImportInBrief =
  | { kind: 'asks'; total: number; here: number }
  | { kind: 'done'; added: number; merged: number; skipped: number };

/** How many lines of a kind a report shows. */
const SHOWN = 200;

/** The last imports as their page shows them: questions whole, reports with the first lines of each kind. */
export async function recentImports(ctx: Context): Promise<Job<ImportInput, ImportQuestion | ShownReport>[]> {
  const rows = (await scoped<{ id: string; kind: string; created: string }>(ctx, 'job')
    .where({ kind: 'import' })
    .orderBy('created', 'desc')
    .limit(8)
    .select('id')) as { id: string }[];
  const jobs = (await Promise.all(rows.map((r) => getJob(ctx, r.id)))) as Job<ImportInput, ImportResult>[];
  return jobs.map((job) => ({
    ...job,
    result: job.result?.kind === 'done' ? shownReport(job.result) : job.result,
  }));
}

function shownReport({ added, merged = [], leftOut = 0, skipped, doubles }: ImportReport): ShownReport {
  const firstOf = <T>(items: T[]): FirstOf<T> => ({ total: items.length, items: items.slice(0, SHOWN) });
  return {
    kind: 'done',
    added: added.length,
    merged: merged.length,
    leftOut,
    skipped: firstOf(skipped),
    doubles: firstOf(doubles),
    noted: firstOf([...added, ...merged].filter((a) => a.notes.length)),
  };
}

/** The result of an import in numbers. */
export function inBrief(result: ImportResult): ImportInBrief {
  return result.kind === 'asks'
    ? { kind: 'asks', total: result.total, here: result.here.length }
    : {
        kind: 'done',
        added: result.added.length,
        merged: result.merged.length,
        skipped: result.skipped.length,
      };
}
