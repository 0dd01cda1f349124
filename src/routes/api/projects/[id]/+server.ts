import { changeProject, setAside, projectChange, projectAside } from '$lib/server/projects';
import { changes, idOf } from '../../../answer';

/** Renames a project or changes its style or language. */
export const PATCH = changes(projectChange, (given, ctx, event) => changeProject(ctx, idOf(event), given));

/** Puts a project away or in the bin, or takes it out of there. */
export const POST = changes(projectAside, (how, ctx, event) => setAside(ctx, idOf(event), how));
