import { nothing } from '$lib/server/requests';
import { choiceChange } from '$lib/core/forms';
import { changeChoice, deleteChoice } from '$lib/server/choosing';
import { changes, idOf } from '../../../answer';

/** Changes a choice, and says what takes that back. */
export const POST = changes(choiceChange, (said, ctx, event) => changeChoice(ctx, idOf(event), said));

/** Deletes a choice that was put away. */
export const DELETE = changes(nothing, (_, ctx, event) => deleteChoice(ctx, idOf(event)));
