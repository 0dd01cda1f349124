import { fromContextObject, reconcile } from '../../capture';
import { decodeEntities } from '../../text';
import { asFromFile, FILE_TIME } from '../finish';
import type { ReadResult } from '../types';

const VERSION = 'ctx_ver=Z39.88-2004';
/** A ContextObject is one word, and in a page the whole value of an attribute. */
const END = /[\s"'<>]/g;
/** The longest that is looked for before the version, which is nearly always the first of its keys. */
const BEFORE = 4_000;

function startOf(text: string, at: number): number {
  let from = at;
  while (from > 0 && at - from < BEFORE && !/[\s"'<>]/.test(text[from - 1]!)) from--;
  return from;
}

/**
 * Reads ContextObjects (ANSI/NISO Z39.88-2004) from any text that holds them: in the `title` of COinS spans, or one a
 * line as key and value pairs.
 */
export function readCoins(text: string): ReadResult {
  const result: ReadResult = { entries: [], skipped: [] };
  for (let at = text.indexOf(VERSION); at !== -1; at = text.indexOf(VERSION, at + 1)) {
    const from = startOf(text, at);
    END.lastIndex = at;
    const object = text.slice(from, END.exec(text)?.index ?? text.length);
    const line = text.slice(0, from).split('\n').length;
    at = from + object.length;
    const candidates = fromContextObject(decodeEntities(object));
    if (!candidates.some((c) => c.field === 'title' || c.field === 'container-title'))
      result.skipped.push({ line, reason: 'a ContextObject without a title', text: object.slice(0, 120) });
    else {
      const record = asFromFile(reconcile(candidates, '', FILE_TIME));
      result.entries.push({ record, line, notes: [] });
    }
  }
  return result;
}
