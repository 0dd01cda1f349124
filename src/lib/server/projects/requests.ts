import { z } from 'zod';
import { projectWords } from '../../core/forms';
import { ids, toBin } from '../requests';

/** What is changed of a project. */
export const projectChange = projectWords.partial();

/** How a project is put away, or in the bin. */
export const projectAside = z.union([z.object({ putAway: z.boolean() }), toBin]);

/** A section of a project by its name; with a parent, or null for none, always a new one. */
export const sectionAsked = z.object({
  projectId: z.string().max(60),
  name: z.string().trim().min(1).max(200),
  parentId: z.string().max(60).nullable().optional(),
});

/** Sources that are filed in a project, or no longer. */
export const filingAsked = z.object({ ids, projectId: z.string().max(60), filed: z.boolean() });
