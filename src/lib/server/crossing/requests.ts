import { z } from 'zod';
import { ids } from '../requests';

/** Sources that go to another library, and which of them are moved. */
export const crossingAsked = z.strictObject({ libraryId: z.string().max(60), ids, moved: ids });
