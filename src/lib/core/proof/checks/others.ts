import { fieldName, isNameVariable, othersUnnamed } from '../../source';
import type { Check } from '../types';

/** A file ended a list of names with "and others"; styles that name them all print the list as if it were whole. */
export const othersMissing: Check = (record) =>
  Object.keys(record)
    .filter(isNameVariable)
    .filter((variable) => othersUnnamed(record, variable))
    .map((variable) => ({
      check: `${variable}-others`,
      pencil: 'red' as const,
      field: variable,
      message: `More ${fieldName(variable)} than these; the file said “and others”`,
    }));
