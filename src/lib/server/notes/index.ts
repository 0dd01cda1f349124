import { change, checkRight } from '../access/change';
import { z } from 'zod';
import { shortLabel } from '../../core/source';
import { nfc, spokenText } from '../../core/text';
import { sniffBytes } from '../../reading/sniff';
import { checkHere } from '../access/belongs';
import { type Context } from '../access/context';
import { membersAmong } from '../access/shown';
import { config } from '../config';
import { now } from '../db/ids';
import { log } from '../log';
import { megabytes, MOST_BYTES } from '../limits';
import { keepFile, readKept } from '../files/store';
import { Refusal } from '../access/refusal';
import { getKept, insertKept, listKept, updateKept } from '../history/kept';
import { notes, type Note } from './repository';
import { findProject } from '../projects/repository';
import { parseQuery } from '../../core/query';
import { wordsOf } from '../query';
import { withWords } from '../search/repository';
import { getSources, ofSourcesAsked } from '../sources/repository';

/** What is changed here. */
const CHANGE = { right: 'annotate', of: ['notes'] } as const;

/** What a person says of a note. */
export const noteWords = z.strictObject({
  body: z.string().max(100_000).transform(nfc),
  projectId: z.string().max(60).nullable(),
  sourceId: z.string().max(60).nullable(),
  visibility: z.enum(['private', 'library']).default('library'),
  /** Who sees it too where it is private, by id. */
  shownTo: z.array(z.string().max(60)).max(200).default([]),
});
export type NoteWords = z.input<typeof noteWords>;

/** What is changed of a note; what is not named stays. */
export const noteChange = z
  .strictObject({
    body: noteWords.shape.body,
    projectId: noteWords.shape.projectId,
    sourceId: noteWords.shape.sourceId,
    visibility: noteWords.shape.visibility.unwrap(),
    shownTo: noteWords.shape.shownTo.unwrap(),
  })
  .partial();

/** What is said of a new note, as it is kept: shown to those who are there. */
const asKept = async (ctx: Context, { visibility = 'library', shownTo = [], ...said }: NoteWords) => ({
  ...said,
  visibility,
  shownTo: visibility === 'private' ? await membersAmong(ctx, shownTo) : [],
  ownerId: ctx.personId,
});

/** Keeps a thought, typed. */
export async function keepNote(ctx: Context, said: NoteWords): Promise<Note> {
  if (!said.body.trim()) throw new Refusal(422, 'There is nothing written to keep.');
  await checkHere(ctx, { project: said.projectId, source: said.sourceId });
  return change(ctx, CHANGE, async (inner) =>
    insertKept(inner, notes, { ...(await asKept(inner, said)), audio: null }, 'noted'),
  );
}

/** Keeps a thought, spoken: the recording as it is, with what was typed beside it. */
export async function keepSpokenNote(
  ctx: Context,
  audio: { bytes: Uint8Array; mediaType: string; seconds: number | null },
  said: NoteWords,
): Promise<Note> {
  if (audio.bytes.byteLength === 0) throw new Refusal(422, 'The recording is empty.');
  if (audio.bytes.byteLength > MOST_BYTES)
    throw new Refusal(413, `The recording is larger than ${megabytes(MOST_BYTES)}. Speak in shorter parts.`);
  if (sniffBytes(audio.bytes) !== 'audio')
    throw new Refusal(415, 'This is no recording that can be played again.');
  await checkHere(ctx, { project: said.projectId, source: said.sourceId });
  const sha256 = await keepFile(Buffer.from(audio.bytes));
  const { mediaType, seconds } = audio;
  return change(ctx, CHANGE, async (inner) =>
    insertKept(
      inner,
      notes,
      { ...(await asKept(inner, said)), audio: { sha256, mediaType, seconds } },
      'spoken',
    ),
  );
}

/** How long a recording may take to be written out, in milliseconds, and most bytes of the answer. */
const WRITING_MS = 120_000;
const answered = z.object({ text: z.string().max(100_000) });

/**
 * The words of a recording, by the service that is set for it: hesitation taken out, sentences set. Nothing where no service is
 * set; refuses where it does not answer.
 */
export async function writtenOut(
  ctx: Context,
  audio: { bytes: Uint8Array; mediaType: string },
): Promise<{ text: string } | undefined> {
  checkRight(ctx, 'annotate');
  if (!config.transcription) return undefined;
  if (sniffBytes(audio.bytes) !== 'audio')
    throw new Refusal(415, 'This is no recording that can be played again.');
  const form = new FormData();
  form.set('file', new Blob([new Uint8Array(audio.bytes)], { type: audio.mediaType }), 'recording');
  try {
    const signal = AbortSignal.timeout(WRITING_MS);
    const response = await fetch(config.transcription, { method: 'POST', body: form, signal });
    if (!response.ok) throw new Error(`it answers ${response.status}`);
    return { text: spokenText(answered.parse(await response.json()).text) };
  } catch (error) {
    log.warn({ err: error }, 'a recording was not written out');
    throw new Refusal(
      502,
      'The service that writes recordings out does not answer. The recording itself can be kept.',
    );
  }
}

/** Changes a note on revision `base`. */
export async function editNote(ctx: Context, id: string, base: number, said: z.infer<typeof noteChange>) {
  const names = { project: said.projectId ?? null, source: said.sourceId ?? null };
  return change(ctx, { ...CHANGE, names }, async (inner) => {
    const { shownTo, ...rest } = said;
    const given = Object.fromEntries(Object.entries(rest).filter(([, value]) => value !== undefined));
    const shown = shownTo && { shownTo: await membersAmong(inner, shownTo) };
    return updateKept<Note>(inner, notes, id, base, { ...given, ...shown }, 'edited');
  });
}

/** Puts a note in the bin or takes it out. */
export async function binNote(ctx: Context, id: string, binned: boolean) {
  return change(ctx, CHANGE, async (inner) => {
    const { revision } = await getKept(inner, notes, id);
    return updateKept(
      inner,
      notes,
      id,
      revision,
      { binned: binned ? now() : null },
      binned ? 'put in the bin' : 'taken out of the bin',
    );
  });
}

/** A note with the names of what it is on. */
export interface NoteItem extends Note {
  sourceLabel?: string;
  projectName?: string;
}

/** The living notes of the library, a project, or a source, newest first. */
export async function listNotes(
  ctx: Context,
  filter: { projectId?: string; sourceId?: string; text?: string },
): Promise<NoteItem[]> {
  const found = await listKept(ctx, notes, (query) => {
    void query.whereNull('binned');
    if (filter.sourceId) void query.where('source_id', filter.sourceId);
    else if (filter.projectId) void query.where('project_id', filter.projectId);
    if (filter.text) {
      const asked = parseQuery(filter.text);
      withWords(ctx, query, 'id', 'note', wordsOf(asked));
      ofSourcesAsked(ctx, query, 'source_id', asked);
    }
  });
  const sources = new Map(
    (await getSources(ctx, [...new Set(found.flatMap((n) => n.sourceId ?? []))])).map((s) => [
      s.id,
      shortLabel(s.record),
    ]),
  );
  const projects = new Map<string, string>();
  for (const id of new Set(found.flatMap((n) => n.projectId ?? []))) {
    const project = await findProject(ctx, id);
    if (project) projects.set(id, project.name);
  }
  return found.map((n) => ({
    ...n,
    ...(n.sourceId && sources.has(n.sourceId) ? { sourceLabel: sources.get(n.sourceId)! } : {}),
    ...(n.projectId && projects.has(n.projectId) ? { projectName: projects.get(n.projectId)! } : {}),
  }));
}

/** The recording of a spoken note; refuses one that was typed. */
export async function recordingOf(ctx: Context, id: string): Promise<{ bytes: Buffer; mediaType: string }> {
  const { audio } = await getKept(ctx, notes, id);
  if (!audio) throw new Refusal(404, 'This note was typed; there is no recording.');
  return { bytes: await readKept(audio.sha256), mediaType: audio.mediaType };
}
