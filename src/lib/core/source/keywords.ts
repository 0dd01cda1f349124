import { fold, plain } from '../text';
import type { SourceRecord } from './schema';

/** The longest tag. */
const LONGEST = 120;

/** The keywords a record came with, as its publisher or cataloguer gave them, each once, in plain text. */
const givenWith = ({ keyword = '' }: SourceRecord): string[] => [
  ...new Set(
    plain(keyword)
      .split(/[,;\r\n]+/)
      .map((word) => word.replace(/\s+/g, ' ').trim().slice(0, LONGEST).trim())
      .filter(Boolean),
  ),
];

/** The words a record is found by, for formats that have one field for them: its tags, and the keywords it came with. */
export const keywordsOf = (record: SourceRecord): string[] => [
  ...new Set([...record.retexa.tags, ...givenWith(record)]),
];

/** The keywords a record came with that are none of its tags: they stay apart from those until somebody takes them. */
export function keywordsNotTaken(record: SourceRecord): string[] {
  const tags = new Set(record.retexa.tags.map(fold));
  return givenWith(record).filter((word) => !tags.has(fold(word)));
}
