import type { MergeField } from '../../core/duplicates';
import type { ReadableName, ReadEntry, Skipped } from '../../core/formats';

/** A file of references to import. */
export interface ImportInput {
  fileName: string;
  format: ReadableName;
  projectId?: string;
  toIntake: boolean;
  /** The file, in the store for as long as the import may have to be begun anew. */
  sha256?: string;
}

/** What is done with an entry whose work is in the library already. */
export const ANSWERS = ['merge', 'skip', 'both'] as const;
export type Answer = (typeof ANSWERS)[number];

/** An entry of a file that looks like a source there is. `sure` when nothing speaks against their being one work. */
export interface Here {
  index: number;
  line: number;
  label: string;
  of: { id: string; label: string };
  reason: string;
  sure: boolean;
  /** What merging would do to the source there is; questions asked by an earlier release do not have it. */
  merging?: Merging;
}

/** What merging an entry into a source adds to it, replaces in it, and keeps of it where the entry says otherwise. */
export interface Merging {
  adds: Differing[];
  replaces: Differing[];
  keeps: Differing[];
  tags: string[];
  /** Names of fields that are kept for the file's format. */
  kept: string[];
}

/** A field in which an entry and the source there is differ, its values as lines of text. */
export interface Differing {
  field: MergeField;
  yours: string;
  file: string;
}

/** The question of an import whose entries are partly in the library: nothing is added until it is answered. */
export interface ImportQuestion {
  kind: 'asks';
  total: number;
  skipped: Skipped[];
  here: Here[];
}

/** An entry that became a source, or went into one. */
export interface Added {
  id: string;
  label: string;
  line: number;
  notes: string[];
}

/** What came of an import. */
export interface ImportReport {
  kind: 'done';
  fileName: string;
  format: ReadableName;
  added: Added[];
  skipped: Skipped[];
  /** Sources there were, into which an entry was merged, with the revision that did it. */
  merged: (Added & { revision: string | null })[];
  /** How many entries were left out because their work was here. */
  leftOut: number;
  doubles: { id: string; label: string; of: string; reason: string }[];
}

export type ImportResult = ImportQuestion | ImportReport;

/** What waits for the answer: the file, read. */
export interface HeldImport {
  kind: 'import';
  entries: ReadEntry[];
  skipped: Skipped[];
}

/** What is done with an entry whose work is here, by its place in the file; those not named are kept beside. */
export type Decided = Record<number, { answer: Answer; sourceId: string }>;
