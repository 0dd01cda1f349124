import type { Knex } from 'knex';
import { entryRuns, runsToHtml } from '../../core/citing';
import type { ShareWords } from '../../core/forms';
import { locatorText } from '../../core/passages';
import { shortLabel } from '../../core/source';
import { change } from '../access/change';
import { scoped, type Context } from '../access/context';
import { notHere } from '../access/refusal';
import { hashOf, inDays, isOver, newSecret } from '../access/secrets';
import { noted } from '../audit';
import { copiesOf, documentOf, readingOf, type CopyHead } from '../copies';
import { newId, now } from '../db/ids';
import { exportFile, listIn, sourcesIn, type Look, type Output, type Scope } from '../lists';
import { log } from '../log';
import { findProject } from '../projects';
import { passagesOfSources, type Passage } from '../passages/repository';
import { getSources } from '../sources/repository';
import { sharedPage, type SharedEntry } from './page';

export { closedPage } from './page';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['members'] } as const;

interface Row {
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
  what: Row['what'];
  documents: boolean;
  passages: boolean;
  made: string;
  expires: string | null;
  opened: number;
  last_opened: string | null;
  by: string;
}

/** Makes a link that opens a project, a section or a list to whoever has it, to read. Gives its secret, which is not kept. */
export async function share(
  ctx: Context,
  { of, name, documents, passages, days }: ShareWords,
  look: Look,
): Promise<{ secret: string }> {
  const secret = newSecret();
  const projectId = of.what === 'project' ? of.projectId : null;
  const sectionId = of.what === 'section' ? of.sectionId : null;
  return change(ctx, { ...CHANGE, names: { project: projectId, section: sectionId } }, async (inner) => {
    const ids =
      of.what === 'list'
        ? (await sourcesIn(inner, { kind: 'selection', ids: of.ids })).map((s) => s.id)
        : null;
    if (ids?.length === 0) throw notHere('source');
    await inner.db('share_link').insert({
      id: newId(),
      hash: hashOf(secret),
      library_id: inner.libraryId,
      owner_id: inner.personId,
      what: of.what,
      project_id: projectId,
      section_id: sectionId,
      source_ids: ids && JSON.stringify(ids),
      name,
      style: look.style,
      locale: look.locale,
      documents,
      passages,
      made: now(),
      expires: days === null ? null : inDays(days),
    });
    const shown = [documents && 'documents', passages && 'passages'].filter(Boolean).join(' and ');
    await noted(inner.db, {
      libraryId: inner.libraryId,
      personId: inner.personId,
      act: 'link made',
      words: `${name}${shown ? `, with ${shown}` : ''}`,
    });
    return { secret };
  });
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

/** Withdraws a link: it opens nothing from then on. */
export const withdrawShare = (ctx: Context, id: string): Promise<void> =>
  change(ctx, CHANGE, async (inner) => {
    const row = (await scoped(inner, 'share_link').where({ id }).whereNull('withdrawn').first('name')) as
      { name: string } | undefined;
    if (!row) throw notHere('link');
    await scoped(inner, 'share_link').where({ id }).update({ withdrawn: now() });
    await noted(inner.db, {
      libraryId: inner.libraryId,
      personId: inner.personId,
      act: 'link withdrawn',
      words: row.name,
    });
  });

/**
 * What a secret opens, and as whom: nobody, who reads what is for the whole library. Nothing where there is no such link, it was
 * withdrawn or is over: nobody is told which.
 */
async function opened(
  db: Knex,
  writes: Knex,
  secret: string,
): Promise<{ ctx: Context; row: Row; scope: Scope } | undefined> {
  const row = (await db('share_link')
    .where({ hash: hashOf(secret) })
    .first()) as Row | undefined;
  if (!row || row.withdrawn || isOver(row.expires)) return undefined;
  const ctx: Context = { db, writes, libraryId: row.library_id, personId: '', role: 'reader' };
  // What is in the bin is handed to nobody.
  if (row.project_id && !(await findProject(ctx, row.project_id))) return undefined;
  const scope: Scope =
    row.what === 'project'
      ? { kind: 'project', projectId: row.project_id! }
      : row.what === 'section'
        ? { kind: 'section', sectionId: row.section_id! }
        : { kind: 'selection', ids: JSON.parse(row.source_ids!) as string[] };
  return { ctx, row, scope };
}

/** Notes behind the request that a link was opened. */
function noteOpening(writes: Knex, { id }: Row): void {
  writes('share_link')
    .where({ id })
    .update({ opened: writes.raw('opened + 1'), last_opened: now() })
    .catch((err: unknown) => log.warn({ err }, 'an opening was not noted'));
}

/** Ways a shared list is saved: with the page, or as records. */
export const SHARED_AS = ['bibtex', 'ris', 'csl-json'] as const satisfies readonly Output[];

/** The page a link opens; nothing where it opens nothing. `at` is the address of the page itself. */
export async function readShared(
  db: Knex,
  writes: Knex,
  secret: string,
  at: string,
): Promise<string | undefined> {
  const found = await opened(db, writes, secret);
  if (!found) return undefined;
  const { ctx, row, scope } = found;
  const look = { style: row.style, locale: row.locale };
  const group = row.what === 'project' ? { group: 'section' as const } : {};
  const list = await listIn(ctx, scope, look, group);
  const ids = list.entries.map((e) => e.id);
  const names = new Map(
    (
      await getSources(
        ctx,
        list.entries.filter((e) => e.failed !== undefined).map((e) => e.id),
      )
    ).map((s) => [s.id, shortLabel(s.record)]),
  );
  const of = <T extends { sourceId: string }>(all: T[]) => {
    const map = new Map<string, T[]>();
    for (const one of all) map.set(one.sourceId, [...(map.get(one.sourceId) ?? []), one]);
    return map;
  };
  const passages = of(row.passages ? await sharedPassages(ctx, ids) : []);
  const entries: SharedEntry[] = [];
  for (const e of list.entries) {
    const copies = row.documents ? (await copiesOf(ctx, e.id)).filter(isShown) : [];
    entries.push({
      heading: e.heading,
      html: runsToHtml(e.failed === undefined ? entryRuns(e) : [{ text: names.get(e.id) ?? '' }], {
        links: true,
      }),
      passages: (passages.get(e.id) ?? []).map((p) => ({
        kind: p.kind,
        words: p.wording ?? p.exact,
        gist: p.gist,
        ownWords: p.ownWords,
        locator: p.locator ? locatorText(p.locator) : '',
      })),
      documents: copies.map((copy) => ({
        address: `${at}/documents/${copy.id}`,
        name: copy.title,
        kind: copy.kind,
      })),
    });
  }
  noteOpening(writes, row);
  return sharedPage({
    title: row.name,
    lang: row.locale,
    at,
    hanging: list.hangingIndent,
    entries,
  });
}

/** Documents that are handed out: what was captured, and no recording of one's own. */
const isShown = ({ kind }: CopyHead): boolean => kind !== 'audio';

/** Of passages, those for the whole library. */
const sharedPassages = async (ctx: Context, ids: string[]): Promise<Passage[]> =>
  (await passagesOfSources(ctx, ids)).filter(({ visibility }) => visibility === 'library');

/** The list a link opens, as a file of records; nothing where it opens nothing. */
export async function sharedRecords(db: Knex, writes: Knex, secret: string, as: (typeof SHARED_AS)[number]) {
  const found = await opened(db, writes, secret);
  if (!found) return undefined;
  const { ctx, row, scope } = found;
  return exportFile(ctx, scope, { style: row.style, locale: row.locale }, as);
}

/** A document that a link shows; nothing where it does not. A page of the web is given as the sanitised page it is read as. */
export async function sharedDocument(db: Knex, writes: Knex, secret: string, copyId: string) {
  const found = await opened(db, writes, secret);
  if (!found?.row.documents) return undefined;
  const { ctx, scope } = found;
  const copy = (await scoped(ctx, 'copy').where({ id: copyId }).first('source_id', 'kind')) as
    { source_id: string; kind: CopyHead['kind'] } | undefined;
  if (!copy || copy.kind === 'audio') return undefined;
  if (!(await sourcesIn(ctx, scope)).some(({ id }) => id === copy.source_id)) return undefined;
  return copy.kind === 'page'
    ? { kind: 'page' as const, ...(await readingOf(ctx, copyId)) }
    : { kind: 'file' as const, ...(await documentOf(ctx, copyId)) };
}
