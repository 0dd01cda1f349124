import { parentPort } from 'node:worker_threads';
import {
  borrowedFrom,
  borrowings,
  indexOwn,
  type BorrowedRun,
  type Borrowing,
  type OwnIndex,
  type OwnText,
} from '../../core/drafting';

/** What this thread is told: the own words of a draft; documents with their texts; or that these were all. */
export type ToBorrowed = { own: OwnText[] } | { documents: { id: string; text: string }[] } | { all: true };
/** What it says: how many documents it has looked through; what it found. */
export type FromBorrowed = { looked: number } | { found: Borrowing[] };

/** A thread looks a draft through once and ends. */
let index: OwnIndex = indexOwn([]);
let looked = 0;
const found: { document: string; runs: BorrowedRun[] }[] = [];
const say = (message: FromBorrowed) => parentPort!.postMessage(message);

parentPort!.on('message', (message: ToBorrowed) => {
  if ('own' in message) index = indexOwn(message.own);
  else if ('documents' in message)
    for (const { id, text } of message.documents) {
      const runs = borrowedFrom(index, text);
      if (runs.length) found.push({ document: id, runs });
      looked++;
    }
  say('all' in message ? { found: borrowings(index, found) } : { looked });
});
