import { z } from 'zod';
import { Refusal } from '$lib/server/refusal';
import { findProject } from '$lib/server/repositories/projects';
import { sectionNamed } from '$lib/server/repositories/sections';
import { tell } from '$lib/server/events';
import { answer } from '../../answer';

/** The section of a name in a project, made when there is none. */
export const POST = answer(
  z.object({ projectId: z.string().max(60), name: z.string().trim().min(1).max(200) }),
  async ({ projectId, name }, ctx) => {
    if (!(await findProject(ctx, projectId))) throw new Refusal(404, 'This project is not in the library.');
    const section = await sectionNamed(ctx, projectId, name);
    tell(ctx.libraryId, { kind: 'changed' });
    return section;
  },
);
