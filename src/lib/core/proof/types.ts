import type { SourceRecord, Variable } from '../source';

/** A field a finding is about, or the type. */
export type FoundIn = Variable | 'type';

/** Something a person should look at in a record. */
export interface Finding {
  /** What was checked; `CHECKED` says of each what it means. */
  check: string;
  /** `red`: it will print wrong. `blue`: a question. `grey`: it prints, and could be better. */
  pencil: 'red' | 'blue' | 'grey';
  field: FoundIn;
  message: string;
  /** An edit of the record that answers it. */
  fix?: { label: string; edit: Partial<Record<FoundIn, unknown>> };
}

/** What is known beside a record when it is proofed. */
export interface Known {
  /** The year it is. */
  year: number;
}

export type Check = (record: SourceRecord, known: Known) => Finding[];
