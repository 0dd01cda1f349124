import {
  cslDate,
  cslName,
  CSL_TYPES,
  isDateVariable,
  isNameVariable,
  isTextVariable,
  type CslType,
  type OriginKind,
} from '../source';
import { decodeEntities } from '../text';
import { collector, textOnly, type Candidate } from './candidate';

/** Type names DOI registration agencies use in place of CSL's. */
const TYPES: Record<string, CslType> = {
  'journal-article': 'article-journal',
  'proceedings-article': 'paper-conference',
  'book-chapter': 'chapter',
  monograph: 'book',
  'edited-book': 'book',
  dissertation: 'thesis',
  'posted-content': 'article',
  'report-series': 'report',
  component: 'document',
};

const first = (value: unknown): unknown => (Array.isArray(value) ? value[0] : value);

/**
 * A CSL-JSON object from outside (a registry, a linked file) as candidates. Tolerant: arrays where CSL has one
 * string, agencies' own type names and nulls in `date-parts` are read; unknown keys and values of a wrong shape
 * are left out.
 */
export function fromCslJson(item: Record<string, unknown>, kind: OriginKind): Candidate[] {
  const c = collector(kind);
  const type = String(item.type ?? '');
  c.type((CSL_TYPES as readonly string[]).includes(type) ? (type as CslType) : TYPES[type], 'type');
  for (const [key, value] of Object.entries(item)) {
    if (isNameVariable(key) && Array.isArray(value)) {
      const names = value.flatMap((n: unknown) => {
        const raw = (typeof n === 'object' && n ? n : {}) as Record<string, unknown>;
        const picked = Object.fromEntries(
          ['family', 'given', 'dropping-particle', 'non-dropping-particle', 'suffix', 'literal']
            .filter((k) => typeof raw[k] === 'string' && raw[k] !== '')
            .map((k) => [k, raw[k]]),
        );
        if (!picked.literal && typeof raw.name === 'string') picked.literal = raw.name;
        const parsed = cslName.safeParse(picked);
        return parsed.success ? [parsed.data] : [];
      });
      c.names(key, names, key);
    } else if (isDateVariable(key) && typeof value === 'object' && value) {
      const raw = value as Record<string, unknown>;
      const parts = (Array.isArray(raw['date-parts']) ? raw['date-parts'] : [])
        .map((p: unknown) =>
          Array.isArray(p) ? p.map(Number).filter((n) => Number.isInteger(n) && n !== 0) : [],
        )
        .filter((p) => p.length > 0);
      const date = cslDate.safeParse(
        parts.length ? { 'date-parts': parts } : { literal: raw.literal ?? raw.raw },
      );
      if (date.success) c.found.push({ field: key, value: date.data, kind, note: key });
    } else if (isTextVariable(key) && key !== 'source') {
      const text = first(value);
      if (typeof text === 'string' || typeof text === 'number') {
        const html = key === 'title' || key === 'abstract' || key === 'container-title';
        c.text(key, html ? decodeEntities(textOnly(String(text))) : String(text), key);
      }
    }
  }
  return c.found;
}
