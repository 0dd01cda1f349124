import { makeSection, sectionAsked } from '$lib/server/projects';
import { changes } from '../../answer';

/** The section of a name in a project, made when there is none; with a parent, or null for none, always a new one. */
export const POST = changes(sectionAsked, ({ projectId, name, parentId }, ctx) =>
  makeSection(ctx, projectId, name, parentId),
);
