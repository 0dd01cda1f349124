import { signatureOf, type Signature } from '../../core/duplicates';
import type { Context } from '../access/context';
import { getSources, type Source } from '../sources/repository';
import type { Candidate } from './lookup';

/** How many signatures are remembered. */
const MOST = 5_000;
/** By id and revision, so that none is ever out of date; the oldest goes first. */
const remembered = new Map<string, Signature>();
const nameOf = ({ id, revision }: Candidate) => `${id} ${revision}`;

/** What a source is compared by. In a burst of captures or an import the same sources are compared again and again. */
export function signatureFor(source: Pick<Source, 'id' | 'revision' | 'record'>): Signature {
  const name = nameOf(source);
  const known = remembered.get(name);
  if (known) return known;
  const made = signatureOf(source.record);
  remembered.set(name, made);
  if (remembered.size > MOST) remembered.delete(remembered.keys().next().value!);
  return made;
}

/** What some sources are compared by, by id and in their order; those whose signature is not remembered are read. */
export async function signaturesFor(
  ctx: Context,
  candidates: readonly Candidate[],
): Promise<Map<string, Signature>> {
  const known = new Map(candidates.map((c) => [c.id, remembered.get(nameOf(c))]));
  const unknown = candidates.map((c) => c.id).filter((id) => !known.get(id));
  for (const source of unknown.length > 0 ? await getSources(ctx, unknown) : [])
    known.set(source.id, signatureFor(source));
  return new Map([...known].flatMap(([id, signature]) => (signature ? [[id, signature] as const] : [])));
}
