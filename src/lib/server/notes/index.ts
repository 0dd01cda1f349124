import type { noteChange, NoteWords } from './requests';
import { change, checkRight } from '../access/change';
import { z } from 'zod';
import { asContent, namedIn, plainOf, renamed, type Named, type NoteContent } from '../../core/notes';
import { plain, squash, nfc, spokenText } from '../../core/text';
import { shortLabel } from '../../core/source';
import { sniffBytes } from '../../reading/sniff';
import { checkHere } from '../access/belongs';
import type { Context } from '../access/context';
import { membersAmong } from '../access/shown';
import { config } from '../config';
import { now } from '../db/ids';
import { log } from '../log';
import { megabytes, MOST_BYTES } from '../limits';
import { keepFile, readKept } from '../files/store';
import { Refusal } from '../access/refusal';
import { getKept, insertKept, updateKept } from '../history/kept';
import { namedBy, noteRows, notes, notesBy, presentSources, type Note, type NoteFilter } from './repository';
import type { Look } from '../lists/printing';
import { findProject } from '../projects/repository';
import { listSources } from '../sources/listing';
import { getSources } from '../sources/repository';

export * from './requests';
export type { Note } from './repository';

/** What is changed here. */
const CHANGE = { right: 'annotate', of: ['notes'] } as const;

/**
 * What is kept of how a note is written: what it names is there, and called as it is now; what is gone is words. What another
 * note is called is not kept with it, since not everybody may see that.
 */
async function asWritten(
  ctx: Context,
  content: NoteContent,
): Promise<{ body: string; content: NoteContent | null }> {
  const names = await namesOf(ctx, namedIn(content));
  const kept = renamed(content, ({ kind, id }) => {
    const name = names.get(id);
    return name === undefined || kind === 'source' ? name : '';
  });
  return { body: nfc(plainOf(kept)), content: asContent(kept) };
}

/** Most characters of a note that it is called by. */
const CALLED = 60;
/** What a note is called: its first words. */
const calledBy = ({ body }: { body: string }): string => {
  const line = squash(body).slice(0, CALLED + 1);
  if (!line) return 'a recording';
  return line.length > CALLED ? `${line.slice(0, CALLED).trimEnd()}…` : line;
};

/** What sources and notes are called that the person may see, by the id they are named by. */
async function namesOf(ctx: Context, named: readonly Named[]): Promise<Map<string, string>> {
  const ids = (kind: Named['kind']) => named.flatMap((one) => (one.kind === kind ? [one.id] : []));
  const names = new Map<string, string>();
  const present = await presentSources(ctx, ids('source'));
  const labels = new Map(
    (await getSources(ctx, [...new Set(present.values())])).map(({ id, record }) => [id, shortLabel(record)]),
  );
  for (const [given, id] of present) names.set(given, labels.get(id) ?? 'a source');
  if (ids('note').length)
    for (const note of await notesBy(ctx, ids('note'))) names.set(note.id, calledBy(note));
  return names;
}

/** What is said of a new note, as it is kept: shown to those who are there. */
const asKept = async (
  ctx: Context,
  { visibility = 'library', shownTo = [], body = '', content = null, tint = null, ...said }: NoteWords,
) => ({
  ...said,
  tint,
  ...(content ? await asWritten(ctx, content) : { body, content: null }),
  visibility,
  shownTo: visibility === 'private' ? await membersAmong(ctx, shownTo) : [],
  ownerId: ctx.personId,
});

/** Keeps a thought, typed. */
export async function keepNote(ctx: Context, said: NoteWords): Promise<Note> {
  if (!(said.content ? plainOf(said.content) : (said.body ?? '')).trim())
    throw new Refusal(422, 'There is nothing written to keep.');
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
    const { shownTo, content, ...rest } = said;
    const words = content
      ? await asWritten(inner, content)
      : rest.body === undefined
        ? {}
        : { body: rest.body, content: null };
    const given = Object.fromEntries(Object.entries(rest).filter(([, value]) => value !== undefined));
    const shown = shownTo && { shownTo: await membersAmong(inner, shownTo) };
    return updateKept<Note>(inner, notes, id, base, { ...given, ...words, ...shown }, 'edited');
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
  /** Notes that name it, by what they are called. */
  namedBy?: { id: string; called: string }[];
}

/** The living notes of the library, of a project, or of a source, those that name it too; newest first. */
export async function listNotes(ctx: Context, filter: NoteFilter): Promise<NoteItem[]> {
  const found = await noteRows(ctx, filter);
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
  const names = await namesOf(
    ctx,
    found.flatMap(({ content }) => (content ? namedIn(content) : [])),
  );
  const naming = await namedBy(
    ctx,
    found.map(({ id }) => id),
  );
  const called = new Map(found.map((note) => [note.id, calledBy(note)]));
  const beyond = [...new Set([...naming.values()].flat())].filter((id) => !called.has(id));
  if (beyond.length) for (const note of await notesBy(ctx, beyond)) called.set(note.id, calledBy(note));
  return found.map((n) => ({
    ...n,
    ...(n.content ? { content: renamed(n.content, ({ id }) => names.get(id)) } : {}),
    ...(naming.has(n.id)
      ? {
          namedBy: naming
            .get(n.id)!
            .flatMap((id) => (called.has(id) ? [{ id, called: called.get(id)! }] : [])),
        }
      : {}),
    ...(n.sourceId && sources.has(n.sourceId) ? { sourceLabel: sources.get(n.sourceId)! } : {}),
    ...(n.projectId && projects.has(n.projectId) ? { projectName: projects.get(n.projectId)! } : {}),
  }));
}

/** How many sources and notes are offered to be named. */
const OFFERED = 6;

/** Something that a note can name: what it is called, and what else tells it from others. */
export interface Nameable extends Named {
  more: string;
}

/** What can be named: sources and notes that have the words, the best first; of no words the latest. */
export async function nameable(ctx: Context, words: string, look: Look): Promise<Nameable[]> {
  const text = words.trim();
  const { items } = await listSources(ctx, text ? { text } : {}, look, {
    from: { offset: 0 },
    limit: OFFERED,
    sort: text ? 'fit' : 'added',
  });
  const others = await noteRows(ctx, { written: true, ...(text ? { text } : {}) }, OFFERED);
  return [
    ...items.map(({ id, label, title }) => ({ kind: 'source' as const, id, label, more: plain(title) })),
    ...others.map((note) => ({ kind: 'note' as const, id: note.id, label: calledBy(note), more: '' })),
  ];
}

/** The recording of a spoken note; refuses one that was typed. */
export async function recordingOf(ctx: Context, id: string): Promise<{ bytes: Buffer; mediaType: string }> {
  const { audio } = await getKept(ctx, notes, id);
  if (!audio) throw new Refusal(404, 'This note was typed; there is no recording.');
  return { bytes: await readKept(audio.sha256), mediaType: audio.mediaType };
}
