import { z } from 'zod';
import { LOCATOR_LABELS } from '$lib/core/passages';
import { shortLabel } from '$lib/core/source';
import { Refusal } from '$lib/server/access/refusal';
import { getSources } from '$lib/server/sources';
import { printCitation } from '$lib/server/lists';
import { asks } from '../../answer';
import { lookOf } from '../../look';

const short = z.string().max(500);
const cited = z.object({
  id: z.string().max(60),
  label: z.enum(LOCATOR_LABELS).optional(),
  locator: short.optional(),
  prefix: short.optional(),
  suffix: short.optional(),
  withoutAuthor: z.boolean().optional(),
});

/** An in-text citation of one or several works, as it prints in the style of the project, and what the works are called. */
export const POST = asks(
  z.object({ works: z.array(cited).min(1).max(50), named: z.boolean().default(false) }),
  async ({ works, named }, ctx, { locals }) => {
    const sources = await getSources(
      ctx,
      works.map((w) => w.id),
    );
    const known = new Map(sources.map((s) => [s.id, s]));
    if (works.some((w) => !known.has(w.id)))
      throw new Refusal(404, 'One of these sources is not in the library any more.');
    const items = works.map(({ id, label, locator, prefix, suffix, withoutAuthor }) => ({
      id,
      ...(locator?.trim() ? { locator: locator.trim(), label: label ?? 'page' } : {}),
      ...(prefix?.trim() ? { prefix: `${prefix.trim()} ` } : {}),
      // A suffix that begins with a mark of punctuation stands close to what is before it.
      ...(suffix?.trim()
        ? { suffix: /^[,;:.)\]]/.test(suffix.trim()) ? suffix.trim() : ` ${suffix.trim()}` }
        : {}),
      ...(withoutAuthor ? { 'suppress-author': true } : {}),
    }));
    const printed = await printCitation(ctx, [...known.values()], items, await lookOf(locals), named);
    return { ...printed, labels: Object.fromEntries(sources.map((s) => [s.id, shortLabel(s.record)])) };
  },
);
