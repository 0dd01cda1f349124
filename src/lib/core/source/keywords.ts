import { plain } from '../text';
import type { SourceRecord } from './schema';

/** The longest tag. */
const LONGEST = 120;

/**
 * The words a record is found by, for formats that have one field for them: its tags, and the keywords it came with, in
 * plain text.
 */
export const keywordsOf = ({ keyword = '', retexa }: SourceRecord): string[] => [
  ...new Set([
    ...retexa.tags,
    ...plain(keyword)
      .split(/[,;\r\n]+/)
      .map((word) => word.replace(/\s+/g, ' ').trim().slice(0, LONGEST).trim())
      .filter(Boolean),
  ]),
];
