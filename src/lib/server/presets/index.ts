import { askedInOrder, fieldLabel, shortLabel, toCsl, valueText, type Variable } from '../../core/source';
import { change } from '../access/change';
import type { Context } from '../access/context';
import type { PresetWords } from '../../core/forms';
import { deletePreset, insertPreset, updatePreset, type Preset } from './repository';

export { getPreset, listPresets, type Preset } from './repository';
import { living, openSource, type SourceRow } from '../sources/repository';
import { withPreset } from '../capture/keep';
import { printedFields, printPreview, type Look, type ShownReference } from '../lists/printing';

export * from './requests';

/** What a preset would do to one of the library's own sources. */
export interface PresetExample {
  label: string;
  reference: ShownReference | undefined;
  /** The asked fields with the value each would begin with, and whether the preset gives it. */
  asked: { field: Variable; label: string; value: string; given: boolean }[];
  /** Fields filled without being asked. */
  silent: string[];
}

/** The fields a preset for a type can ask for: what the type asks for, then what else the style prints. */
export async function fieldsFor(ctx: Context, look: Look, type: PresetWords['type']): Promise<Variable[]> {
  const of = type ?? 'document';
  const printed = await printedFields(ctx, look.style, of);
  return [...new Set([...askedInOrder(of, printed), ...printed])];
}

/** Tries a preset, saved or not, on the latest source of its type; nothing when the library has none. */
export async function presetExample(
  ctx: Context,
  said: PresetWords,
  look: Look,
): Promise<PresetExample | undefined> {
  const query = living(ctx, said.type ? { type: said.type } : {});
  const row = (await query.orderBy('added', 'desc').first()) as SourceRow | undefined;
  if (!row) return undefined;
  const source = openSource(row);
  const record = withPreset(source.record, { ...said, id: '', asked: said.asked as Variable[] });
  const [reference] = await printPreview(ctx, [toCsl(source.id, record)], look);
  const asked = said.asked as Variable[];
  const silent = Object.keys(record).filter(
    (f) => f !== 'type' && f !== 'retexa' && !asked.includes(f as Variable),
  );
  return {
    label: shortLabel(source.record),
    reference,
    asked: asked.map((field) => ({
      field,
      label: fieldLabel(field),
      value: valueText(field, record[field]),
      given: source.record[field] === undefined && record[field] !== undefined,
    })),
    silent: silent.map(fieldLabel),
  };
}

/** What is changed here. */
const CHANGE = { right: 'edit', of: ['presets'] } as const;

/** Makes a capture preset; gives its id. */
export const addPreset = (ctx: Context, said: PresetWords): Promise<{ id: string }> =>
  change(ctx, { ...CHANGE, names: namedBy(said) }, async (inner) => ({
    id: await insertPreset(inner, said),
  }));

/** Changes a capture preset. */
export const changePreset = (ctx: Context, id: string, said: PresetWords): Promise<void> =>
  change(ctx, { ...CHANGE, names: { preset: id, ...namedBy(said) } }, (inner) =>
    updatePreset(inner, id, said),
  );

/** Takes a capture preset away, and gives it, so that it can be put back. */
export const removePreset = (ctx: Context, id: string): Promise<Preset> =>
  change(ctx, { ...CHANGE, names: { preset: id } }, (inner) => deletePreset(inner, id));

const namedBy = (said: PresetWords) => ({ project: said.projectId, section: said.sectionId });
