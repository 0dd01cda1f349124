import type { SourceRecord } from '../source';

/** Formats that are read and written. */
export const FORMAT_NAMES = ['bibtex', 'biblatex', 'ris', 'csl-json'] as const;
export type FormatName = (typeof FORMAT_NAMES)[number];

/** Formats that are read only: what catalogues and pages give. */
export const READ_ONLY_NAMES = ['medline', 'mods', 'marcxml', 'coins'] as const;
/** Every format that can be read. */
export const READABLE_NAMES = [...FORMAT_NAMES, ...READ_ONLY_NAMES] as const;
export type ReadableName = (typeof READABLE_NAMES)[number];
/** Those that are text; MODS and MARCXML are XML, for which core has no parser. */
export type TextFormatName = Exclude<ReadableName, 'mods' | 'marcxml'>;

/** An entry read: its record, the key it had, and where it began. Lines count from 1. */
export interface ReadEntry {
  record: SourceRecord;
  key?: string;
  line: number;
  /** What was read in another way than it was written, one sentence each. */
  notes: string[];
}

/** An entry that could not be read. */
export interface Skipped {
  line: number;
  reason: string;
  /** The beginning of the entry, to recognise it by. */
  text: string;
}

export interface ReadResult {
  entries: ReadEntry[];
  skipped: Skipped[];
}

/** A record to write, with the key it is known by. */
export interface WriteItem {
  key: string;
  record: SourceRecord;
}

/** Something a format cannot hold. */
export interface Loss {
  key: string;
  field: string;
  reason: string;
}

export interface WriteResult {
  text: string;
  losses: Loss[];
}

/** Reads and writes one format. */
export interface Format {
  name: FormatName;
  label: string;
  extension: string;
  mediaType: string;
  read(text: string): ReadResult;
  write(items: WriteItem[]): WriteResult;
}
