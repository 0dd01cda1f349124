import { beginCodes, confirmCodes, dropCodes, codesChange } from '$lib/server/accounts';
import { ofOneself } from '../../../answer';

/** Begins with codes, asks for them from then on, or no more. */
export const POST = ofOneself(codesChange, (said, who, { locals: { db } }): Promise<object | void> =>
  said.act === 'begin'
    ? beginCodes(db, who, said.phrase)
    : said.act === 'confirm'
      ? confirmCodes(db, who, said.code)
      : dropCodes(db, who, said.phrase),
);
