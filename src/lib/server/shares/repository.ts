import type { Knex } from 'knex';
import { scoped, type Context } from '../access/context';
import { hashOf } from '../access/secrets';
import { newId, now } from '../db/ids';

/** A link to read, as it is kept: what it opens, in which style, and how long. */
export interface ShareRow {
  id: string;
  library_id: string;
  what: 'project' | 'section' | 'list';
  project_id: string | null;
  section_id: string | null;
  source_ids: string | null;
  name: string;
  style: string;
  locale: string;
  documents: number;
  passages: number;
  expires: string | null;
  withdrawn: string | null;
}

/** A link to read, as it is listed: its secret is not kept. */
export interface Share {
  id: string;
  name: string;
  what: ShareRow['what'];
  documents: boolean;
  passages: boolean;
  made: string;
  expires: string | null;
  opened: number;
  last_opened: string | null;
  by: string;
}

/** The links that open something now, newest first. */
export const sharesOf = async (ctx: Context): Promise<Share[]> => {
  const rows = (await scoped(ctx, 'share_link')
    .join('person', 'person.id', 'share_link.owner_id')
    .whereNull('share_link.withdrawn')
    .where((q) => void q.whereNull('share_link.expires').orWhere('share_link.expires', '>', now()))
    .orderBy('share_link.made', 'desc')
    .select(
      'share_link.id',
      'share_link.name',
      'what',
      'documents',
      'passages',
      'share_link.made',
      'expires',
      'opened',
      'last_opened',
      ctx.db.raw('person.name AS "by"'),
    )) as (Omit<Share, 'documents' | 'passages'> & { documents: number; passages: number })[];
  return rows.map((row) => ({ ...row, documents: row.documents === 1, passages: row.passages === 1 }));
};

/** Keeps a link by what its secret hashes to. */
export async function insertShare(
  ctx: Context,
  secret: string,
  row: Omit<ShareRow, 'id' | 'library_id' | 'withdrawn' | 'documents' | 'passages'> &
    Record<'documents' | 'passages', boolean>,
): Promise<void> {
  await ctx.db('share_link').insert({
    ...row,
    id: newId(),
    hash: hashOf(secret),
    library_id: ctx.libraryId,
    owner_id: ctx.personId,
    made: now(),
  });
}

/** Withdraws a link; gives its name, or nothing where there is none. */
export async function withdraw(ctx: Context, id: string): Promise<string | undefined> {
  const row = (await scoped(ctx, 'share_link').where({ id }).whereNull('withdrawn').first('name')) as
    { name: string } | undefined;
  if (row) await scoped(ctx, 'share_link').where({ id }).update({ withdrawn: now() });
  return row?.name;
}

/** The link a secret is, withdrawn or over or not. */
export const shareBy = async (db: Knex, secret: string): Promise<ShareRow | undefined> =>
  (await db('share_link')
    .where({ hash: hashOf(secret) })
    .first()) as ShareRow | undefined;

/** Counts that a link was opened. */
export async function countOpening(db: Knex, id: string): Promise<void> {
  await db('share_link')
    .where({ id })
    .update({ opened: db.raw('opened + 1'), last_opened: now() });
}
