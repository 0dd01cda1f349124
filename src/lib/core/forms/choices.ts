import { z } from 'zod';
import { WAYS } from '../choosing';
import { nfc } from '../text';

const id = z.string().min(1).max(60);

/** How many candidates a choice has at most, and how many can be put in an order. */
export const MOST_CANDIDATES = 5_000;
export const MOST_ORDERED = 100;

const reasons = z.array(z.string().trim().min(1).max(200).transform(nfc)).max(40);
const verdict = z.enum(['keep', 'perhaps', 'leave', 'include', 'exclude']);
const candidates = z.array(id).min(1, { message: 'Choose among something.' }).max(MOST_CANDIDATES);
const name = z.string().trim().min(1, { message: 'Say what is chosen.' }).max(200).transform(nfc);

/** What several people choose among: how, who is asked, and the reasons there are for leaving something out. */
export const choiceWords = z
  .strictObject({
    name,
    way: z.enum(WAYS),
    voters: z.array(id).min(1, { message: 'Ask somebody.' }).max(200),
    reasons: reasons.default([]),
    ids: candidates,
  })
  .superRefine(({ way, voters, ids }, ctx) => {
    if (way === 'screening' && new Set(voters).size !== 2)
      ctx.addIssue({ code: 'custom', path: ['voters'], message: 'Two people screen. Ask two.' });
    if (way === 'order' && new Set(ids).size > MOST_ORDERED)
      ctx.addIssue({
        code: 'custom',
        path: ['ids'],
        message: `At most ${MOST_ORDERED} can be put in an order. Ask for an opinion on each.`,
      });
  });
export type ChoiceWords = z.infer<typeof choiceWords>;

/** What is said of one candidate, or the order of all; a verdict of nothing takes one’s own away. */
export const voteWords = z.union([
  z.strictObject({
    id,
    says: verdict.nullable(),
    reason: z.string().trim().max(2_000).transform(nfc).default(''),
  }),
  z.strictObject({ order: z.array(id).max(MOST_ORDERED) }),
]);

/** What is done to a choice as a whole. */
export const choiceChange = z.discriminatedUnion('act', [
  z.strictObject({ act: z.literal('rename'), name }),
  z.strictObject({ act: z.literal('close'), closed: z.boolean() }),
  z.strictObject({ act: z.literal('put away'), away: z.boolean() }),
  z.strictObject({ act: z.literal('add'), ids: candidates }),
  z.strictObject({ act: z.literal('take out'), ids: candidates }),
  z.strictObject({ act: z.literal('settle'), id, says: verdict.nullable() }),
]);
