import { z } from 'zod';
import { accountWords } from '../../core/forms';

/** An invitation, by its secret, and the new account that takes it, if one does. */
export const invitationTaken = z.strictObject({
  secret: z.string().max(200),
  account: accountWords.optional(),
});

/** The project, or all of the library, that is chosen; or another library. */
export const scopeChosen = z.union([
  z.object({ projectId: z.string().nullable() }),
  z.object({ libraryId: z.string() }),
]);
