import { parentPort } from 'node:worker_threads';
import { findPairs, signatureOf, type Found, type Signature } from '../../core/duplicates';
import type { SourceRecord } from '../../core/source';

/** What this thread is told: more sources, each with its record as it is stored; or that these were all. */
export type ToDoubles = { rows: { id: string; record: string }[] } | { all: true };
/** What it says: that it has taken them; how many it has looked at; what it found. */
export type FromDoubles = { taken: number } | { looked: number } | { found: Found };

/** A thread looks through one library and ends. */
const ids: string[] = [];
const signatures: Signature[] = [];
const say = (message: FromDoubles) => parentPort!.postMessage(message);

parentPort!.on('message', (message: ToDoubles) => {
  if ('all' in message) {
    say({ found: findPairs(ids, signatures, (looked) => say({ looked })) });
    return;
  }
  for (const { id, record } of message.rows) {
    ids.push(id);
    signatures.push(signatureOf(JSON.parse(record) as SourceRecord));
  }
  say({ taken: ids.length });
});
