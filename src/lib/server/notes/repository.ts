import { shownAs, shownOf } from '../access/shown';
import type { Keeping, Kept } from '../history/kept';

/** Free text of one's own, typed or spoken: on a source, in a project, or on nothing. */
export interface Note extends Kept {
  body: string;
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
  state: ['body', 'projectId', 'sourceId', 'visibility', 'shownTo', 'audio', 'binned'],
  toRow: ({ body, projectId, sourceId, visibility = 'library', shownTo = [], audio, binned }) => ({
    body,
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
};
