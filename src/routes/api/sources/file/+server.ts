import { z } from 'zod';
import { tell } from '$lib/server/events';
import { Refusal } from '$lib/server/refusal';
import { fileSources, findProject, unfileSource } from '$lib/server/repositories/projects';
import { getSources } from '$lib/server/repositories/sources';
import { answer, ids } from '../../../answer';

/** Files sources in a project or takes them out of it. */
export const POST = answer(
  z.object({ ids, projectId: z.string(), filed: z.boolean() }),
  async ({ ids, projectId, filed }, ctx) => {
    if (!(await findProject(ctx, projectId))) throw new Refusal(404, 'There is no such project.');
    const known = (await getSources(ctx, ids)).map((s) => s.id);
    if (filed) await fileSources(ctx, projectId, known);
    else for (const id of known) await unfileSource(ctx, projectId, id);
    tell(ctx.libraryId, { kind: 'changed' });
  },
);
