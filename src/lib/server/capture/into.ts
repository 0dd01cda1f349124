import { z } from 'zod';

/** What goes with a capture, as a request says it. */
export const into = z.object({
  projectId: z.string().max(60).optional(),
  sectionId: z.string().max(60).optional(),
  tags: z.array(z.string().trim().min(1).max(120)).max(50).optional(),
  note: z.string().max(20_000).optional(),
  presetId: z.string().max(60).optional(),
  leadId: z.string().max(60).optional(),
});
