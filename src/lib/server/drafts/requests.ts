import { ids } from '../requests';
import { z } from 'zod';

/** Works a draft names, by id. */
export const worksAsked = z.strictObject({ ids });
