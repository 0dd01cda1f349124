import { recordsIn } from '../core/catalogues';
import { asFromFile, FILE_TIME, readFormat, type ReadableName, type ReadResult } from '../core/formats';
import { parseXml } from './xml';

/** The lines on which the records of an XML file begin, in order. */
function recordLines(text: string): number[] {
  const lines: number[] = [];
  let line = 1;
  let at = 0;
  for (const m of text.matchAll(/<(?:\w+:)?(?:record|mods)[\s>]/g)) {
    for (; at < m.index; at++) if (text.charCodeAt(at) === 10) line++;
    lines.push(line);
  }
  return lines;
}

/** Reads a file of references in any format that can be read. Never throws on bad input. */
export function readReferences(name: ReadableName, text: string): ReadResult {
  if (name !== 'mods' && name !== 'marcxml') return readFormat(name, text);
  try {
    const records = recordsIn(parseXml(text.replace(/^\uFEFF/, '').trim()), FILE_TIME);
    const lines = recordLines(text);
    return {
      entries: records.map((record, i) => ({
        record: asFromFile(record),
        line: lines[lines.length - records.length + i] ?? 1,
        notes: [],
      })),
      skipped: records.length
        ? []
        : [{ line: 1, reason: 'the XML holds no MODS or MARC record', text: text.slice(0, 120) }],
    };
  } catch (error) {
    const message = (error as Error).message;
    const line = Number(/^\D*?(\d+):\d+/.exec(message)?.[1] ?? 1);
    return {
      entries: [],
      skipped: [{ line, reason: `not well-formed XML (${message})`, text: text.slice(0, 120) }],
    };
  }
}
