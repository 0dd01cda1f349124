import { z } from 'zod';
import type { Material } from '../../core/drafting';
import type { Context } from '../access/context';
import { getPassages } from '../passages/repository';

/** Passages that are to go into a draft. */
export const materialRequest = z.strictObject({ passages: z.array(z.string().max(60)).max(200) });

/** What of some passages goes into a draft, in their order, and in which copy each stands; those that are gone are left out. */
export async function materialOf(
  ctx: Context,
  { passages: ids }: z.infer<typeof materialRequest>,
): Promise<{ material: (Material & { copyId: string | null })[] }> {
  const byId = new Map((await getPassages(ctx, ids)).map((p) => [p.id, p]));
  return {
    material: ids.flatMap((id) => {
      const p = byId.get(id);
      if (!p || p.binned) return [];
      const { sourceId, kind, exact, wording, gist, ownWords, locator, figure } = p;
      return [
        {
          id,
          sourceId,
          kind,
          exact,
          wording,
          gist,
          ownWords,
          locator,
          figure: figure && { number: figure.number, alt: figure.alt },
          copyId: p.copyId,
        },
      ];
    }),
  };
}
