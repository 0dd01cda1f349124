import { nothing } from '$lib/server/requests';
import { roleWords } from '$lib/core/forms';
import { changeRole, removeMember } from '$lib/server/libraries';
import { changes, idOf } from '../../../answer';

/** Makes somebody something else. */
export const PATCH = changes(roleWords, ({ role }, ctx, event) => changeRole(ctx, idOf(event), role));

/** Takes somebody out, or oneself. */
export const DELETE = changes(nothing, (_given, ctx, event) => removeMember(ctx, idOf(event)));
