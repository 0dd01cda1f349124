import { changeSection, sectionChange } from '$lib/server/projects';
import { changes, idOf } from '../../../answer';

/** Renames a section, moves it, puts it in the bin or brings it back, and says what takes that back. */
export const POST = changes(sectionChange, (said, ctx, event) => changeSection(ctx, idOf(event), said));
