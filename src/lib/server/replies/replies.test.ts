import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { makePerson, transaction, type Context } from '../access/context';
import { editPassage, keepPassage, writePassages } from '../passages';
import { searchEverything } from '../search';
import { insertSource } from '../sources/repository';
import { openTestLibrary } from '../test-library';
import { addReply, changeReply, lookedAt, saidForMe, settle, threadsOf } from '.';

let db: Knex;
let ada: Context;
let ben: Context;
let sourceId: string;
beforeEach(async () => {
  ({ db, ctx: ada } = await openTestLibrary());
  const { personId } = await makePerson(db, 'Ben');
  ben = { ...ada, personId, role: 'annotator' };
  await db('membership').insert({ library_id: ada.libraryId, person_id: personId, role: 'annotator' });
  sourceId = (
    await transaction(ada, (inner) =>
      insertSource(inner, sourceRecord.parse({ type: 'book', title: 'Sluices' }), { why: 'test' }),
    )
  ).id;
});
afterEach(() => db.destroy());

const kept = (ctx: Context, visibility: 'private' | 'library' = 'library') =>
  keepPassage(ctx, {
    copyId: null,
    sourceId,
    selectors: null,
    exact: 'Read in print',
    kind: 'quotation',
    gist: '',
    ownWords: '',
    tint: 'claim',
    locator: null,
    visibility,
  });

describe('what is said to a passage', () => {
  it('stands under it in its order, and is found by whom it is for until they looked', async () => {
    const { id } = await kept(ada);
    await addReply(ada, id, { text: 'Is this so?', to: [ben.personId] });
    await addReply(ben, id, { text: 'It is; see p. 4.', to: [ada.personId, ben.personId] });
    const { replies } = (await threadsOf(ada, [id])).get(id)!;
    expect(replies.map(({ owner, text, to }) => [owner, text, to])).toEqual([
      ['You', 'Is this so?', ['Ben']],
      ['Ben', 'It is; see p. 4.', ['You']],
    ]);
    const [line] = await saidForMe(ben);
    expect(line).toMatchObject({ from: 'You', passageId: id, sourceLabel: 'Sluices' });
    await lookedAt(ada, [line!.id]);
    expect(await saidForMe(ben)).toHaveLength(1);
    await lookedAt(ben, [line!.id]);
    expect(await saidForMe(ben)).toEqual([]);
    expect(await saidForMe(ada)).toHaveLength(1);
  });

  it('has the passage found by its words, until it is taken away', async () => {
    const { id } = await kept(ada);
    const found = async (ctx: Context, text: string) =>
      (await searchEverything(ctx, text, { style: 'apa', locale: 'en-US' }, {})).passages.items.map(
        ({ excerpt }) => excerpt.parts.map((part) => part.text).join(''),
      );
    const { id: reply } = await addReply(ben, id, { text: 'Compare the zostera beds', to: [] });
    expect(await found(ada, 'zostera')).toEqual(['Read in print · Ben: Compare the zostera beds']);
    await editPassage(ada, id, { base: 1, said: { kind: 'quotation', tint: 'claim', gist: 'Another point', ownWords: '', locator: null, tags: [], wording: null, visibility: 'library' } }); // prettier-ignore
    expect(await found(ada, 'zostera')).toHaveLength(1);
    await changeReply(ben, reply, { text: 'Compare the eels' });
    expect([await found(ada, 'zostera'), await found(ada, 'eels')].map((all) => all.length)).toEqual([0, 1]);
    await changeReply(ben, reply, { gone: true });
    expect(await found(ada, 'eels')).toEqual([]);
    // Said to what is one’s own alone, it is found by oneself alone.
    const mine = await kept(ada, 'private');
    await addReply(ada, mine.id, { text: 'Ask about brine', to: [] });
    expect([await found(ada, 'brine'), await found(ben, 'brine')].map((all) => all.length)).toEqual([1, 0]);
  });

  it('goes out with passages where that is asked for, and as annotations of them', async () => {
    const { id } = await kept(ada);
    await addReply(ben, id, { text: 'Is this so?', to: [] });
    const look = { style: 'apa', locale: 'en-US' };
    const written = async (replies: boolean) =>
      (await writePassages(ada, { ids: [id], as: 'text', layout: 'below', title: 'P', replies }, look)).body;
    expect(await written(true)).toContain('Ben: Is this so?');
    expect(await written(false)).not.toContain('Ben');
  });

  it('is nobody’s who does not see the passage', async () => {
    const { id } = await kept(ada, 'private');
    const { id: reply } = await addReply(ada, id, { text: 'To myself', to: [] });
    await expect(addReply(ada, id, { text: 'x', to: [ben.personId] })).rejects.toMatchObject({ status: 422 });
    await expect(addReply(ben, id, { text: 'x', to: [] })).rejects.toMatchObject({ status: 404 });
    await expect(changeReply(ben, reply, { gone: true })).rejects.toMatchObject({ status: 404 });
    await expect(settle(ben, id, true)).rejects.toMatchObject({ status: 404 });
  });

  it('is on no Desk once the passage is private, or the reply is taken away', async () => {
    const { id } = await kept(ada);
    const { id: reply } = await addReply(ada, id, { text: 'For Ben', to: [ben.personId] });
    await db('passage').where({ id }).update({ visibility: 'private' });
    expect(await saidForMe(ben)).toEqual([]);
    await db('passage').where({ id }).update({ visibility: 'library' });
    expect(await saidForMe(ben)).toHaveLength(1);
    await changeReply(ada, reply, { gone: true });
    expect(await saidForMe(ben)).toEqual([]);
    await changeReply(ada, reply, { gone: false });
    expect(await saidForMe(ben)).toHaveLength(1);
  });

  it('is worded otherwise by who said it, and taken away by them or an editor', async () => {
    const { id } = await kept(ada);
    const { id: hers } = await addReply(ada, id, { text: 'hers', to: [] });
    const { id: his } = await addReply(ben, id, { text: 'his', to: [] });
    await changeReply(ben, his, { text: 'his, again' });
    await expect(changeReply(ben, hers, { text: 'x' })).rejects.toMatchObject({ status: 403 });
    await expect(changeReply(ben, hers, { gone: true })).rejects.toMatchObject({ status: 403 });
    await expect(changeReply(ada, his, { text: 'x' })).rejects.toMatchObject({ status: 403 });
    await changeReply(ada, his, { gone: true });
    expect((await threadsOf(ada, [id])).get(id)!.replies.map(({ text }) => text)).toEqual(['hers']);
  });

  it('is settled and open again; a reader says nothing', async () => {
    const { id } = await kept(ada);
    await settle(ben, id, true);
    await settle(ada, id, true);
    expect((await threadsOf(ada, [id])).get(id)!.settled).toMatchObject({ by: 'Ben' });
    await settle(ada, id, false);
    expect((await threadsOf(ada, [id])).get(id)).toBeUndefined();
    await expect(addReply({ ...ben, role: 'reader' }, id, { text: 'x', to: [] })).rejects.toMatchObject({
      status: 403,
    });
    await expect(addReply(ben, id, { text: 'x', to: ['nobody'] })).rejects.toMatchObject({ status: 404 });
  });

  it('tells who is named in the words, where they see the passage', async () => {
    const { id } = await kept(ada);
    await addReply(ada, id, { text: '@Ben, is this so?', to: [] });
    expect(await saidForMe(ben)).toHaveLength(1);
    const { id: secret } = await kept(ada, 'private');
    await addReply(ada, secret, { text: '@Ben need not know', to: [] });
    expect(await saidForMe(ben)).toHaveLength(1);
  });
});
