import type { Knex } from 'knex';
import { entryRuns, runsToHtml } from '../../core/citing';
import type { ShareWords } from '../../core/forms';
import { locatorText } from '../../core/passages';
import { shortLabel } from '../../core/source';
import { change } from '../access/change';
import type { Context } from '../access/context';
import { notHere } from '../access/refusal';
import { inDays, isOver, newSecret } from '../access/secrets';
import { noted } from '../audit';
import { copiesOf, documentOf, readingOf, type CopyHead } from '../copies';
import { kindOfCopy } from '../copies/repository';
import { exportFile, listIn, sourcesIn, type Look, type Output, type Scope } from '../lists';
import { log } from '../log';
import { findProject } from '../projects';
import { passagesOfSources, type Passage } from '../passages/repository';
import { getSources } from '../sources/repository';
import { sharedPage, type SharedEntry } from './page';
import { countOpening, insertShare, shareBy, withdraw, type ShareRow } from './repository';

export { closedPage } from './page';
export { sharesOf, type Share } from './repository';

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['members'] } as const;

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
    await insertShare(inner, secret, {
      what: of.what,
      project_id: projectId,
      section_id: sectionId,
      source_ids: ids && JSON.stringify(ids),
      name,
      style: look.style,
      locale: look.locale,
      documents,
      passages,
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

/** Withdraws a link: it opens nothing from then on. */
export const withdrawShare = (ctx: Context, id: string): Promise<void> =>
  change(ctx, CHANGE, async (inner) => {
    const name = await withdraw(inner, id);
    if (name === undefined) throw notHere('link');
    await noted(inner.db, {
      libraryId: inner.libraryId,
      personId: inner.personId,
      act: 'link withdrawn',
      words: name,
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
): Promise<{ ctx: Context; row: ShareRow; scope: Scope } | undefined> {
  const row = await shareBy(db, secret);
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
function noteOpening(writes: Knex, { id }: ShareRow): void {
  countOpening(writes, id).catch((err: unknown) => log.warn({ err }, 'an opening was not noted'));
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
  const copy = await kindOfCopy(ctx, copyId);
  if (!copy || copy.kind === 'audio') return undefined;
  if (!(await sourcesIn(ctx, scope)).some(({ id }) => id === copy.source_id)) return undefined;
  return copy.kind === 'page'
    ? { kind: 'page' as const, ...(await readingOf(ctx, copyId)) }
    : { kind: 'file' as const, ...(await documentOf(ctx, copyId)) };
}
