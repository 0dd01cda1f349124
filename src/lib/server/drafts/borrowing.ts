import { ownTexts, type Borrowing, type OwnText } from '../../core/drafting';
import { locatorIn, type Locator } from '../../core/passages';
import { shortLabel } from '../../core/source';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { readingOf } from '../copies';
import { textsAfter, textsCounted } from '../copies/repository';
import { dismissJob } from '../jobs';
import { beginJob, carriesOut } from '../jobs/runner';
import { lastJobAbout, type Job } from '../jobs/repository';
import { getSources } from '../sources/repository';
import type { FromBorrowed, ToBorrowed } from '../workers/borrowed.worker';
import { startThread } from '../workers/thread';
import { getDraft, partsOf } from './repository';
import { sourcesFor } from './works';

/** A run of words of a draft that stands in a kept document, as a person is told of it. */
export interface ToldBorrowing extends Omit<Borrowing, 'document' | 'start' | 'end' | 'others'> {
  /** A source that has them is cited in the same part: the words are not quoted, but they are not claimed either. */
  cited: boolean;
  copyId: string;
  sourceId: string;
  source: string;
  /** The words as the document has them, and the printed place they stand at. */
  theirs: string;
  locator: Locator | null;
  /** Other sources that have the same words. */
  others: { sourceId: string; source: string }[];
}

/** What came of holding a draft against what is kept. */
export interface BorrowedResult {
  draftId: string;
  documents: number;
  /** How many runs there are; the longest of them are told. */
  total: number;
  borrowings: ToldBorrowing[];
}
export type BorrowedInBrief = Pick<BorrowedResult, 'draftId' | 'documents' | 'total'>;

/** Memory of the thread, for the words of a draft and some documents at a time. */
const MEGABYTES = 400;
/** How many documents are read at once. */
const READ = 20;
/** Most runs that are told, the longest first. */
const MOST_TOLD = 300;
/** Longest words that are shown of a run, in characters. */
const SHOWN = 400;

/**
 * Holds the own words of a draft, all of them that are neither quoted nor set apart, against the text of every kept document, in a
 * thread of its own.
 */
carriesOut<{ draftId: string }, BorrowedResult>('borrowed', {
  atOnce: 1,
  words: {
    stopped: 'Stopped. The draft was not held against what is kept.',
    broken: 'Something went wrong inside Retexa while comparing the draft. Nothing was changed; try it again.',
  },
  brief: ({ draftId, documents, total }) => ({ draftId, documents, total }) satisfies BorrowedInBrief,
  async run(ctx, { input: { draftId } }, doing) {
    const thread = startThread<ToBorrowed, FromBorrowed>('borrowed.js', MEGABYTES);
    const stop = () => void thread.end();
    doing.signal.addEventListener('abort', stop);
    try {
      const own = ownTexts(await partsOf(ctx, (await getDraft(ctx, draftId)).id));
      const heard = (message: FromBorrowed) => ('looked' in message ? message.looked : undefined);
      await thread.ask({ own }, heard);
      const total = await textsCounted(ctx);
      const of = new Map<string, string>();
      for (let after = ''; ;) {
        doing.step('Comparing with what is kept', of.size, Math.max(total, of.size));
        const rows = await textsAfter(ctx, after, READ);
        if (rows.length === 0) break;
        await thread.ask({ documents: rows.map(({ id, text }) => ({ id, text })) }, heard);
        for (const { id, sourceId } of rows) of.set(id, sourceId);
        after = rows.at(-1)!.id;
      }
      const found = await thread.ask({ all: true }, (message) => ('found' in message ? message.found : undefined));
      const longest = [...found].sort((a, b) => b.words - a.words).slice(0, MOST_TOLD);
      const told = await toldOf(ctx, found.filter((one) => longest.includes(one)), own, of);
      return async () => ({ draftId, documents: of.size, total: found.length, borrowings: told });
    } finally {
      doing.signal.removeEventListener('abort', stop);
      await thread.end();
    }
  },
}); // prettier-ignore

/** Nothing of a document that went to the bin and on while the draft was compared. */
function goneSince(error: unknown): undefined {
  if (!(error instanceof Refusal)) throw error;
}

/** What was found with its sources, its printed places, and whether it is cited. */
async function toldOf(
  ctx: Context,
  found: readonly Borrowing[],
  own: readonly OwnText[],
  of: ReadonlyMap<string, string>,
): Promise<ToldBorrowing[]> {
  const ids = [...new Set(found.flatMap(({ document, others }) => [document, ...others].map((d) => of.get(d)!)))];
  const labels = new Map((await getSources(ctx, ids)).map((s) => [s.id, shortLabel(s.record)]));
  const known = await sourcesFor(ctx, [...new Set(own.flatMap(({ works }) => works))]);
  const cites = (part: string, sourceId: string) =>
    own.some((o) => o.part === part && o.works.some((w) => (known.get(w)?.id ?? w) === sourceId));
  const told = new Map<Borrowing, ToldBorrowing>();
  // A document is read once, however many runs stand in it.
  for (const document of new Set(found.map((one) => one.document))) {
    const sourceId = of.get(document)!;
    const read = await readingOf(ctx, document).catch(goneSince);
    if (!read) continue;
    const { copy, html } = read;
    for (const one of found.filter((f) => f.document === document)) {
      const theirs = copy.text.slice(one.start, one.end);
      told.set(one, {
        part: one.part,
        text: one.text.slice(0, SHOWN),
        words: one.words,
        cited: [document, ...one.others].some((d) => cites(one.part, of.get(d)!)),
        copyId: document,
        sourceId,
        source: labels.get(sourceId) ?? '',
        theirs: theirs.slice(0, SHOWN),
        locator: locatorIn(html, theirs),
        others: [...new Set(one.others.map((d) => of.get(d)!))]
          .filter((other) => other !== sourceId)
          .map((other) => ({ sourceId: other, source: labels.get(other) ?? '' })),
      });
    }
  }
  return found.flatMap((one) => told.get(one) ?? []);
} // prettier-ignore

/** How the last comparison of a draft with what is kept stands, if there was one. */
export async function lastBorrowed(
  ctx: Context,
  draftId: string,
): Promise<Job<unknown, BorrowedResult> | undefined> {
  await getDraft(ctx, draftId);
  return (await lastJobAbout(ctx, 'borrowed', { draftId })) as Job<unknown, BorrowedResult> | undefined;
}

/** Begins to hold a draft against what is kept; where that goes on already, that is given. */
export async function lookForBorrowed(ctx: Context, draftId: string): Promise<Job> {
  const last = await lastBorrowed(ctx, draftId);
  if (last?.state === 'waiting' || last?.state === 'running') return last;
  if (last && last.state !== 'dismissed') await dismissJob(ctx, last.id);
  return beginJob(ctx, 'borrowed', { draftId });
}
