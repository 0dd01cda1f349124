import { parseName } from './creators';
import { cslName, plainlyName, type CslName } from './schema';
import { CSL_TYPES, type CslType } from './variables';

/** Names DOI registration agencies give to types in place of CSL's, in the JSON they call CSL's (common practice; from memory). */
const AGENCY_TYPES = new Map<string, CslType>([
  ['journal-article', 'article-journal'],
  ['journal-issue', 'periodical'],
  ['proceedings-article', 'paper-conference'],
  ['book-chapter', 'chapter'],
  ['book-section', 'chapter'],
  ['monograph', 'book'],
  ['edited-book', 'book'],
  ['reference-book', 'book'],
  ['reference-entry', 'entry'],
  ['dissertation', 'thesis'],
  ['posted-content', 'article'],
  ['peer-review', 'review'],
  ['report-series', 'report'],
  ['component', 'document'],
]);

/** The CSL type a name in CSL-JSON stands for: CSL's own or a registration agency's. */
export const cslTypeOf = (name: string): CslType | undefined =>
  (CSL_TYPES as readonly string[]).includes(name) ? (name as CslType) : AGENCY_TYPES.get(name);

const TEXTS = new Set(['family', 'given', 'dropping-particle', 'non-dropping-particle', 'suffix', 'literal']);
const MARKS = new Set(['comma-suffix', 'static-ordering']);

/**
 * A creator of CSL-JSON as it is met: with keys of others (`sequence`, `affiliation`, an ORCID), `name` in place of
 * `literal`, marks as text or number, or as one text. `left` are the keys that hold something CSL has no place for.
 * Without a name there is no `name`.
 */
export function nameFromCsl(raw: unknown): { name?: CslName; left: string[] } {
  if (typeof raw === 'string') {
    const name = parseName(raw);
    return { ...(name ? { name } : {}), left: [] };
  }
  if (typeof raw !== 'object' || !raw) return { left: [] };
  const picked: Record<string, unknown> = {};
  const left: string[] = [];
  const keys = Object.keys(raw);
  for (let i = 0; i < keys.length; i++) {
    const key = keys[i]!;
    const value = (raw as Record<string, unknown>)[key];
    const text = typeof value === 'string' || typeof value === 'number' ? String(value) : '';
    if (TEXTS.has(key)) {
      if (text) picked[key] = text;
    } else if (MARKS.has(key)) {
      if (value === true || text === 'true' || text === '1') picked[key] = true;
    } else if (key === 'name' && text) picked.literal ??= text;
    else if (value !== null && !(Array.isArray(value) && value.length === 0)) left.push(key);
  }
  if (plainlyName(picked)) return { name: picked, left };
  const parsed = cslName.safeParse(picked);
  return { ...(parsed.success ? { name: parsed.data } : {}), left };
}
