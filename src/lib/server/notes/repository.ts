import { namedIn, type NoteContent } from '../../core/notes';
import type { TagTint } from '../../core/source';
import type { Context } from '../access/context';
import { scoped, visible } from '../access/context';
import { inParts } from '../db/ids';
import { shownAs, shownOf } from '../access/shown';
import { parseQuery } from '../../core/query';
import { listKept, type Keeping, type Kept } from '../history/kept';
import { wordsOf } from '../query';
import { withWords } from '../search/repository';
import { ofSourcesAsked } from '../sources/repository';

/** Free text of one's own, typed or spoken: on a source, in a project, or on nothing. */
export interface Note extends Kept {
  /** Its words, as they are searched and listed. */
  body: string;
  /** How it is written, where its words have a look or name something. */
  content: NoteContent | null;
  tint: TagTint | null;
  projectId: string | null;
  sourceId: string | null;
  visibility: 'private' | 'library';
  /** Who sees it beside its owner, where it is private, by id. */
  shownTo: string[];
  /** Whose it is. */
  readonly ownerId: string;
  /** The recording it was spoken in, with its length in seconds when known. */
  audio: { sha256: string; mediaType: string; seconds: number | null } | null;
}

interface Row extends Kept {
  body: string;
  content: string | null;
  tint: TagTint | null;
  project_id: string | null;
  source_id: string | null;
  visibility: 'private' | 'library';
  shown_to: string | null;
  owner_id: string;
  audio_sha256: string | null;
  audio_type: string | null;
  audio_seconds: number | null;
}

export const notes: Keeping<Note> = {
  subject: 'note',
  state: ['body', 'content', 'tint', 'projectId', 'sourceId', 'visibility', 'shownTo', 'audio', 'binned'],
  toRow: ({
    body,
    content,
    tint,
    projectId,
    sourceId,
    visibility = 'library',
    shownTo = [],
    audio,
    binned,
  }) => ({
    body,
    content: content ? JSON.stringify(content) : null,
    tint: tint ?? null,
    project_id: projectId,
    source_id: sourceId,
    visibility,
    shown_to: shownAs({ visibility, shownTo }),
    audio_sha256: audio?.sha256 ?? null,
    audio_type: audio?.mediaType ?? null,
    audio_seconds: audio?.seconds ?? null,
    binned,
  }),
  fromRow: (raw) => {
    const row = raw as unknown as Row;
    return {
      id: row.id,
      revision: row.revision,
      added: row.added,
      binned: row.binned,
      body: row.body,
      content: row.content ? (JSON.parse(row.content) as NoteContent) : null,
      tint: row.tint,
      projectId: row.project_id,
      sourceId: row.source_id,
      visibility: row.visibility,
      shownTo: shownOf(row.shown_to),
      ownerId: row.owner_id,
      audio: row.audio_sha256
        ? { sha256: row.audio_sha256, mediaType: row.audio_type ?? 'audio/webm', seconds: row.audio_seconds }
        : null,
    };
  },
  searchText: (note) => note.body,
  async beside(ctx, { id, content, binned }) {
    await scoped(ctx, 'note_named').where({ note_id: id }).delete();
    if (!content || binned) return;
    const of = { library_id: ctx.libraryId, note_id: id };
    const sources = await presentSources(
      ctx,
      namedIn(content).flatMap((one) => (one.kind === 'source' ? [one.id] : [])),
    );
    const rows = [...new Set(sources.values())].map((source_id) => ({ ...of, source_id, other_id: null }));
    const others = namedIn(content).flatMap((one) => (one.kind === 'note' ? [one.id] : []));
    const there = (await scoped(ctx, 'note').whereIn('id', others).select('id')) as { id: string }[];
    const named = [...rows, ...there.map((other) => ({ ...of, source_id: null, other_id: other.id }))];
    if (named.length) await ctx.db('note_named').insert(named);
  },
};

/** The sources ids stand for now, by id: what went into another is that one. Those that are gone are not there. */
export async function presentSources(ctx: Context, ids: string[]): Promise<Map<string, string>> {
  const found = new Map<string, string>();
  let asked = new Map(ids.map((id) => [id, [id]]));
  while (asked.size) {
    const rows = (await scoped(ctx, 'source')
      .whereIn('id', [...asked.keys()])
      .select('id', 'merged_into')) as { id: string; merged_into: string | null }[];
    const next = new Map<string, string[]>();
    for (const { id, merged_into: into } of rows)
      if (into) next.set(into, [...(next.get(into) ?? []), ...asked.get(id)!]);
      else for (const given of asked.get(id)!) found.set(given, id);
    asked = next;
  }
  return found;
}

/** Which notes the person may see name each of some notes, by id. */
export async function namedBy(ctx: Context, ids: string[]): Promise<Map<string, string[]>> {
  const found = new Map<string, string[]>();
  for (const part of inParts(ids)) {
    const rows = (await visible(ctx, 'note')
      .join('note_named', 'note_named.note_id', 'note.id')
      .whereIn('note_named.other_id', part)
      .whereNull('note.binned')
      .orderBy('note.id')
      .select('note.id as id', 'note_named.other_id as other')) as unknown as { id: string; other: string }[];
    for (const { id, other } of rows) found.set(other, [...(found.get(other) ?? []), id]);
  }
  return found;
}

/** Which notes are listed. */
export interface NoteFilter {
  projectId?: string;
  sourceId?: string;
  text?: string;
  tint?: TagTint;
  /** Only those with words: a recording alone is none. */
  written?: boolean;
}

/** Some notes, those in the bin too. */
export const notesBy = (ctx: Context, ids: readonly string[]): Promise<Note[]> =>
  listKept(ctx, notes, (query) => query.whereIn('id', ids));

/** The living notes of the library, of a project, or of a source, those that name it too; newest first. */
export const noteRows = (ctx: Context, filter: NoteFilter, limit?: number): Promise<Note[]> =>
  listKept(
    ctx,
    notes,
    (query) => {
      void query.whereNull('binned');
      if (filter.sourceId)
        void query.where((or) =>
          or
            .where('source_id', filter.sourceId)
            .orWhereIn(
              'note.id',
              scoped(ctx, 'note_named').where({ source_id: filter.sourceId }).select('note_id'),
            ),
        );
      else if (filter.projectId) void query.where('project_id', filter.projectId);
      if (filter.written) void query.whereNot('body', '');
      if (filter.tint) void query.where({ tint: filter.tint });
      if (filter.text) {
        const asked = parseQuery(filter.text);
        withWords(ctx, query, 'id', 'note', wordsOf(asked));
        ofSourcesAsked(ctx, query, 'source_id', asked);
      }
    },
    limit,
  );
