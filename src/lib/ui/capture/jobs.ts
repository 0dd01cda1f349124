import type { CaptureInput, CaptureResult } from '$lib/server/capture';
import type { ImportInput } from '$lib/server/imports';
import { checkedOf } from '$lib/core/proof';
import { fieldName } from '$lib/core/source';
import type { Job } from '$lib/server/jobs';
import type { ManyInput } from '$lib/server/many';
import { call } from '../frame/client';
import { attempt, done } from '../frame/toasts.svelte';

/** What a person does to a job. */
export type Act = { act: string; sourceId?: string; picks?: number[]; answers?: Record<number, string> };

/** Does something to a job; says what is wrong, and gives nothing then. */
export const actOn = <T = Record<string, unknown>>(id: string, what: Act | string): Promise<T | undefined> =>
  attempt(() => call<T>('POST', `/api/jobs/${id}`, typeof what === 'string' ? { act: what } : what));

/** Whether work still goes on, or waits for its turn. */
export const isGoing = ({ state }: Pick<Job, 'state'>): boolean => state === 'running' || state === 'waiting';

/** What a job does to many sources, while it does it and when it is done. */
export function manyIn({ asked, of }: ManyInput): { going: string; done: (n: number) => string } {
  const sources = (n: number) => `${n.toLocaleString('en')} ${n === 1 ? 'source' : 'sources'}`;
  const words = (doing: string, was: string) => ({
    going: `${doing} ${sources(of)}`,
    done: (n: number) => `${sources(n)} ${was}`,
  });
  if (asked.act === 'undo')
    return {
      going: `Taking back what was changed in ${sources(of)}`,
      done: (n) => `${sources(n)} as before`,
    };
  if (asked.act === 'bin')
    return asked.binned ? words('Putting in the bin', 'in the bin') : words('Bringing back', 'brought back');
  if (asked.act === 'decide') {
    const { name } = checkedOf(asked.check);
    if (asked.decided === 'mend') return words(`${name}: mending`, `mended: ${name}`);
    return asked.decided === 'let stand'
      ? words(`${name}: letting stand in`, `let stand: ${name}`)
      : words(`${name}: asking again in`, `asked again: ${name}`);
  }
  if (asked.act === 'import back') {
    const all = `${of.toLocaleString('en')} ${of === 1 ? 'entry' : 'entries'}`;
    return {
      going: `Taking back ${asked.fileName}: ${all}`,
      done: (n) => `${sources(n)} of ${asked.fileName} taken back`,
    };
  }
  if (asked.act === 'rename') {
    const { name, to } = asked.said;
    return words(`Calling ${name} ${to} in`, `with ${to}`);
  }
  if (asked.act === 'respell') return words('Writing a name alike in', 'written alike');
  if (asked.act === 'citekeys') return words('Making citekeys of', 'with a new citekey');
  if (asked.act === 'tag') {
    const { said } = asked;
    const [going, was] =
      said.act === 'rename'
        ? [`Calling the tag ${said.tag} ${said.to}`, `is called ${said.to}`]
        : [`Taking the tag ${said.tag} off`, 'is taken off'];
    return {
      going: `${going} at ${of.toLocaleString('en')} places`,
      done: (n) => `The tag ${said.tag} ${was} at ${n.toLocaleString('en')} ${n === 1 ? 'place' : 'places'}`,
    };
  }
  const { tag, fix, checked, change } = asked.what;
  if (change) {
    const field = fieldName(change.field).toLowerCase();
    return words(`Changing the ${field} of`, `with the ${field} changed`);
  }
  if (tag) return words(`Tagging ${tag}:`, `tagged ${tag}`);
  if (fix) return words('Mending', 'mended');
  return checked ? words('Marking as checked', 'checked') : words('Sending back', 'sent back to Intake');
}

/** What was given to be captured, imported or looked through, in a line. */
export function givenTo(job: Job): string {
  if (job.kind === 'many') return manyIn(job.input as ManyInput).going;
  if (job.kind === 'doubles') return 'Duplicates in the whole library';
  if (job.kind === 'borrowed') return 'The draft beside what is kept';
  if (job.kind === 'recognise') return 'The text of scanned pages';
  return job.kind === 'capture' ? (job.input as CaptureInput).text : (job.input as ImportInput).fileName;
}

/**
 * Takes back what came of a capture: what went to a source there was is taken away again, what was new goes to the bin and
 * its job is put away. Says whether it was done.
 */
export async function undoCapture({ id, result }: Job): Promise<boolean> {
  const kept = result as CaptureResult;
  if (kept.kind === 'kept' && kept.added) {
    if (!(await actOn(id, 'take-away'))) return false;
    done('What was added is taken away again; the source is as it was.');
    return true;
  }
  const ids =
    kept.kind === 'kept' ? [kept.sourceId] : kept.kind === 'several' ? kept.kept.map((k) => k.sourceId) : [];
  const made = await attempt(() =>
    call<{ revisions: string[] }>('POST', '/api/sources/bin', { ids, binned: true }),
  );
  if (!made) return false;
  await actOn(id, 'dismiss');
  done(
    ids.length === 1 ? 'The capture is in the bin.' : `${ids.length} captures are in the bin.`,
    made.revisions,
  );
  return true;
}
