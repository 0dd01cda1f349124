import { z } from 'zod';
import { ids } from '../requests';

/** Works a draft names, by id. */
export const worksAsked = z.strictObject({ ids });
