import { fromContextObject, reconcile } from '../../capture';
import { asFromFile, FILE_TIME } from '../finish';
import type { ReadResult } from '../types';

const decoded = (text: string) =>
  text
    .replace(/&amp;/g, '&')
    .replace(/&quot;/g, '"')
    .replace(/&#39;/g, "'");

/**
 * Reads ContextObjects (ANSI/NISO Z39.88-2004) from any text that holds them: in the `title` of COinS spans, or one a
 * line as key and value pairs.
 */
export function readCoins(text: string): ReadResult {
  const result: ReadResult = { entries: [], skipped: [] };
  for (const m of text.matchAll(/[^\s"'<>]*ctx_ver=Z39\.88-2004[^\s"'<>]*/g)) {
    const line = text.slice(0, m.index).split('\n').length;
    const candidates = fromContextObject(decoded(m[0]));
    if (!candidates.some((c) => c.field === 'title' || c.field === 'container-title'))
      result.skipped.push({ line, reason: 'a ContextObject without a title', text: m[0].slice(0, 120) });
    else {
      const record = asFromFile(reconcile(candidates, '', FILE_TIME));
      result.entries.push({ record, line, notes: [] });
    }
  }
  return result;
}
