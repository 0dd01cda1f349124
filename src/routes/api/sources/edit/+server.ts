import { z } from 'zod';
import { proof } from '$lib/core/proof';
import { transaction } from '$lib/server/context';
import { getSource } from '$lib/server/repositories/sources';
import { editSource } from '$lib/server/services/sources';
import { answer, ids } from '../../../answer';

/** Adds a tag to several sources, or carries out every fix the proof offers for them; all or none. */
export const POST = answer(
  z.object({ ids, tag: z.string().trim().min(1).max(120).optional(), fix: z.boolean().optional() }),
  async ({ ids, tag, fix }, ctx) => ({
    revisions: await transaction(ctx, async (inner) => {
      const made: string[] = [];
      for (const id of ids) {
        const source = await getSource(inner, id);
        const fields = fix ? Object.assign({}, ...proof(source.record).map((f) => f.fix?.edit ?? {})) : {};
        const tags = tag ? [...source.record.retexa.tags, tag] : undefined;
        const { revisionId } = await editSource(
          inner,
          id,
          source.revision,
          { fields, ...(tags ? { tags } : {}) },
          tag ? `tagged ${tag}` : 'findings fixed',
        );
        if (revisionId) made.push(revisionId);
      }
      return made;
    }),
  }),
);
