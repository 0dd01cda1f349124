import { look } from '$lib/server/lists';
import { shareWords } from '$lib/core/forms';
import { share } from '$lib/server/shares';
import { changes } from '../../answer';

/** Makes a link to read. */
export const POST = changes(shareWords.extend({ look }), ({ look, ...said }, ctx) => share(ctx, said, look));
