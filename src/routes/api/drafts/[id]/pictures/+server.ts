import { keepDraftPicture } from '$lib/server/drafts';
import { idOf, takesFile } from '../../../../answer';

/** Keeps a picture of one’s own with a draft; its bytes are the body. */
export const POST = takesFile((bytes, ctx, event) => keepDraftPicture(ctx, idOf(event), bytes));
