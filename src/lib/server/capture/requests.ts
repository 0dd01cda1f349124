import { z } from 'zod';
import { into } from './into';

/** A page handed over as somebody sees it. */
export const pageHanded = into.extend({
  html: z.string().min(1).max(20_000_000),
  address: z.url({ protocol: /^https?$/ }).max(4_000),
  title: z.string().max(4_000).default(''),
  selection: z.string().max(50_000).optional(),
});

/** Addresses and identifiers, one a line. */
export const captureAsked = into.extend({
  text: z.string().trim().min(1).max(40_000),
  selection: z.string().max(50_000).optional(),
});
