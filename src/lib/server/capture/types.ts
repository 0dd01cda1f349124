import type { KeptPicture } from '../copies/pictures';
import type { Candidate, ListedWork } from '../../core/capture';
import type { CslType, SourceRecord } from '../../core/source';
import type { Copy } from '../copies/repository';
import type { Addition } from './keep';

/** Where a capture goes and what goes with it. */
export interface Into {
  projectId?: string;
  sectionId?: string;
  tags?: string[];
  /** A line of note, kept on the source. */
  note?: string;
  presetId?: string;
  /** The lead that becomes a source by this. */
  leadId?: string;
}

/** What was put into the capture field. `text` is what the tray shows of it. */
export interface CaptureInput extends Into {
  text: string;
  /** A file handed over, already in the store. */
  file?: { sha256: string; name: string };
  /** A page as the person saw it, already in the store, with what was selected on it. */
  page?: { sha256: string; address: string };
  selection?: string;
  /** The source it is a copy of; else it becomes one, or is asked about. */
  toSource?: string;
}

/** A source a capture looks the same as. */
export interface Double {
  id: string;
  label: string;
  reason: string;
  /** Nothing speaks against it; results of earlier releases do not say. */
  sure?: boolean;
  /** Names of the fields that are new in what was captured. */
  adds?: string[];
}

/** A work of a list, as it is shown to choose from. */
export interface Choice {
  title: string;
  who: string;
  year: string;
  type: CslType;
  /** The source in the library that it is. */
  here?: string;
}

/** What came of a capture: a source kept, or a question that waits for the person's answer. */
export type CaptureResult =
  | {
      kind: 'kept';
      sourceId: string;
      label: string;
      copyId?: string;
      doubles: Double[];
      notes: string[];
      /** It went to a source that was there before; this is all that undoing takes away. */
      added?: Addition;
      /** The same, of captures of before it was noted what was added: they cannot be undone. */
      toExisting?: true;
    }
  | { kind: 'here'; label: string; doubles: Double[]; hasCopy: boolean; notes: string[] }
  | { kind: 'list'; title: string; works: Choice[] }
  | {
      kind: 'several';
      kept: { sourceId: string; label: string }[];
      failed: { title: string; reason: string }[];
      /** How many of the chosen works were begun, while it goes on. */
      begun?: number;
    };

export type NewCopy = Omit<Copy, 'id' | 'source_id'> & { pictures?: readonly KeptPicture[] };

/** What a capture found out, before anything of it is kept. Files of copies are in the store. */
export interface Gathered {
  record: SourceRecord;
  copies: NewCopy[];
  notes: string[];
}

/** What waits for an answer. */
export type Held =
  { kind: 'one'; gathered: Gathered } | { kind: 'list'; address: string; works: ListedWork[] };

/** What is gathered, or a list of works to choose from. */
export type GatheredOrList = Gathered | { address: string; title: string; works: ListedWork[] };

/** Tells the person how far it is. */
export type Step = (words: string, done?: number, total?: number) => void;

/** What is kept beside the record. */
export interface Keeping {
  page: boolean;
  pdf: boolean;
}

/** How a capture is carried out: until when, and whom to tell. */
export interface Doing {
  signal: AbortSignal;
  step: Step;
  keeping: Keeping;
}

export type { Candidate };
