import { z } from 'zod';
import { LANGUAGE_TAG, TRANSLATED } from './translations';
import { CSL_TYPES, DATE_VARIABLES, NAME_VARIABLES, NUMBER_VARIABLES, TEXT_VARIABLES } from './variables';
import { credibility } from './credibility';
import { isOrcid, withoutPassword } from './identifiers';
import { hasControls, nfc, withoutControls } from '../text';

const LONG = new Set<string>(['abstract', 'annote', 'note', 'references', 'keyword']);
const text = (max: number) =>
  z
    .string()
    .max(max)
    .transform((t) => nfc(withoutControls(t)));
const address = text(8_000).transform(withoutPassword);
const line = text(4_000);

/** A creator in CSL-JSON: `family` and `given` with their particles and suffix, or one `literal` name. */
export const cslName = z
  .strictObject({
    family: line.optional(),
    given: line.optional(),
    'dropping-particle': line.optional(),
    'non-dropping-particle': line.optional(),
    suffix: line.optional(),
    literal: line.optional(),
    'comma-suffix': z.boolean().optional(),
    'static-ordering': z.boolean().optional(),
  })
  .refine((n) => Boolean(n.family || n.given || n.literal), { message: 'A creator needs a name' });
export type CslName = z.infer<typeof cslName>;

const datePart = z
  .array(z.number().int())
  .min(1)
  .max(3)
  .refine(
    ([, m, d]) => (m === undefined || (m >= 1 && m <= 12)) && (d === undefined || (d >= 1 && d <= 31)),
    {
      message: 'Month must be 1 to 12 and day 1 to 31',
    },
  );

/**
 * A CSL date. `date-parts` holds one date or the two ends of a range, each as year, month, day as far as known;
 * `[[0]]` is never stored; years before Christ are negative. `season` is 1 spring to 4 winter. `edtf` is the date in
 * ISO 8601-2 where the parts do not say it all (an open range, digits not known, `?`). `literal` is text no calendar fits.
 */
export const cslDate = z
  .strictObject({
    'date-parts': z.array(datePart).min(1).max(2).optional(),
    season: z.number().int().min(1).max(4).optional(),
    circa: z.boolean().optional(),
    edtf: z.string().max(60).optional(),
    literal: line.optional(),
  })
  .refine((d) => d['date-parts'] !== undefined || Boolean(d.literal), {
    message: 'A date needs a year or text',
  });
export type CslDate = z.infer<typeof cslDate>;

/** Where a value came from. `person` is a value typed by hand. */
export const ORIGIN_KINDS = [
  'registry',
  'linked',
  'highwire',
  'prism',
  'json-ld',
  'microdata',
  'rdfa',
  'coins',
  'dublin-core',
  'document',
  'reference',
  'open-graph',
  'html',
  'file',
  'person',
] as const;
export const originKind = z.enum(ORIGIN_KINDS);
export type OriginKind = z.infer<typeof originKind>;

/** A value once seen for a field. `at` is UTC ISO 8601; `why` says in a few words why it was or was not taken. */
export const seen = z.strictObject({
  kind: originKind,
  value: z.unknown(),
  address: text(4_000).transform(withoutPassword).optional(),
  at: z.string().max(40),
  why: text(400).optional(),
});
export type Seen = z.infer<typeof seen>;

/** What CSL lacks: origins by field, tags, fields of foreign formats that no mapping knows, and what the proof is to let stand. */
export const own = z.strictObject({
  origins: z.record(z.string().max(60), z.array(seen).max(40)).default({}),
  tags: z.array(text(120)).max(200).default([]),
  kept: z.record(z.string().max(20), z.record(z.string().max(200), text(100_000))).default({}),
  /** Findings of the proof that somebody let stand, each with the value it was about. */
  sic: z
    .array(z.strictObject({ check: z.string().max(80), value: text(400) }))
    .max(100)
    .optional(),
  /** ORCIDs that came with the names of creators, by the name as it is shown. */
  orcids: z.record(z.string().max(40_000), z.string().refine(isOrcid)).optional(),
  /** How far somebody said it can be trusted, and why. */
  credibility: credibility.optional(),
});
export type Own = z.infer<typeof own>;

/** The titles of a work in other languages, one for each title and language. */
export const translations = z
  .array(
    z.strictObject({
      of: z.enum(TRANSLATED),
      language: z
        .string()
        .max(35)
        .regex(LANGUAGE_TAG, 'A language is told by its tag, such as “en” or “pt-BR”'),
      text: text(8_000).transform((t) => t.trim()),
    }),
  )
  .max(40);

type Shape<K extends readonly string[], T extends z.ZodType> = { [k in K[number]]: z.ZodOptional<T> };
const shape = <K extends readonly string[], T extends z.ZodType>(keys: K, of: (key: string) => T) =>
  Object.fromEntries(keys.map((k) => [k, of(k).optional()])) as Shape<K, T>;

/** The record of a source: a CSL-JSON item without its `id`, and ours under `retexa`. */
export const sourceRecord = z.strictObject({
  type: z.enum(CSL_TYPES),
  ...shape(TEXT_VARIABLES, (k) => (k === 'URL' ? address : text(LONG.has(k) ? 100_000 : 8_000))),
  ...shape(NUMBER_VARIABLES, () => line),
  ...shape(NAME_VARIABLES, () => z.array(cslName).max(2_000)),
  ...shape(DATE_VARIABLES, () => cslDate),
  custom: z.record(z.string(), z.unknown()).optional(),
  retexa: own.default({ origins: {}, tags: [], kept: {} }),
});
export type SourceRecord = z.infer<typeof sourceRecord>;

const plainText = (value: unknown, max: number): boolean =>
  typeof value === 'string' &&
  value.length <= max &&
  (/^[\t\n\r -~]*$/.test(value) || (value === nfc(value) && !hasControls(value)));
const ofKind = new Map<string, (value: unknown) => boolean>([
  ...TEXT_VARIABLES.map((k) => [k, (v: unknown) => plainText(v, LONG.has(k) ? 100_000 : 8_000)] as const),
  ['URL', (v: unknown) => plainText(v, 8_000) && withoutPassword(v as string) === v] as const,
  ...NUMBER_VARIABLES.map((k) => [k, (v: unknown) => plainText(v, 4_000)] as const),
  ...NAME_VARIABLES.map((k) => [k, plainNames] as const),
  ...DATE_VARIABLES.map((k) => [k, plainDate] as const),
]);
const NAME_PARTS = new Set([
  'family',
  'given',
  'dropping-particle',
  'non-dropping-particle',
  'suffix',
  'literal',
]);

/** Whether this is plainly a creator of the schema, so that parsing would give it back as it is. When in doubt it says no. */
export function plainlyName(name: Record<string, unknown>): boolean {
  for (const part in name) if (!NAME_PARTS.has(part) || !plainText(name[part], 4_000)) return false;
  return Boolean(name.family || name.given || name.literal);
}

function plainNames(value: unknown): boolean {
  return Array.isArray(value) && value.length <= 2_000 && value.every(plainlyName);
}

function plainDate(value: unknown): boolean {
  const date = value as CslDate;
  const parts = date['date-parts'];
  if (date.edtf || date.literal || date.season || !parts || parts.length < 1 || parts.length > 2)
    return false;
  return parts.every(
    ([y, m, d, ...more]) =>
      more.length === 0 &&
      Number.isInteger(y) &&
      (m === undefined || (m >= 1 && m <= 12)) &&
      (d === undefined || (d >= 1 && d <= 31)),
  );
}

/**
 * Whether fields are plainly a record of the schema, so that parsing would give them back as they are: asked of what
 * readers of large files make, since parsing walks every variable there is. When in doubt it says no.
 */
export function plainlyRecord(
  fields: Record<string, unknown>,
  kept: Record<string, string>,
  tags: string[],
): boolean {
  for (const field in fields)
    if (field !== 'type' && !(ofKind.get(field)?.(fields[field]) ?? false)) return false;
  for (const name in kept) if (name.length > 200 || !plainText(kept[name], 100_000)) return false;
  return tags.length <= 200 && tags.every((tag) => plainText(tag, 120));
}

/** A CSL-JSON item as processors and files have it: an id, and nothing of ours. */
export type CslItem = Omit<SourceRecord, 'retexa'> & { id: string };

/** The CSL-JSON item of a record. Its dates keep `edtf`, which files write as the date itself. */
export const toCsl = (id: string, record: SourceRecord): CslItem => ({
  ...(tidied(itemOf(id, record)) as CslItem),
  id,
});

/** The same of a record whose texts are tidy, as those are that were just read from a file. */
export function itemOf(id: string, record: SourceRecord): CslItem {
  const { retexa: _ours, ...item } = record;
  return { id, ...item };
}

/**
 * A value with its texts as they may be kept and written: without characters that are no text, addresses without a
 * password. The same value when there is nothing to take out.
 */
export function tidied(value: unknown): unknown {
  if (typeof value === 'string') return withoutPassword(withoutControls(value));
  if (typeof value !== 'object' || value === null) return value;
  let next: Record<string, unknown> | unknown[] | undefined;
  const keys = Object.keys(value);
  for (let i = 0; i < keys.length; i++) {
    const key = keys[i]!;
    const part = (value as Record<string, unknown>)[key];
    const clean = tidied(part);
    if (clean === part) continue;
    next ??= Array.isArray(value) ? [...(value as unknown[])] : { ...value };
    (next as Record<string, unknown>)[key] = clean;
  }
  return next ?? value;
}

/** A record with its texts as they may be kept, and the fields something was taken out of. */
export function tidiedRecord(record: SourceRecord): { record: SourceRecord; fields: string[] } {
  const clean = tidied(record) as SourceRecord;
  const fields = Object.keys(record).filter(
    (k) => k !== 'retexa' && clean[k as keyof SourceRecord] !== record[k as keyof SourceRecord],
  );
  return { record: clean, fields };
}

/** What is told of fields something was taken out of; nothing when there are none. */
export const takenOutOf = (fields: string[]): string[] =>
  fields.length ? [`characters that are no text, or a password, were taken out of ${fields.join(', ')}`] : [];

/** An empty record of a type. */
export function emptyRecord(type: SourceRecord['type']): SourceRecord {
  return { type, retexa: { origins: {}, tags: [], kept: {} } };
}

/** One sentence a problem, each naming the field: the words shown when a record is refused. */
export function problemsOf(error: z.ZodError): string[] {
  return error.issues.map((issue) => {
    const where = issue.path.join(' › ') || 'record';
    if (issue.code === 'unrecognized_keys') return `${where}: unknown field ${issue.keys.join(', ')}`;
    return `${where}: ${issue.message}`;
  });
}
