import { editSources, sourcesEdit } from '$lib/server/sources';
import { changes } from '../../../answer';

/** Adds a tag to several sources, mends what the proof knows, marks them as checked, or changes one field; all or none. */
export const POST = changes(sourcesEdit, ({ ids, ...what }, ctx) => editSources(ctx, ids, what));
