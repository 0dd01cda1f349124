import { changeProject, projectWords } from '$lib/server/projects';
import { changes, idOf } from '../../../answer';

/** Renames a project or changes its style or language. */
export const PATCH = changes(projectWords.partial(), (given, ctx, event) =>
  changeProject(ctx, idOf(event), given),
);
