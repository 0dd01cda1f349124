import { creatorsOf, nameText, type SourceRecord, type Variable } from '../../core/source';
import {
  pairOfForms,
  proposeSpellings,
  spellingsOf,
  textOfForm,
  type Difference,
  type Spelled,
} from '../../core/duplicates';
import { scoped, type Context } from '../access/context';
import { inParts, now } from '../db/ids';

/** Spellings of one key that are compared; a key that more share is of a family name that tells nothing. */
const MOST_FORMS = 1_000;
/** How many keys are proposed anew in one go. */
const MOST_KEYS = 500;

/** Spellings that look like one name, as they were compared when one of them came or went. */
export interface SpellingGroup {
  id: number;
  kind: Spelled;
  key: string;
  label: string;
  /** The fullest first. */
  forms: string[];
  differences: Difference[];
  sure: boolean;
}

interface Row {
  id: number;
  kind: Spelled;
  key: string;
  rank: number;
  label: string;
  forms: string;
  differences: string;
}

const opened = (row: Row): SpellingGroup => ({
  id: row.id,
  kind: row.kind,
  key: row.key,
  label: row.label,
  forms: JSON.parse(row.forms) as string[],
  differences: JSON.parse(row.differences) as Difference[],
  sure: row.rank === 0,
});

async function staleKeys(ctx: Context): Promise<Map<string, Spelled>> {
  const rows = (await scoped<{ key: string; kind: Spelled }>(ctx, 'spelling_stale')
    .limit(MOST_KEYS)
    .select('key', 'kind')) as { key: string; kind: Spelled }[];
  return new Map(rows.map(({ key, kind }) => [key, kind]));
}

async function apartOf(ctx: Context, keys: string[]): Promise<Map<string, Set<string>>> {
  const found = new Map<string, Set<string>>();
  for (const part of inParts(keys)) {
    const rows = (await scoped<{ key: string; a: string; b: string }>(ctx, 'spelling_apart')
      .whereIn('key', part)
      .select('key', 'a', 'b')) as { key: string; a: string; b: string }[];
    for (const { key, a, b } of rows) found.set(key, (found.get(key) ?? new Set()).add(pairOfForms(a, b)));
  }
  return found;
}

/** Proposes anew for the keys whose spellings have come or gone since. Call in the transaction that changed a source. */
export async function proposeAnew(ctx: Context): Promise<void> {
  for (let stale = await staleKeys(ctx); stale.size > 0; stale = await staleKeys(ctx)) {
    const keys = [...stale.keys()];
    const forms = new Map<string, string[]>();
    for (const part of inParts(keys)) {
      const rows = (await scoped<{ key: string; form: string }>(ctx, 'spelling')
        .whereIn('key', part)
        .where('n', '>', 0)
        .select('key', 'form')) as { key: string; form: string }[];
      for (const { key, form } of rows) forms.set(key, [...(forms.get(key) ?? []), form]);
      await scoped(ctx, 'spelling_group').whereIn('key', part).delete();
      await scoped(ctx, 'spelling_stale').whereIn('key', part).delete();
    }
    const apart = await apartOf(ctx, keys);
    const groups = keys.flatMap((key) => {
      const kind = stale.get(key)!;
      const some = forms.get(key) ?? [];
      if (some.length < 2 || some.length > MOST_FORMS) return [];
      return proposeSpellings(key, some, apart.get(key)).map(({ forms: alike, differences, sure }) => ({
        library_id: ctx.libraryId,
        kind,
        key,
        rank: sure ? 0 : 1,
        label: textOfForm(kind, alike[0]!).slice(0, 200),
        forms: JSON.stringify(alike),
        differences: JSON.stringify(differences),
      }));
    });
    for (const part of inParts(groups)) await ctx.db('spelling_group').insert(part);
  }
}

/** The first groups of a kind: sure ones first, then by name. */
export async function spellingGroups(ctx: Context, kind: Spelled, most: number): Promise<SpellingGroup[]> {
  const rows = (await scoped<Row>(ctx, 'spelling_group')
    .where('kind', kind)
    .orderBy('rank')
    .orderBy('label')
    .orderBy('id')
    .limit(most)) as Row[];
  return rows.map(opened);
}

/** Names of a record that the library has in another spelling too, fuller or more usual, by the field they stand in. */
export async function spelledOtherwise(
  ctx: Context,
  record: SourceRecord,
): Promise<{ field: Variable; here: string; elsewhere: string }[]> {
  const own = spellingsOf(record);
  const found = new Map<string, { field: Variable; here: string; elsewhere: string }>();
  for (const part of inParts([...new Set(own.map(({ key }) => key))])) {
    const rows = (await scoped<Row>(ctx, 'spelling_group').whereIn('key', part)) as Row[];
    for (const { kind, key, forms } of rows.map(opened)) {
      const mine = own.find((one) => one.key === key && forms.includes(one.form));
      const other = mine && forms.find((form) => form !== mine.form);
      if (!mine || other === undefined) continue;
      const [here, elsewhere] = [textOfForm(kind, mine.form), textOfForm(kind, other)];
      if (here !== elsewhere)
        found.set(here, {
          field: kind === 'container' ? 'container-title' : fieldOfName(record, here),
          here,
          elsewhere,
        });
    }
  }
  return [...found.values()];
}

/** The role in which a name stands in a record. */
const fieldOfName = (record: SourceRecord, text: string): Variable =>
  creatorsOf(record).find(({ names }) => names.some((name) => nameText(name) === text))?.role ?? 'author';

/** How many groups there are of each kind. */
export async function spellingTotals(ctx: Context): Promise<Record<Spelled, number>> {
  const rows = (await scoped(ctx, 'spelling_group')
    .groupBy('kind')
    .select('kind')
    .count({ n: '*' })) as unknown as { kind: Spelled; n: number }[];
  return { person: 0, container: 0, ...Object.fromEntries(rows.map(({ kind, n }) => [kind, n])) };
}

/** A group by its id; a group that has been made anew since has another. */
export async function spellingGroup(ctx: Context, id: number): Promise<SpellingGroup | undefined> {
  const row = (await scoped<Row>(ctx, 'spelling_group').where('id', id).first()) as Row | undefined;
  return row && opened(row);
}

/** How many sources have each of some spellings of a key. */
export async function timesOf(ctx: Context, key: string, forms: string[]): Promise<Map<string, number>> {
  const found = new Map<string, number>();
  for (const part of inParts(forms)) {
    const rows = (await scoped<{ form: string; n: number }>(ctx, 'spelling')
      .where('key', key)
      .whereIn('form', part)
      .select('form', 'n')) as { form: string; n: number }[];
    for (const { form, n } of rows) found.set(form, n);
  }
  return found;
}

/** Ids of the sources that have any of some spellings of a key, in the order they were added, at most `most`. */
export async function sourcesSpelling(
  ctx: Context,
  key: string,
  forms: string[],
  most: number,
): Promise<string[]> {
  const ids = new Set<string>();
  for (const part of inParts(forms)) {
    const rows = (await scoped(ctx, 'spelling')
      .join('spelling_source', 'spelling_source.spelling_id', 'spelling.id')
      .join('lookup', 'lookup.id', 'spelling_source.lookup_id')
      .where('spelling.key', key)
      .whereIn('form', part)
      .limit(most + 1)
      .select('lookup.source_id as id')) as unknown as { id: string }[];
    for (const { id } of rows) ids.add(id);
  }
  return [...ids].sort();
}

const inOrder = (a: string, b: string) => (a < b ? { a, b } : { a: b, b: a });

/** Says that one spelling of a key is another name than some others; they are not proposed together again. */
export async function setSpellingApart(
  ctx: Context,
  key: string,
  form: string,
  others: string[],
): Promise<void> {
  const said = { library_id: ctx.libraryId, key, person_id: ctx.personId, at: now() };
  const rows = others.map((other) => ({ ...said, ...inOrder(form, other) }));
  for (const part of inParts(rows)) await ctx.db('spelling_apart').insert(part).onConflict().ignore();
  await proposeKeyAnew(ctx, key);
}

/** Takes that back. */
export async function unsetSpellingApart(
  ctx: Context,
  key: string,
  form: string,
  others: string[],
): Promise<void> {
  for (const other of others)
    await scoped(ctx, 'spelling_apart')
      .where({ key, ...inOrder(form, other) })
      .delete();
  await proposeKeyAnew(ctx, key);
}

async function proposeKeyAnew(ctx: Context, key: string): Promise<void> {
  const spelling = (await scoped(ctx, 'spelling').where({ key }).first('kind')) as
    { kind: Spelled } | undefined;
  if (!spelling) return;
  await ctx
    .db('spelling_stale')
    .insert({ library_id: ctx.libraryId, key, kind: spelling.kind })
    .onConflict()
    .ignore();
  await proposeAnew(ctx);
}

/** The last pairs of spellings that were said to be two names, latest first, at most a hundred. */
export const spellingsApart = async (
  ctx: Context,
): Promise<{ key: string; a: string; b: string; at: string }[]> =>
  (await scoped(ctx, 'spelling_apart').orderBy('at', 'desc').limit(100).select('key', 'a', 'b', 'at')) as {
    key: string;
    a: string;
    b: string;
    at: string;
  }[];
