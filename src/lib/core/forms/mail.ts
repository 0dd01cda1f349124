import { z } from 'zod';

/** A mail address, as it is kept. */
export const mailAddress = z
  .string()
  .trim()
  .max(254)
  .toLowerCase()
  .pipe(z.email({ message: 'This is not a mail address.' }));
