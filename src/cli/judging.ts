import { setFlagsFromString } from 'node:v8';
import { asksFor, missingFor } from '../lib/core/citing';
import { findGroups, signatureOf } from '../lib/core/duplicates';
import { proof } from '../lib/core/proof';
import { styleTree } from '../lib/reading/styles';
import { readFile, styleNamed, type Outcome } from './references';

/** `retexa check`: what the style asks and each record lacks, and what the proof finds, as JSON. */
export function check(file: string, options: { from?: string; style?: string }): Outcome {
  const style = styleNamed(options.style);
  const tree = styleTree(style.id, style.file);
  const { items, words, partial } = readFile(file, options.from);
  const checked = items.map(({ key, record }) => ({
    key,
    type: record.type,
    missing: missingFor(asksFor(tree, record.type), record),
    findings: proof(record).map(({ check: name, field, message }) => ({ check: name, field, message })),
  }));
  return { data: `${JSON.stringify(checked, null, 2)}\n`, words, partial };
}

/**
 * `retexa duplicates`: groups of entries of one work, surest first, as JSON; `sure` gives only those there is no doubt of.
 */
export function duplicates(file: string, options: { from?: string; sure?: boolean }): Outcome {
  // A hundred thousand records are read and let go: what is let go is not left lying until the heap has doubled.
  setFlagsFromString('--heap-growing-percent=20');
  const { items, words, partial } = readFile(file, options.from);
  const ids = items.map(({ key }) => key);
  // Each record is let go for its signature, so that a large file is not in memory twice.
  const signatures = ids.map(() => signatureOf(items.pop()!.record)).reverse();
  const groups = findGroups(ids, signatures, options.sure).map((group) => ({
    ...group,
    score: Number(group.score.toFixed(4)),
  }));
  return { data: `${JSON.stringify(groups, null, 2)}\n`, words, partial };
}
