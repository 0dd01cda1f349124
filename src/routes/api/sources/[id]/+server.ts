import { editSource, sourceEdit } from '$lib/server/sources';
import { changes, idOf } from '../../../answer';

/** Saves a change of a record, made on revision `base`. */
export const PATCH = changes(
  sourceEdit,
  async ({ base, why, fields, tags, citekey, credibility: said, translations }, ctx, event) => {
    const change = {
      fields,
      ...(tags ? { tags } : {}),
      ...(citekey !== undefined ? { citekey } : {}),
      ...(said ? { credibility: said } : {}),
      ...(translations ? { translations } : {}),
    };
    const { source, revisionId } = await editSource(ctx, idOf(event), base, change, why);
    return { revision: source.revision, revisionId };
  },
);
