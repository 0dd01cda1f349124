import type { SourceRecord, Variable } from '../source';

/** Something a person should look at in a record. */
export interface Finding {
  check: string;
  /** `red`: it will print wrong. `blue`: a question. */
  pencil: 'red' | 'blue';
  field: Variable;
  message: string;
  fix?: { label: string; edit: Partial<Record<Variable, unknown>> };
}

export type Check = (record: SourceRecord) => Finding[];
