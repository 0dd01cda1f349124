import { missingFor } from '../../core/citing';
import { shortLabel, type SourceRecord } from '../../core/source';
import { proofAround, letStand, type Around, type Finding } from '../../core/proof';
import { visible, type Context } from '../access/context';
import { inParts } from '../db/ids';
import { relationsOf } from '../duplicates/relations';
import { spelledOtherwise } from '../duplicates/spelled';
import { askedOf, type Look } from '../lists/printing';
import { countsBy } from '../sources/listing';
import { getSources, living, revisionsIn, type Source, type SourceFilter } from '../sources/repository';
import type { Asked } from '../workers/pools';

/** Quotations of some sources that say no place, by source. */
async function placelessOf(ctx: Context, ids: string[]): Promise<Map<string, number>> {
  const found = new Map<string, number>();
  for (const part of inParts(ids)) {
    const rows = (await visible<{ source_id: string }>(ctx, 'passage')
      .whereNull('binned')
      .whereIn('source_id', part)
      .where('kind', 'quotation')
      .whereNull('locator')
      .groupBy('source_id')
      .select('source_id')
      .count({ n: '*' })) as unknown as { source_id: string; n: number }[];
    for (const { source_id, n } of rows) found.set(source_id, n);
  }
  return found;
}

/** The published works of preprints among some sources, by the preprint. */
async function publishedOf(
  ctx: Context,
  sources: Source[],
): Promise<Map<string, { id: string; label: string }>> {
  const preprints = new Set(sources.filter(({ record }) => record.type === 'article').map(({ id }) => id));
  const found = new Map<string, { id: string; label: string }>();
  if (preprints.size === 0) return found;
  const pairs = (await relationsOf(ctx, [...preprints])).filter(({ kind }) => kind === 'preprint');
  const others = await getSources(ctx, [...new Set(pairs.flatMap(({ a, b }) => [a, b]))]);
  const byId = new Map(others.map((source) => [source.id, source]));
  for (const { a, b } of pairs)
    for (const [one, other] of [
      [a, b],
      [b, a],
    ] as const) {
      const published = byId.get(other);
      if (preprints.has(one) && published && published.record.type !== 'article' && !published.binned)
        found.set(one, { id: other, label: shortLabel(published.record) });
    }
  return found;
}

/** When a source was captured, as far as its values say. */
function capturedOn({ retexa }: SourceRecord): Around['captured'] {
  const at = retexa.origins.URL?.find(({ kind }) => kind !== 'person' && kind !== 'file')?.at;
  const m = at && /^(\d{4})-(\d{2})-(\d{2})/.exec(at);
  return m ? [Number(m[1]), Number(m[2]), Number(m[3])] : undefined;
}

/** Names a record says itself, which keep their capitals: of people and places. */
function namesIn(record: SourceRecord): Map<string, string> {
  const known = new Map<string, string>();
  const add = (text: string | undefined) => {
    for (const word of text?.match(/\p{Lu}[\p{L}\p{M}’'-]+/gu) ?? []) known.set(word.toLowerCase(), word);
  };
  for (const name of [...(record.author ?? []), ...(record.editor ?? [])]) add(name.family);
  for (const place of [record['publisher-place'], record['event-place'], record['archive-place']]) add(place);
  return known;
}

/** What a style makes of each type there is among some sources. */
async function askedOfAll(ctx: Context, sources: Source[], { style }: Look) {
  const asked = new Map<string, Asked>();
  for (const type of new Set(sources.map(({ record }) => record.type)))
    asked.set(type, await askedOf(ctx, style, type));
  return asked;
}

/** What is around a source in a style, and nothing else: it depends on the record and the style alone. */
function inStyle({ record, findings }: Source, { prints, titleAsItStands }: Asked): Around {
  const said = new Set(findings.map((f) => f.field));
  const captured = capturedOn(record);
  return {
    missing: missingFor(prints, record).filter((field) => !said.has(field)),
    asks: prints,
    titleAsItStands,
    known: namesIn(record),
    ...(captured ? { captured } : {}),
  };
}

const asking = (record: SourceRecord, around: Around): Finding[] =>
  proofAround(record, around).filter((finding) => !letStand(record, finding));

/** What is found in each of some sources in a style: by the record and the style alone, so that it holds as long as they do. */
export async function findingsInStyle(
  ctx: Context,
  sources: Source[],
  look: Look,
): Promise<Map<string, Finding[]>> {
  const asked = await askedOfAll(ctx, sources, look);
  return new Map(
    sources.map((source) => [
      source.id,
      asking(source.record, inStyle(source, asked.get(source.record.type)!)),
    ]),
  );
}

/**
 * What is found in some sources beside what each says itself: in a style and in the library. Nothing that somebody let stand,
 * and no field twice that its own findings name already. With `spelled`, names that are spelled otherwise elsewhere are looked up.
 */
export async function findingsAround(
  ctx: Context,
  sources: Source[],
  look: Look,
  spelled = false,
): Promise<Map<string, Finding[]>> {
  const ids = sources.map(({ id }) => id);
  const [asked, placeless, copies, published] = await Promise.all([
    askedOfAll(ctx, sources, look),
    placelessOf(ctx, ids),
    countsBy(ctx, 'copy', ids),
    publishedOf(ctx, sources),
  ]);
  const found = new Map<string, Finding[]>();
  for (const source of sources) {
    const { id, record } = source;
    const versionOfRecord = published.get(id);
    found.set(
      id,
      asking(record, {
        ...inStyle(source, asked.get(record.type)!),
        placeless: placeless.get(id) ?? 0,
        copies: copies.get(id) ?? 0,
        ...(versionOfRecord ? { versionOfRecord } : {}),
        ...(spelled ? { spelled: await spelledOtherwise(ctx, record) } : {}),
      }),
    );
  }
  return found;
}

/** Ids of the living sources that fit a filter, that something hangs on or stands beside that is asked about. */
export async function besideIn(ctx: Context, filter: SourceFilter): Promise<string[]> {
  const passages = visible<{ source_id: string }>(ctx, 'passage')
    .whereNull('binned')
    .where('kind', 'quotation')
    .whereNull('locator')
    .distinct('source_id as id');
  const preprints = living(ctx, { ...filter, type: 'article' }).select('source.id as id');
  const rows = [
    ...((await passages) as unknown as { id: string }[]),
    ...((await preprints) as { id: string }[]),
  ];
  const ids = [...new Set(rows.map(({ id }) => id))].sort();
  if (Object.keys(filter).length === 0) return ids;
  const here = new Set((await revisionsIn(ctx, filter)).map(({ id }) => id));
  return ids.filter((id) => here.has(id));
}
