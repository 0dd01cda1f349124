import { signatureOf, type Signature } from '../../core/duplicates';
import type { Source } from '../sources/repository';

/** How many signatures are remembered. */
const MOST = 5_000;
/** By id and revision, so that none is ever out of date; the oldest goes first. */
const remembered = new Map<string, Signature>();

/** What a source is compared by. In a burst of captures or an import the same sources are compared again and again. */
export function signatureFor({
  id,
  revision,
  record,
}: Pick<Source, 'id' | 'revision' | 'record'>): Signature {
  const key = `${id} ${revision}`;
  const known = remembered.get(key);
  if (known) return known;
  const made = signatureOf(record);
  remembered.set(key, made);
  if (remembered.size > MOST) remembered.delete(remembered.keys().next().value!);
  return made;
}
