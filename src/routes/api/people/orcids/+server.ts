import { orcidWords } from '$lib/core/forms';
import { setOrcid } from '$lib/server/people';
import { changes } from '../../../answer';

/** Says who is meant by a name. */
export const POST = changes(orcidWords, (said, ctx) => setOrcid(ctx, said));
