import { z } from 'zod';
import { beginCodes, confirmCodes, dropCodes } from '$lib/server/accounts';
import { ofOneself } from '../../../answer';

const phrase = z.string().min(1).max(1_000);

/** Begins with codes, asks for them from then on, or no more. */
export const POST = ofOneself(
  z.discriminatedUnion('act', [
    z.strictObject({ act: z.literal('begin'), phrase }),
    z.strictObject({ act: z.literal('confirm'), code: z.string().max(20) }),
    z.strictObject({ act: z.literal('drop'), phrase }),
  ]),
  (said, who, { locals: { db } }): Promise<object | void> =>
    said.act === 'begin'
      ? beginCodes(db, who, said.phrase)
      : said.act === 'confirm'
        ? confirmCodes(db, who, said.code)
        : dropCodes(db, who, said.phrase),
);
