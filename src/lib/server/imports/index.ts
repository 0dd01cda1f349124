import { READABLE, readFormat, sniff } from '../../core/formats';
import { headline } from '../../core/source';
import { textOfBytes } from '../../reading/text';
import { change, checkRight } from '../access/change';
import type { Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { filesLeave } from '../files/leaving';
import { now } from '../db/ids';
import { keepFile, readKept } from '../files/store';
import { held, hold, letGo } from '../jobs/holds';
import { getJob, updateJob, type Job } from '../jobs/repository';
import { answerJob, beginJob, carriesOut, type Doing, type Keep } from '../jobs/runner';
import { megabytes, MOST_BYTES } from '../limits';
import { insertSource } from '../sources/repository';
import { talliesOf } from '../sources/tallies';
import { inTurn } from '../turns';
import { read } from '../workers/pools';
import { addEntries, withTime } from './adding';
import { hereAlready } from './asking';
import { inBrief } from './reports';
import { SAMPLE } from './sample';
import { takeStepsBack } from './taking-back';
import type { Answer, Decided, HeldImport, Here, ImportInput, ImportResult } from './types';

export { takeBackEach, takeImportBack, toTakeBack, type Imported } from './taking-back';
export { recentImports, type ImportInBrief } from './reports';
export { ANSWERS } from './types';
export type * from './types';

export * from './requests';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources', 'jobs'] } as const;

/**
 * Begins the import of a file and gives its job at once. The file is read in a worker; its entries are added in short
 * transactions, all of them or none, at once when none of them is in the library, else when the person has said what to do with those.
 * Refuses at once what is too large or in no format known.
 */
export async function importFile(
  ctx: Context,
  bytes: Uint8Array,
  given: Omit<ImportInput, 'format' | 'sha256'>,
): Promise<Job> {
  checkRight(ctx, 'edit');
  if (bytes.byteLength > MOST_BYTES)
    throw new Refusal(
      413,
      `${given.fileName} is larger than ${megabytes(MOST_BYTES)}. Cut it into smaller files.`,
    );
  const text = textOfBytes(bytes);
  const format = sniff(text, given.fileName);
  if (!format)
    throw new Refusal(
      415,
      `${given.fileName} is in no format Retexa reads. It reads ${Object.values(READABLE)
        .map((f) => f.label)
        .join(', ')}.`,
    );
  const sha256 = await keepFile(Buffer.from(bytes));
  return beginJob(ctx, 'import', { ...given, format, sha256 } satisfies ImportInput);
}

type ImportJob = Job<ImportInput, ImportResult, Decided>;

/** Reads the file and adds its entries, or asks what to do with those that are here already. */
async function readAndMatch(ctx: Context, job: ImportJob, doing: Doing): Promise<Keep<ImportResult>> {
  const { fileName, format, sha256 } = job.input;
  doing.step(`Reading ${fileName}`);
  const bytes = sha256 && (await readKept(sha256).catch(() => undefined));
  if (!bytes) throw new Refusal(410, `${fileName} is not kept any more. Import it again.`);
  const { entries, skipped } = await read(
    { task: 'file', format, text: textOfBytes(new Uint8Array(bytes)) },
    doing.signal,
  );
  const here: Here[] = [];
  for await (const [index, entry] of inTurn(entries.entries())) {
    if (index % 50 === 0) doing.step('Looking for what is here already', index, entries.length);
    const found = await hereAlready(ctx, entry);
    if (found) here.push({ index, line: entry.line, label: headline(entry.record), ...found });
  }
  const content: HeldImport = { kind: 'import', entries, skipped };
  if (here.length === 0) return addEntries(ctx, content, job.input, {}, doing, job.id);
  return async (inner) => {
    await hold(inner, job.id, content);
    return { kind: 'asks', total: entries.length, skipped, here };
  };
}

/** Adds the entries of a file as it was answered. */
async function addDecided(
  ctx: Context,
  job: ImportJob,
  decided: Decided,
  doing: Doing,
): Promise<Keep<ImportResult>> {
  const content = await held<HeldImport>(ctx, job.id);
  if (!content) return readAndMatch(ctx, job, doing);
  const keep = await addEntries(ctx, content, job.input, decided, doing, job.id);
  return async (inner) => {
    await letGo(inner, job.id);
    return keep(inner);
  };
}

/** Lets the file go that was kept for beginning the import anew. */
async function letFileGo(
  inner: Context,
  { id, input: { sha256, ...input } }: Pick<ImportJob, 'id' | 'input'>,
): Promise<void> {
  if (!sha256) return;
  await updateJob(inner, id, { input });
  await filesLeave(inner, [sha256]);
}

carriesOut<ImportInput, ImportResult, Decided>('import', {
  atOnce: 2,
  words: {
    stopped: 'The import was cancelled. Nothing of the file was added.',
    broken: 'Something went wrong inside Retexa during the import. Nothing of the file was added.',
  },
  async run(ctx, job, doing) {
    const keep = job.answer
      ? await addDecided(ctx, job, job.answer, doing)
      : await readAndMatch(ctx, job, doing);
    return async (inner) => {
      const result = await keep(inner);
      if (result.kind === 'done') await letFileGo(inner, job);
      return result;
    };
  },
  brief: inBrief,
  takeBack: takeStepsBack,
  release: letFileGo,
});

/** Answers what to do with the entries that are here, by their index; those not named are kept beside. Goes on with the import. */
export async function answerImport(
  ctx: Context,
  jobId: string,
  answers: Record<number, Answer>,
): Promise<void> {
  const { state, result } = (await getJob(ctx, jobId)) as ImportJob;
  if (state !== 'done' || result?.kind !== 'asks')
    throw new Refusal(409, 'This import waits for no answer any more.');
  const decided: Decided = Object.fromEntries(
    result.here.map((h) => [h.index, { answer: answers[h.index] ?? 'both', sourceId: h.of.id }]),
  );
  await answerJob(ctx, jobId, decided);
}

/** Puts a few invented sources into an empty library; refuses where there are sources already. Gives their ids. */
export async function addSample(ctx: Context): Promise<{ ids: string[] }> {
  const { entries } = readFormat('bibtex', SAMPLE);
  return change(ctx, CHANGE, async (inner) => {
    if ((await talliesOf(inner)).sources > 0)
      throw new Refusal(409, 'There are sources here already. The sample is for an empty library.');
    const ids: string[] = [];
    for (const { key, record } of entries) {
      const source = await insertSource(inner, withTime(record, now(), 'the sample'), {
        why: 'of the sample',
        ...(key ? { citekey: key } : {}),
      });
      ids.push(source.id);
    }
    return { ids };
  });
}
