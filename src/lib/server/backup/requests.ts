import { z } from 'zod';

/** What a library that is brought back is for: another id, where it is brought beside the one there is. */
export const bringingAs = z.strictObject({ as: z.string().max(60).optional() });

/** A backup of this server, by its name. */
export const ownBackup = z.strictObject({ name: z.string().max(100) });
