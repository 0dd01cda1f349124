import { z } from 'zod';
import { projectWords } from '$lib/core/forms';
import { changeProject, setAside } from '$lib/server/projects';
import { changes, idOf } from '../../../answer';

/** Renames a project or changes its style or language. */
export const PATCH = changes(projectWords.partial(), (given, ctx, event) =>
  changeProject(ctx, idOf(event), given),
);

/** Puts a project away or in the bin, or takes it out of there. */
export const POST = changes(
  z.union([z.object({ putAway: z.boolean() }), z.object({ binned: z.boolean() })]),
  (how, ctx, event) => setAside(ctx, idOf(event), how),
);
