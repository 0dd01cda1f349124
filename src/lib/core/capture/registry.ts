import {
  cslDate,
  cslTypeOf,
  isDateVariable,
  isNameVariable,
  isTextVariable,
  nameFromCsl,
  type CslName,
  type OriginKind,
} from '../source';
import { decodeEntities } from '../text';
import { collector, orcidsWith, textOnly, type Candidate } from './candidate';

const first = (value: unknown): unknown => (Array.isArray(value) ? value[0] : value);

/**
 * A CSL-JSON object from outside (a registry, a linked file) as candidates. Tolerant: arrays where CSL has one
 * string, agencies' own type names and nulls in `date-parts` are read; unknown keys and values of a wrong shape
 * are left out.
 */
export function fromCslJson(item: Record<string, unknown>, kind: OriginKind): Candidate[] {
  const c = collector(kind);
  c.type(cslTypeOf(String(item.type ?? '')), 'type');
  for (const [key, value] of Object.entries(item)) {
    if (isNameVariable(key) && Array.isArray(value)) {
      const named = value.flatMap((raw: unknown) => {
        const { name } = nameFromCsl(raw);
        return name ? [[name, (raw as { ORCID?: unknown }).ORCID] as [CslName, unknown]] : [];
      });
      const names = named.map(([name]) => name);
      c.names(key, names, key, orcidsWith(named));
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
