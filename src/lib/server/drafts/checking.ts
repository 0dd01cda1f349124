import {
  blockWords,
  checkDraft,
  readPart,
  worksCited,
  type DraftFinding,
  type KnownWork,
} from '../../core/drafting';
import { missingFor } from '../../core/citing';
import { RELATION_LABELS } from '../../core/duplicates';
import { fieldName, shortLabel } from '../../core/source';
import type { Context } from '../access/context';
import { relationsOf } from '../duplicates/relations';
import { askedOf, type Look } from '../lists/printing';
import { getPassages } from '../passages/repository';
import { getDraft, partsOf } from './repository';
import { sourcesFor } from './works';

/** What is to be looked at in a draft as it is kept, in a style. */
export async function checksOf(
  ctx: Context,
  draftId: string,
  look: Look,
): Promise<{ findings: DraftFinding[] }> {
  const draft = await getDraft(ctx, draftId);
  const parts = await partsOf(ctx, draftId);
  const reads = parts.map(readPart);
  const found = await sourcesFor(ctx, [...worksCited(reads), ...draft.listed]);
  const sources = [...new Map([...found.values()].filter((s) => !s.binned).map((s) => [s.id, s])).values()];
  const [passages, related] = await Promise.all([
    getPassages(ctx, [...new Set(reads.flatMap((r) => r.passages))]),
    relationsOf(
      ctx,
      sources.map((s) => s.id),
    ),
  ]);
  const works = new Map<string, KnownWork>();
  for (const { id, record, findings } of sources) {
    const { prints } = await askedOf(ctx, look.style, record.type);
    works.set(id, {
      label: shortLabel(record),
      lacks: missingFor(prints, record).map(fieldName),
      retracted: findings.some((f) => f.check === 'retracted'),
    });
  }
  return {
    findings: checkDraft(parts, {
      works,
      at: Object.fromEntries([...found].map(([id, s]) => [id, s.id])),
      passages: new Map(
        passages
          .filter((p) => !p.binned)
          .map(({ id, sourceId, exact, wording, locator }) => [
            id,
            { sourceId, exact, wording, placed: locator !== null },
          ]),
      ),
      related: related.flatMap(({ a, b, kind }) => {
        const [one, other] = [works.get(a), works.get(b)];
        return one && other
          ? [{ a, b, words: `${one.label} and ${other.label}: ${RELATION_LABELS[kind]}` }]
          : [];
      }),
      listed: draft.listed,
      blockWords: blockWords(look.style),
    }),
  };
}
