import { nothing } from '$lib/server/requests';
import { dropTemplate, writeInTemplate } from '$lib/server/drafts';
import { changes, idOf, takesFile } from '../../../../answer';
import { lookOf } from '../../../../look';

/** A draft as .docx in the styles of a template, which is the body and is kept for the next time. */
export const POST = takesFile(async (bytes, ctx, event) => {
  const name = event.url.searchParams.get('name')?.slice(0, 200) || 'template.docx';
  return writeInTemplate(ctx, idOf(event), { name, bytes }, await lookOf(event.locals));
});

/** Keeps no template with the draft any more. */
export const DELETE = changes(nothing, (_given, ctx, event) => dropTemplate(ctx, idOf(event)));
