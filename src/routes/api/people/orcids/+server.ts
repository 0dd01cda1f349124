import { orcidSaid, setOrcid } from '$lib/server/people';
import { changes } from '../../../answer';

/** Says who is meant by a name. */
export const POST = changes(orcidSaid, (said, ctx) => setOrcid(ctx, said));
