import { valueText, withEdit, type SourceRecord } from '../source';
import { dateChecks } from './checks/dates';
import { editionWords } from './checks/edition';
import { identifierChecks } from './checks/identifiers';
import { kindChecks } from './checks/kind';
import { creatorMissing, dateMissing, partsMissing } from './checks/missing';
import { nameChecks } from './checks/names';
import { othersMissing } from './checks/others';
import { numberChecks } from './checks/pages';
import { publisherChecks } from './checks/publisher';
import { titleChecks } from './checks/title';
import type { Check, Finding, FoundIn, Known } from './types';

export type { Finding, FoundIn } from './types';
export { checkedOf, CHECKS_MADE, type Checked } from './checked';
export { isAround, proofAround, type Around } from './around';

const CHECKS: Check[] = [
  ...titleChecks,
  creatorMissing,
  othersMissing,
  ...nameChecks,
  dateMissing,
  ...dateChecks,
  editionWords,
  partsMissing,
  ...numberChecks,
  ...identifierChecks,
  ...publisherChecks,
  ...kindChecks,
];

/** How grave a pencil is: what prints wrong first. */
export const RANK = { red: 0, blue: 1, grey: 2 } as const;

/** Findings in the order they are shown: what prints wrong first. */
export const inOrder = (findings: Finding[]): Finding[] =>
  findings.sort((a, b) => RANK[a.pencil] - RANK[b.pencil]);

/** The value a finding is about, as it is kept when somebody lets it stand. */
const valueAt = (record: SourceRecord, { field }: Pick<Finding, 'field'>): string =>
  valueText(field, record[field]).slice(0, 400);

/** Whether somebody let a finding stand as it is, and the value is still the one they saw. */
export const letStand = (record: SourceRecord, finding: Finding): boolean =>
  (record.retexa.sic ?? []).some(
    ({ check, value }) => check === finding.check && value === valueAt(record, finding),
  );

/** A record that lets what a check found in it stand, as long as the value stays; without a finding, one in which the check is asked again. */
export function withSic(record: SourceRecord, check: string, finding: Finding | undefined): SourceRecord {
  const others = (record.retexa.sic ?? []).filter((one) => one.check !== check);
  const sic = finding ? [...others, { check, value: valueAt(record, finding) }] : others;
  const { sic: _before, ...retexa } = record.retexa;
  return { ...record, retexa: { ...retexa, ...(sic.length ? { sic } : {}) } };
}

/** All findings of a record by itself, those that somebody let stand among them. */
export function proofAll(
  record: SourceRecord,
  known: Known = { year: new Date().getUTCFullYear() },
): Finding[] {
  return inOrder(CHECKS.flatMap((check) => check(record, known)));
}

/**
 * The edit that mends what prints wrong in a record, as far as the checks know, one after the other, since one value may be
 * wrong in several ways. Questions are for the person.
 */
export function mended(record: SourceRecord): Partial<Record<FoundIn, unknown>> {
  const edit: Partial<Record<FoundIn, unknown>> = {};
  const done = new Set<string>();
  let now = record;
  for (;;) {
    const next = proof(now).find((f) => f.pencil === 'red' && f.fix && !done.has(f.check));
    if (!next) return edit;
    done.add(next.check);
    Object.assign(edit, next.fix!.edit);
    now = withEdit(now, next.fix!.edit, '');
  }
}

/** The findings of a record by itself that nobody let stand, those that print wrong first. */
export const proof = (record: SourceRecord, known?: Known): Finding[] =>
  proofAll(record, known).filter((finding) => !letStand(record, finding));
