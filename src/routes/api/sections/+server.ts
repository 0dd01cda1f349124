import { z } from 'zod';
import { makeSection } from '$lib/server/projects';
import { changes } from '../../answer';

/** The section of a name in a project, made when there is none; with a parent, or null for none, always a new one. */
export const POST = changes(
  z.object({
    projectId: z.string().max(60),
    name: z.string().trim().min(1).max(200),
    parentId: z.string().max(60).nullable().optional(),
  }),
  ({ projectId, name, parentId }, ctx) => makeSection(ctx, projectId, name, parentId),
);
