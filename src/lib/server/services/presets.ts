import { askedInOrder, fieldLabel, shortLabel, toCsl, valueText, type Variable } from '../../core/source';
import type { Context } from '../context';
import type { PresetWords } from '../repositories/presets';
import { living, openSource, type SourceRow } from '../repositories/sources';
import { withPreset } from './capture/keep';
import { printedFields, printPreview, type Look, type ShownReference } from './printing';

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
export async function fieldsFor(look: Look, type: PresetWords['type']): Promise<Variable[]> {
  const of = type ?? 'document';
  const printed = await printedFields(look.style, of);
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
  const [reference] = await printPreview([toCsl(source.id, record)], look);
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
