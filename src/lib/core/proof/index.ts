import type { SourceRecord } from '../source';
import { editionWords } from './checks/edition';
import { identifiers } from './checks/identifiers';
import { creatorMissing, dateMissing, partsMissing } from './checks/missing';
import { othersMissing } from './checks/others';
import { pageForm } from './checks/pages';
import { titleCapitals, titleMissing } from './checks/title';
import type { Check, Finding } from './types';

export type { Finding } from './types';

const CHECKS: Check[] = [
  titleMissing,
  titleCapitals,
  creatorMissing,
  othersMissing,
  dateMissing,
  editionWords,
  partsMissing,
  pageForm,
  identifiers,
];

/** All findings of a record, those that print wrong first. */
export function proof(record: SourceRecord): Finding[] {
  const findings = CHECKS.flatMap((check) => check(record));
  return findings.sort((a, b) => (a.pencil === b.pencil ? 0 : a.pencil === 'red' ? -1 : 1));
}
