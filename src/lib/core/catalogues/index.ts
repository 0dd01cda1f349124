import type { Candidate } from '../capture';
import type { SourceRecord } from '../source';
import { marcCandidates, marcRecords } from './marc';
import { modsCandidates, modsRecords } from './mods';
import { all, textIn } from './xml';

/** Every record in an XML document of either format. `at` is UTC ISO 8601, noted with each value. */
export function recordsIn(doc: Document, at: string): SourceRecord[] {
  const mods = modsRecords(doc, at);
  return mods.length ? mods : marcRecords(doc, at);
}

/** The candidates of the first record in an XML document; none when it holds no record. */
export function catalogueCandidates(doc: Document): Candidate[] {
  const mods = modsCandidates(doc);
  return mods.length ? mods : marcCandidates(doc);
}

/** What an SRU server says went wrong, in its own words. Source: SRU 1.2, diagnostics (OASIS searchRetrieve). */
export function diagnosticOf(doc: Document): string | undefined {
  const diagnostic = all(doc, 'diagnostic')[0];
  return diagnostic && textIn(all(diagnostic, 'message')[0] ?? all(diagnostic, 'details')[0] ?? diagnostic);
}
