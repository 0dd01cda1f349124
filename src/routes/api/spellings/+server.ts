import { spellingApart, spellingDecision, spellingNotApart } from '$lib/server/duplicates';
import { respellMany } from '$lib/server/many';
import { changes } from '../../answer';

/** What a person says of several spellings that look like one name. */
export const POST = changes(spellingDecision, async (given, ctx) => {
  if (given.act === 'one') return respellMany(ctx, given);
  const { key, form, others } = given;
  return given.act === 'apart'
    ? spellingApart(ctx, key, form, others)
    : spellingNotApart(ctx, key, form, others);
});
