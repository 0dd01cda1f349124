import { z } from 'zod';
import { tell } from '$lib/server/events';
import { Refusal } from '$lib/server/refusal';
import { filedIn, fileSources, findProject, unfileSource } from '$lib/server/repositories/projects';
import { getSources } from '$lib/server/repositories/sources';
import { answer, ids } from '../../../answer';

/** Files sources in a project or takes them out of it, and says for which that was a change. */
export const POST = answer(
  z.object({ ids, projectId: z.string(), filed: z.boolean() }),
  async ({ ids, projectId, filed }, ctx) => {
    if (!(await findProject(ctx, projectId))) throw new Refusal(404, 'There is no such project.');
    const known = (await getSources(ctx, ids)).map((s) => s.id);
    const there = await filedIn(ctx, projectId, known);
    const changed = known.filter((id) => there.has(id) !== filed);
    if (filed) await fileSources(ctx, projectId, changed);
    else for (const id of changed) await unfileSource(ctx, projectId, id);
    tell(ctx.libraryId, { kind: 'changed' });
    return { changed };
  },
);
