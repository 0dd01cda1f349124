import { writeDraft } from '$lib/server/drafts';
import { idOf, takesFile } from '../../../../answer';
import { lookOf } from '../../../../look';

/** A draft as .docx in the styles of a template, which is the body. */
export const POST = takesFile(async (template, ctx, event) =>
  writeDraft(ctx, idOf(event), { as: 'docx', citing: 'keys' }, await lookOf(event.locals), template),
);
