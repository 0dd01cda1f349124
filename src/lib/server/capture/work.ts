import type { ListedWork } from '../../core/capture';
import { addressKey, dateText, derive, doiKey, nameText, shortLabel } from '../../core/source';
import type { Context } from '../access/context';
import { change } from '../access/change';
import { Refusal } from '../access/refusal';
import { held, hold, letGo } from '../jobs/holds';
import { updateJob, type Job } from '../jobs/repository';
import { carriesOut, Stopped, type Doing as JobDoing, type Keep } from '../jobs/runner';
import { log } from '../log';
import { living, type SourceRow } from '../sources/repository';
import { gather, gatherListed } from './gather';
import { CHANGE, doublesOf, keepAsCopy, keepNew, presetOf } from './keep';
import type { CaptureInput, CaptureResult, Choice, Doing, Gathered, Held } from './types';

/**
 * The source in the library that a listed work is: the same DOI or address, else the same title with nothing against
 * it. A list says little of its works, so a year or an author it leaves out speaks neither for nor against.
 */
async function listedHere(ctx: Context, { record, address, doi }: ListedWork): Promise<string | undefined> {
  const d = derive(record);
  const page = addressKey(address);
  const rows = (await living(ctx, {}).where((any) => {
    void any.where('title_key', d.titleKey);
    if (doi) void any.orWhere('doi', doiKey(doi) ?? '');
    if (page) void any.orWhere('address_key', page);
  })) as SourceRow[];
  const fits = (row: SourceRow) =>
    (doi && row.doi === doiKey(doi)) ||
    (page && row.address_key === page) ||
    ((d.year === null || row.year === d.year) && (d.creatorKey === '' || row.creator_key === d.creatorKey));
  return rows.find(fits)?.id;
}

/** The works of a list as they are shown to choose from, those in the library marked. */
async function choicesOf(ctx: Context, works: Extract<Held, { kind: 'list' }>['works']): Promise<Choice[]> {
  const choices: Choice[] = [];
  for (const work of works) {
    const { record } = work;
    const here = await listedHere(ctx, work);
    choices.push({
      title: record.title ?? '',
      who: (record.author ?? record.editor ?? []).map(nameText).slice(0, 4).join('; '),
      year: dateText(record.issued),
      type: record.type,
      ...(here ? { here } : {}),
    });
  }
  return choices;
}

type Several = Extract<CaptureResult, { kind: 'several' }>;
type CaptureJob = Job<CaptureInput, CaptureResult, number[]>;

/** Keeps what was gathered, or asks when the library has it already. */
const keepOrAsk =
  (jobId: string, gathered: Gathered, input: CaptureInput): Keep<CaptureResult> =>
  async (inner) => {
    if (input.toSource)
      return { kind: 'kept', doubles: [], ...(await keepAsCopy(inner, gathered, input, input.toSource)) };
    const doubles = await doublesOf(inner, gathered.record);
    const sure = doubles.filter((d) => d.sure);
    if (sure.length === 0)
      return {
        kind: 'kept',
        doubles,
        ...(await keepNew(inner, gathered, input)),
      };
    await hold(inner, jobId, { kind: 'one', gathered } satisfies Held);
    return {
      kind: 'here',
      label: shortLabel(gathered.record),
      doubles: sure,
      hasCopy: gathered.copies.length > 0,
      notes: gathered.notes,
    };
  };

/** Gathers what was asked for, and keeps it or asks. */
async function captureOne(ctx: Context, job: CaptureJob, doing: Doing): Promise<Keep<CaptureResult>> {
  const gathered = await gather(job.input, doing);
  doing.step('Keeping it');
  if ('record' in gathered) return keepOrAsk(job.id, gathered, job.input);
  const { works, address, title } = gathered;
  const result = { kind: 'list' as const, title: title || address, works: await choicesOf(ctx, works) };
  return async (inner) => {
    await hold(inner, job.id, { kind: 'list', address, works } satisfies Held);
    return result;
  };
}

/**
 * Captures the works chosen from a list, each kept by itself with noting how far it is, so that a server that starts again
 * goes on with the next. A work that cannot be read is said.
 */
async function captureChosen(
  ctx: Context,
  job: CaptureJob,
  chosen: number[],
  doing: Doing,
): Promise<Keep<CaptureResult>> {
  const { works, address } = (await held<Held>(ctx, job.id)) as Extract<Held, { kind: 'list' }>;
  const { note: _note, ...input } = job.input;
  const before = job.result?.kind === 'several' ? job.result : undefined;
  const result: Several = before ?? { kind: 'several', kept: [], failed: [], begun: 0 };
  const first = result.begun ?? 0;
  for (const [i, pick] of [...chosen.entries()].slice(first)) {
    const work = works[pick]!;
    const title = work.record.title ?? '';
    const step = (words: string) => doing.step(`${i + 1} of ${chosen.length}: ${words}`, i, chosen.length);
    const gathered = await reading(job.id, async () => {
      step('fetching');
      return gatherListed(work, address, { ...doing, step });
    });
    if (doing.signal.reason instanceof Stopped) throw doing.signal.reason;
    if (doing.signal.aborted) {
      result.failed.push({ title: `${chosen.length - i} more`, reason: 'stopped before they were read.' });
      break;
    }
    await change(ctx, CHANGE, async (inner) => {
      if (typeof gathered === 'string') result.failed.push({ title, reason: gathered });
      else {
        const { sourceId, label } = await keepNew(inner, gathered, input);
        result.kept.push({ sourceId, label });
        result.failed.push(...gathered.notes.map((reason) => ({ title, reason })));
      }
      result.begun = i + 1;
      await updateJob(inner, job.id, { result });
    });
  }
  return async (inner) => {
    await letGo(inner, job.id);
    return result;
  };
}

/** What reading a listed work gives, or why it could not be read. */
async function reading(jobId: string, read: () => Promise<Gathered>): Promise<Gathered | string> {
  try {
    return await read();
  } catch (error) {
    if (error instanceof Refusal) return error.message;
    log.error({ job: jobId, err: error }, 'a listed work failed');
    return 'It could not be read.';
  }
}

carriesOut<CaptureInput, CaptureResult, number[]>('capture', {
  // A few more than are read at the same time, since those of one host wait for each other.
  atOnce: 6,
  words: {
    stopped: 'The capture was cancelled.',
    broken:
      'Something went wrong inside Retexa while reading this. Nothing was saved; try it again, or start by hand.',
  },
  async run(ctx, job, given: JobDoing) {
    const preset = await presetOf(ctx, job.input);
    const keeping = { page: preset?.keepPage ?? true, pdf: preset?.keepPdf ?? true };
    const doing: Doing = { ...given, keeping };
    return job.answer ? captureChosen(ctx, job, job.answer, doing) : captureOne(ctx, job, doing);
  },
});
