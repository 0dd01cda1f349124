import { BIN_KINDS, type BinKind } from './requests';
import { change } from '../access/change';
import { scoped, type Context } from '../access/context';
import { inParts } from '../db/ids';
import { removeCopies } from '../copies/repository';
import { filesLeave } from '../files/leaving';
import { forgetNamed, forgetRevisions } from '../history/repository';
import { figuresOf } from '../passages/figures';
import { removeProjects } from '../projects/repository';
import { removeSections } from '../projects/sections';
import { Refusal } from '../access/refusal';
import { takeOff } from '../sources/hanging';
import { takeOutOfIndex, type SearchKind } from '../search/repository';

export * from './requests';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['sources', 'passages', 'notes', 'leads', 'tasks', 'projects'] } as const;

/** What lies in the bin, by kind, and the tables it is in. */
const TABLES = {
  passages: 'passage',
  leads: 'lead',
  notes: 'note',
  tasks: 'task',
  sources: 'source',
  sections: 'section',
  projects: 'project',
} as const;

type Row = Record<string, string | null>;

/** Rows of a table whose column holds one of the ids. */
async function rowsOf(ctx: Context, table: string, column: string, ids: string[]): Promise<Row[]> {
  const found: Row[] = [];
  for (const part of inParts(ids)) found.push(...((await ctx.db(table).whereIn(column, part)) as Row[]));
  return found;
}

async function removeWhere(ctx: Context, table: string, column: string, ids: string[]): Promise<void> {
  for (const part of inParts(ids)) await ctx.db(table).whereIn(column, part).delete();
}

const idsOf = (rows: Row[]) => rows.map((r) => r.id!);

/** Rows that have a history and are searched, with both. */
async function remove(
  ctx: Context,
  kind: Exclude<SearchKind, 'copy' | 'own' | 'part'>,
  ids: string[],
): Promise<void> {
  await forgetRevisions(ctx, ids);
  await takeOutOfIndex(ctx, kind, ids);
  await removeWhere(ctx, kind, 'id', ids);
}

const removeTasks = (ctx: Context, ids: string[]) => remove(ctx, 'task', ids);

async function removePassages(ctx: Context, ids: string[]): Promise<void> {
  await filesLeave(ctx, await figuresOf(ctx, ids));
  await removeWhere(ctx, 'placement', 'passage_id', ids);
  await removeWhere(ctx, 'passage_tag', 'passage_id', ids);
  for (const end of ['from_id', 'to_id']) await removeWhere(ctx, 'passage_link', end, ids);
  await removeTasks(ctx, idsOf(await rowsOf(ctx, 'task', 'passage_id', ids)));
  await remove(ctx, 'passage', ids);
}

async function removeNotes(ctx: Context, ids: string[]): Promise<void> {
  const recordings = (await rowsOf(ctx, 'note', 'id', ids)).map((r) => r.audio_sha256);
  await removeWhere(ctx, 'placement', 'note_id', ids);
  await remove(ctx, 'note', ids);
  await filesLeave(ctx, recordings);
}

/**
 * Sources with their copies, passages, filings and history, and with the sources merged into them. Notes on them and
 * leads met in them stay, on nothing, since they are one's own thoughts. `untouched` are sources nobody worked with: no
 * history but their own names them.
 */
export async function removeSources(ctx: Context, given: string[], untouched = false): Promise<void> {
  const ids = [...given];
  for (let found = given; found.length;) {
    found = idsOf(await rowsOf(ctx, 'source', 'merged_into', found));
    ids.push(...found);
  }
  if (!untouched) await forgetNamed(ctx, ['note', 'lead'], ids);
  await takeOff(ctx, ids, { passage: removePassages, task: removeTasks, copy: removeCopies });
  await remove(ctx, 'source', ids);
}

const REMOVE: Record<BinKind, (ctx: Context, ids: string[]) => Promise<void>> = {
  passages: removePassages,
  tasks: removeTasks,
  leads: (ctx, ids) => remove(ctx, 'lead', ids),
  notes: removeNotes,
  sources: removeSources,
  sections: removeSections,
  async projects(ctx, ids) {
    await forgetNamed(ctx, ['note', 'lead'], ids);
    await removeProjects(ctx, ids);
  },
};

/** Removes rows of a kind for good, wherever they are, with all that hangs on them; in the transaction of who decides it. */
export const removeRows = (ctx: Context, kind: BinKind, ids: string[]): Promise<void> =>
  REMOVE[kind](ctx, ids);

async function allInBin(ctx: Context, kind: BinKind, ids: string[]): Promise<boolean> {
  let there = 0;
  for (const part of inParts(ids)) {
    const query = scoped(ctx, TABLES[kind]).whereIn('id', part).whereNotNull('binned');
    if (kind === 'sources') void query.whereNull('merged_into');
    // Those that went there under another are deleted with it.
    if (kind === 'sections') void query.whereRaw('binned_with = id');
    const [{ n }] = (await query.count({ n: '*' })) as unknown as [{ n: number }];
    there += n;
  }
  return there === ids.length;
}

/**
 * Deletes for good what lies in the bin, by kind, all of it or nothing. It cannot be undone. Refuses when something of it
 * is not in the bin (any more). Files leave the store at the next start.
 */
export async function deleteAllForGood(
  ctx: Context,
  given: Partial<Record<BinKind, string[]>>,
): Promise<void> {
  await change(ctx, CHANGE, async (inner) => {
    // Sources last: what hangs on them may be given by itself too.
    for (const kind of BIN_KINDS) {
      const ids = [...new Set(given[kind])];
      if (!(await allInBin(inner, kind, ids)))
        throw new Refusal(409, 'Not all of this is in the bin any more. Look again; nothing was deleted.');
      await REMOVE[kind](inner, ids);
    }
  });
}

/** The same, of one kind. */
export const deleteForGood = (ctx: Context, kind: BinKind, ids: string[]): Promise<void> =>
  deleteAllForGood(ctx, { [kind]: ids });
