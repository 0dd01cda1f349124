import { mergeEffect, type MergeField } from '../../core/duplicates';
import type { ReadEntry } from '../../core/formats';
import { shortLabel, valueText, type SourceRecord } from '../../core/source';
import type { Context } from '../access/context';
import { alike } from '../capture';
import { findSource, sourceByKey } from '../sources/repository';
import type { Differing, Here, Merging } from './types';

/**
 * The source an entry looks like, if any. An entry that comes back under the citekey its source has, or says nothing
 * that the source does not, is surely that work even where the two records alone could not tell.
 */
export async function hereAlready(
  ctx: Context,
  { key, record }: ReadEntry,
): Promise<Pick<Here, 'of' | 'reason' | 'sure' | 'merging'> | undefined> {
  const doubles = await alike(ctx, record);
  const keyed = key ? await sourceByKey(ctx, key) : undefined;
  const double = doubles.find((d) => d.source.id === keyed) ?? doubles.find((d) => d.sure) ?? doubles[0];
  const source = double?.source ?? (keyed ? await findSource(ctx, keyed) : undefined);
  if (!source) return undefined;
  const { id } = source;
  const merging = mergingOf(source.record, record);
  const { adds, replaces, keeps } = merging;
  const nothingElse = adds.length + replaces.length + keeps.length === 0;
  // Two works may well have one key; only a record that says the same makes it the same work.
  if (!double && !nothingElse) return undefined;
  return {
    of: { id, label: shortLabel(source.record) },
    reason: [double?.reason, id === keyed && 'same citekey'].filter(Boolean).join(', '),
    sure: double?.sure || id === keyed || nothingElse,
    merging,
  };
}

/** How much of a value a question shows. */
const VALUE_SHOWN = 200;

function mergingOf(yours: SourceRecord, file: SourceRecord): Merging {
  const effect = mergeEffect(yours, file);
  const line = (record: SourceRecord, field: MergeField) => {
    const text = valueText(field, record[field]);
    return text.length > VALUE_SHOWN ? `${text.slice(0, VALUE_SHOWN).trimEnd()}…` : text;
  };
  const differing = (fields: MergeField[]): Differing[] =>
    fields.map((field) => ({ field, yours: line(yours, field), file: line(file, field) }));
  return {
    adds: differing(effect.adds),
    replaces: differing(effect.replaces),
    keeps: differing(effect.keeps),
    tags: effect.tags,
    kept: effect.kept,
  };
}
