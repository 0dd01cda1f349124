import { editMany } from '$lib/server/many';
import { sourcesEdit } from '$lib/server/sources';
import { changes } from '../../../answer';

/** Adds a tag to several sources, mends what the proof knows, marks them as checked, or changes one field; all or none, and of many as a job. */
export const POST = changes(sourcesEdit, ({ ids, ...what }, ctx) => editMany(ctx, ids, what));
