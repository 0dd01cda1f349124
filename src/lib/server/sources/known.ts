import { NAME_VARIABLES, nameText, type CslName } from '../../core/source';
import { fold } from '../../core/text';
import type { Context } from '../access/context';
import { living } from './repository';

/** Fields whose values repeat from source to source, for typing ahead. */
export const KNOWN_FIELDS = [
  'container-title',
  'publisher',
  'publisher-place',
  'collection-title',
  'event-title',
  'event-place',
  'archive',
  'archive-place',
  'genre',
  'language',
  'section',
  'authority',
] as const;

const MOST = 12;

/** Values of a field that the library holds, most used first, those that begin with the text before others. */
export async function knownValues(
  ctx: Context,
  field: (typeof KNOWN_FIELDS)[number],
  text: string,
): Promise<string[]> {
  const rows = (await living(ctx, {})
    .select(ctx.db.raw(`json_extract(record, ?) AS value, count(*) AS n`, [`$."${field}"`]))
    .groupBy('value')
    .orderBy('n', 'desc')
    .limit(5_000)) as { value: string | null }[];
  return fitting(
    rows.flatMap((r) => r.value ?? []),
    text,
  );
}

function fitting(values: string[], text: string): string[] {
  const wanted = fold(text);
  if (!wanted) return values.slice(0, MOST);
  const keyed = values.map((value) => ({ value, key: fold(value) }));
  const begins = keyed.filter((v) => v.key.startsWith(wanted));
  const holds = keyed.filter((v) => !v.key.startsWith(wanted) && v.key.includes(` ${wanted}`));
  return [...begins, ...holds].map((v) => v.value).slice(0, MOST);
}

/** Creators of the library's sources, as `Family, Given`, each once. */
export async function knownPeople(ctx: Context, text: string): Promise<string[]> {
  const wanted = fold(text);
  if (wanted.length < 2) return [];
  const roles = NAME_VARIABLES.map(
    (role) => `SELECT json_extract(record, '$."${role}"') AS names FROM hits`,
  ).join(' UNION ALL ');
  const hits = living(ctx, {})
    .where('people', 'like', `%${text.slice(0, 60).replace(/[%_]/g, '')}%`)
    .select('record')
    .limit(400)
    .toSQL();
  const rows = (await ctx.db.raw(`WITH hits AS (${hits.sql}) ${roles}`, hits.bindings as string[])) as {
    names: string | null;
  }[];
  const names = new Set<string>();
  for (const { names: json } of rows)
    for (const name of json ? (JSON.parse(json) as CslName[]) : []) names.add(nameText(name));
  return fitting([...names], text);
}
