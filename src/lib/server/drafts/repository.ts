import { readPart, textOfBlock, worksCited, type Block, type DraftPart } from '../../core/drafting';
import { scoped, type Context } from '../access/context';
import { notHere } from '../access/refusal';
import { filesLeave } from '../files/leaving';
import { newId, now } from '../db/ids';
import { index, takeOutOfIndex } from '../search/repository';

/** A draft: the text being written of a project. */
export interface Draft {
  id: string;
  projectId: string;
  /** Goes up with each change. */
  revision: number;
  /** Sources in its list that it does not cite. */
  listed: string[];
  /** The .docx whose styles it is saved in, where one was given. */
  template?: Template;
}

/** A kept template: what its file was called, and its bytes. */
export interface Template {
  name: string;
  sha256: string;
}

interface DraftRow {
  id: string;
  project_id: string;
  revision: number;
  listed: string;
  template_sha256: string | null;
  template_name: string | null;
}

interface PartRow {
  id: string;
  content: string;
  revision: number;
  gone: number;
  page: string;
  position: number;
}

/** A part as it is kept, with the revision of the draft that last changed it. */
export interface KeptPart extends DraftPart {
  revision: number;
}

const opened = (row: DraftRow): Draft => ({
  id: row.id,
  projectId: row.project_id,
  revision: row.revision,
  listed: JSON.parse(row.listed) as string[],
  ...(row.template_sha256
    ? { template: { name: row.template_name ?? 'template.docx', sha256: row.template_sha256 } }
    : {}),
});
const openedPart = ({ id, content, revision }: PartRow): KeptPart => ({
  id,
  content: JSON.parse(content) as Block,
  revision,
});

/** The draft of a project, if it has one. */
export async function findDraft(ctx: Context, projectId: string): Promise<Draft | undefined> {
  const row = (await scoped(ctx, 'draft').where({ project_id: projectId }).first()) as DraftRow | undefined;
  return row && opened(row);
}

/** A draft by its id; refuses when it is not of the library. */
export async function getDraft(ctx: Context, id: string): Promise<Draft> {
  const row = (await scoped(ctx, 'draft').where({ id }).first()) as DraftRow | undefined;
  if (!row) throw notHere('draft');
  return opened(row);
}

/** An empty draft of a project. */
export async function insertDraft(ctx: Context, projectId: string): Promise<Draft> {
  const id = newId();
  await ctx.db('draft').insert({ id, library_id: ctx.libraryId, project_id: projectId, created: now() });
  return { id, projectId, revision: 0, listed: [] };
}

/** Sets the template of a draft, or takes it off; the one before leaves the store unless something else has it. */
export async function setTemplate(ctx: Context, id: string, template: Template | undefined): Promise<void> {
  const before = (await getDraft(ctx, id)).template;
  await scoped(ctx, 'draft')
    .where({ id })
    .update({ template_sha256: template?.sha256 ?? null, template_name: template?.name ?? null });
  if (before && before.sha256 !== template?.sha256) await filesLeave(ctx, [before.sha256]);
}

/** Writes what a draft has beside its parts. */
export const updateDraft = async (
  ctx: Context,
  { id, revision, listed }: Pick<Draft, 'id' | 'revision' | 'listed'>,
): Promise<void> =>
  void (await scoped(ctx, 'draft')
    .where({ id })
    .update({ revision, listed: JSON.stringify(listed) }));

/** The parts of a draft in order; with `since`, those changed after that revision alone. */
export async function partsOf(ctx: Context, draftId: string, since?: number): Promise<KeptPart[]> {
  const rows = (await ctx
    .db('draft_part')
    .where({ draft_id: draftId, gone: false })
    .where((q) => since !== undefined && void q.where('revision', '>', since))
    .orderBy('position')) as PartRow[];
  return rows.map(openedPart);
}

/** The ids of the parts of a draft that are there, in order. */
export const orderOf = async (ctx: Context, draftId: string): Promise<string[]> =>
  (
    (await ctx
      .db('draft_part')
      .where({ draft_id: draftId, gone: false })
      .orderBy('position')
      .select('id')) as { id: string }[]
  ).map(({ id }) => id);

/** The ids of parts that went after a revision. */
export const goneSince = async (ctx: Context, draftId: string, since: number): Promise<string[]> =>
  (
    (await ctx
      .db('draft_part')
      .where({ draft_id: draftId, gone: true })
      .where('revision', '>', since)
      .select('id')) as { id: string }[]
  ).map(({ id }) => id);

/** A part as it is stored, there or gone; `elsewhere` when another draft has one of the id. */
export async function storedPart(
  ctx: Context,
  draftId: string,
  id: string,
): Promise<{ content: string; revision: number; gone: boolean; page: string } | 'elsewhere' | undefined> {
  const row = (await ctx.db('draft_part').where({ id }).first()) as
    (PartRow & { draft_id: string }) | undefined;
  if (!row) return undefined;
  if (row.draft_id !== draftId) return 'elsewhere';
  return { content: row.content, revision: row.revision, gone: Boolean(row.gone), page: row.page };
}

/** Writes a part, and what it uses. New ones stand last until they are put in order. */
export async function writePart(
  ctx: Context,
  draftId: string,
  { id, content, revision }: KeptPart,
  page: string,
): Promise<void> {
  const said = {
    content: JSON.stringify(content),
    revision,
    gone: false,
    page,
    person_id: ctx.personId,
    changed: now(),
  };
  await ctx
    .db('draft_part')
    .insert({ id, draft_id: draftId, position: Number.MAX_SAFE_INTEGER, ...said })
    .onConflict('id')
    .merge(said);
  await index(ctx, 'part', id, textOfBlock(content));
  await ctx.db('draft_use').where({ part_id: id }).delete();
  const read = readPart({ id, content });
  for (const [kind, refs] of [
    ['passage', read.passages],
    ['source', worksCited([read])],
  ] as const)
    for (const ref of refs) await ctx.db('draft_use').insert({ part_id: id, kind, ref });
}

/** Takes a part out of its draft; what stood there is kept with it. */
export async function dropPart(ctx: Context, id: string, revision: number, page: string): Promise<void> {
  await ctx
    .db('draft_part')
    .where({ id })
    .update({ gone: true, revision, page, person_id: ctx.personId, changed: now() });
  await takeOutOfIndex(ctx, 'part', [id]);
  await ctx.db('draft_use').where({ part_id: id }).delete();
}

/** Puts the parts of a draft in order. */
export const orderParts = async (ctx: Context, draftId: string, order: readonly string[]): Promise<void> =>
  void (await ctx.db.raw(
    `WITH put AS (SELECT value AS id, key AS n FROM json_each(?))
     UPDATE draft_part SET position = put.n FROM put
     WHERE put.id = draft_part.id AND draft_part.draft_id = ? AND draft_part.position <> put.n`,
    [JSON.stringify(order), draftId],
  ));

/** A version of a draft that was kept; without a name where that was done by itself. */
export interface DraftVersion {
  id: string;
  name: string;
  made: string;
  words: number;
  revision: number;
}

/** The versions of a draft, latest first. */
export const versionsOf = async (ctx: Context, draftId: string): Promise<DraftVersion[]> =>
  (await ctx
    .db('draft_version')
    .where({ draft_id: draftId })
    .orderBy('made', 'desc')
    .orderBy('id', 'desc')
    .select('id', 'name', 'made', 'words', 'revision')) as DraftVersion[];

/** What a version of a draft says, in order; refuses when the draft has none of the id. */
export async function partsOfVersion(ctx: Context, draftId: string, id: string): Promise<DraftPart[]> {
  const row = (await ctx.db('draft_version').where({ draft_id: draftId, id }).first('parts')) as
    { parts: string } | undefined;
  if (!row) throw notHere('version');
  return JSON.parse(row.parts) as DraftPart[];
}

/** Keeps a draft as it is now as a version. */
export async function insertVersion(ctx: Context, draft: Draft, name: string): Promise<DraftVersion> {
  const parts = (await partsOf(ctx, draft.id)).map(({ id, content }) => ({ id, content }));
  const words = parts.reduce((sum, part) => sum + readPart(part).words, 0);
  const version = { id: newId(), name, made: now(), words, revision: draft.revision };
  await ctx.db('draft_version').insert({
    ...version,
    draft_id: draft.id,
    parts: JSON.stringify(parts),
    person_id: ctx.personId,
  });
  return version;
}

/** Calls a version otherwise, or lets go of it. */
export async function changeVersion(
  ctx: Context,
  draftId: string,
  id: string,
  name: string | null,
): Promise<void> {
  const rows = ctx.db('draft_version').where({ draft_id: draftId, id });
  const changed = await (name === null ? rows.delete() : rows.update({ name }));
  if (!changed) throw notHere('version');
}

/** Where passages are used in drafts: by the id of the passage, the projects. */
export async function usedIn(
  ctx: Context,
  kind: 'passage' | 'source',
  refs: readonly string[],
): Promise<Map<string, { projectId: string; part: string }[]>> {
  const found = new Map<string, { projectId: string; part: string }[]>();
  const rows = (await scoped(ctx, 'draft')
    .join('draft_part', 'draft_part.draft_id', 'draft.id')
    .join('draft_use', 'draft_use.part_id', 'draft_part.id')
    .where('draft_use.kind', kind)
    .whereRaw('draft_use.ref IN (SELECT value FROM json_each(?))', [JSON.stringify(refs)])
    .orderBy('draft_part.position')
    .select('draft_use.ref', 'draft.project_id', 'draft_part.id as part')) as unknown as {
    ref: string;
    project_id: string;
    part: string;
  }[];
  for (const { ref, project_id: projectId, part } of rows) {
    const there = found.get(ref);
    if (there) there.push({ projectId, part });
    else found.set(ref, [{ projectId, part }]);
  }
  return found;
}
