import type { Knex } from 'knex';
import type { PresetWords } from '../../core/forms';
import type { Variable } from '../../core/source';
import { scoped, type Context } from '../access/context';
import { newId, now } from '../db/ids';
import { notHere } from '../access/refusal';

/** Which fields are asked for, filled silently or defaulted when capturing one kind of source into one project. */
export interface Preset extends Omit<PresetWords, 'asked'> {
  id: string;
  asked: Variable[];
}

interface Row {
  id: string;
  name: string;
  project_id: string | null;
  section_id: string | null;
  type: Preset['type'];
  asked: string;
  defaults: string;
  tags: string;
  keep_page: number;
  keep_pdf: number;
}

const opened = (row: Row): Preset => ({
  id: row.id,
  name: row.name,
  projectId: row.project_id,
  sectionId: row.section_id,
  type: row.type,
  asked: JSON.parse(row.asked) as Variable[],
  defaults: JSON.parse(row.defaults) as Record<string, string>,
  tags: JSON.parse(row.tags) as string[],
  keepPage: Boolean(row.keep_page),
  keepPdf: Boolean(row.keep_pdf),
});

const toRow = (said: PresetWords) => ({
  name: said.name,
  project_id: said.projectId,
  section_id: said.sectionId,
  type: said.type,
  asked: JSON.stringify(said.asked),
  defaults: JSON.stringify(said.defaults),
  tags: JSON.stringify(said.tags),
  keep_page: said.keepPage,
  keep_pdf: said.keepPdf,
});

/** The presets of the library, by name. */
export async function listPresets(ctx: Context): Promise<Preset[]> {
  const rows = (await scoped<Row>(ctx, 'preset').orderBy('name')) as Row[];
  return rows.map(opened);
}

export async function getPreset(ctx: Context, id: string): Promise<Preset> {
  const row = (await scoped<Row>(ctx, 'preset').where({ id }).first()) as Row | undefined;
  if (!row) throw notHere('preset');
  return opened(row);
}

export async function insertPreset(ctx: Context, said: PresetWords): Promise<string> {
  const id = newId();
  await ctx
    .db('preset')
    .insert({ id, created: now(), library_id: ctx.libraryId, owner_id: ctx.personId, ...toRow(said) });
  return id;
}

export async function updatePreset(ctx: Context, id: string, said: PresetWords): Promise<void> {
  await scoped(ctx, 'preset').where({ id }).update(toRow(said));
}

export async function deletePreset(ctx: Context, id: string): Promise<Preset> {
  const preset = await getPreset(ctx, id);
  await scoped<Row>(ctx, 'preset').where({ id }).delete();
  return preset;
}

/** Presets of projects or sections that go for good stay, and put what is captured nowhere. */
export async function presetsLetGo(
  ctx: Context,
  column: 'project_id' | 'section_id',
  going: readonly string[] | Knex.QueryBuilder,
): Promise<void> {
  await scoped(ctx, 'preset')
    .whereIn(column, going as readonly string[])
    .update({ [column]: null });
}
