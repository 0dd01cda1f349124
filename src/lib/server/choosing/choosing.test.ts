import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { MOST_ORDERED } from '../../core/forms';
import { sourceRecord } from '../../core/source';
import { makePerson, transaction, type Context } from '../access/context';
import { deleteForGood } from '../bin';
import { merge, undoMerge } from '../duplicates';
import { binSources } from '../sources';
import { insertSource } from '../sources/repository';
import { openTestLibrary } from '../test-library';
import {
  addChoice,
  changeChoice,
  deleteChoice,
  getChoice,
  listChoices,
  saidIn,
  vote,
  waitingChoices,
} from '.';

let db: Knex;
let ada: Context;
let ben: Context;
let ids: string[];
beforeEach(async () => {
  ({ db, ctx: ada } = await openTestLibrary());
  const { personId } = await makePerson(db, 'Ben');
  ben = { ...ada, personId, role: 'annotator' };
  await db('membership').insert({ library_id: ada.libraryId, person_id: personId, role: 'annotator' });
  ids = [];
  for (const title of ['Sluices', 'Weirs', 'Eels'])
    ids.push(
      (
        await transaction(ada, (inner) =>
          insertSource(inner, sourceRecord.parse({ type: 'book', title }), { why: 'test' }),
        )
      ).id,
    );
});
afterEach(() => db.destroy());

const asked = async (way: 'opinion' | 'order' | 'screening', of = ids) =>
  (await addChoice(ada, { name: 'Which', way, voters: [ada.personId, ben.personId], reasons: [], ids: of }))
    .id;
const say = (
  ctx: Context,
  id: string,
  i: number,
  says: 'keep' | 'leave' | 'include' | 'exclude' | null,
  reason = '',
) => vote(ctx, id, { id: ids[i]!, says, reason });
/** What somebody is shown of what another said. */
const ofOther = async (ctx: Context, id: string) =>
  (await saidIn(ctx, id)).votes.filter((v) => v.person !== ctx.personId);

describe('choosing together', () => {
  it('hides what another said of something until one said something of it oneself', async () => {
    const id = await asked('opinion');
    await say(ben, id, 0, 'leave', 'too thin');
    expect(await ofOther(ada, id)).toEqual([]);
    await say(ada, id, 1, 'keep');
    expect(await ofOther(ada, id)).toEqual([]);
    await say(ada, id, 0, 'keep');
    expect(await ofOther(ada, id)).toEqual([
      { candidate: ids[0], person: ben.personId, says: 'leave', place: null, reason: 'too thin' },
    ]);
    // Taken back, it is hidden again.
    await say(ada, id, 0, null);
    expect(await ofOther(ada, id)).toEqual([]);
    await changeChoice(ada, id, { act: 'close', closed: true });
    expect(await ofOther(ada, id)).toHaveLength(1);
  });

  it('tells how many each judged, and to whom it waits', async () => {
    const id = await asked('opinion');
    for (const i of [0, 1, 2]) await say(ben, id, i, 'keep');
    const [line] = await listChoices(ada);
    expect(line).toMatchObject({ candidates: 3, waits: true, by: 'You' });
    expect(line!.voters.map(({ name, judged }) => [name, judged])).toEqual([
      ['You', 0],
      ['Ben', 3],
    ]);
    expect(await waitingChoices(ada)).toBe(1);
    expect(await waitingChoices(ben)).toBe(0);
    await binSources(ada, [ids[0]!], true);
    expect((await listChoices(ada))[0]).toMatchObject({ candidates: 2 });
    expect((await getChoice(ada, id)).among.map(({ headline }) => headline)).toEqual(['Weirs', 'Eels']);
  });

  it('takes verdicts of its own way, of those asked, while it is open', async () => {
    const id = await asked('opinion');
    await expect(say(ada, id, 0, 'include')).rejects.toMatchObject({ status: 422 });
    await expect(vote(ada, id, { order: ids })).rejects.toMatchObject({ status: 422 });
    await expect(vote(ada, id, { id: 'none', says: 'keep', reason: '' })).rejects.toMatchObject({
      status: 404,
    });
    const { personId } = await makePerson(db, 'Cy');
    await expect(say({ ...ada, personId }, id, 0, 'keep')).rejects.toMatchObject({ status: 403 });
    await expect(say({ ...ben, role: 'reader' }, id, 0, 'keep')).rejects.toMatchObject({ status: 403 });
    await changeChoice(ada, id, { act: 'close', closed: true });
    await expect(say(ada, id, 0, 'keep')).rejects.toMatchObject({ status: 409 });
  });

  it('asks only members who may say something, and is made by who may edit', async () => {
    const { personId } = await makePerson(db, 'Cy');
    const given = { name: 'Which', way: 'opinion' as const, reasons: [], ids };
    await expect(addChoice(ada, { ...given, voters: [personId] })).rejects.toMatchObject({ status: 422 });
    await expect(addChoice(ben, { ...given, voters: [ben.personId] })).rejects.toMatchObject({ status: 403 });
    await expect(addChoice(ada, { ...given, ids: ['none'], voters: [ada.personId] })).rejects.toMatchObject({
      status: 404,
    });
  });

  it('keeps an order whole, and the last one handed in', async () => {
    const id = await asked('order');
    await vote(ben, id, { order: [ids[2]!, ids[0]!, ids[1]!] });
    expect(await ofOther(ada, id)).toEqual([]);
    await vote(ada, id, { order: ids });
    await vote(ada, id, { order: [ids[1]!] });
    const { votes } = await saidIn(ada, id);
    const of = (ctx: Context) =>
      votes
        .filter((v) => v.person === ctx.personId)
        .sort((a, b) => a.place! - b.place!)
        .map((v) => v.candidate);
    expect(of(ada)).toEqual([ids[1]]);
    expect(of(ben)).toEqual([ids[2], ids[0], ids[1]]);
    await expect(vote(ada, id, { order: [ids[0]!, ids[0]!] })).rejects.toMatchObject({ status: 409 });
    expect((await saidIn(ada, id)).votes).toHaveLength(4);
  });

  it('is put in an order only while it can be put by hand, however it came to be so long', async () => {
    const id = await asked('order');
    const more: string[] = [];
    for (let i = 0; i < MOST_ORDERED - ids.length + 1; i++)
      more.push(
        (
          await transaction(ada, (inner) =>
            insertSource(inner, sourceRecord.parse({ type: 'book', title: `Pond ${i}` }), { why: 'test' }),
          )
        ).id,
      );
    await expect(changeChoice(ada, id, { act: 'add', ids: more })).rejects.toMatchObject({ status: 422 });
    await changeChoice(ada, id, { act: 'add', ids: more.slice(1) });
    expect((await getChoice(ada, id)).among).toHaveLength(MOST_ORDERED);
  });

  it('opens a screening when both are through, and settles what they differ in then', async () => {
    const id = await asked('screening');
    for (const i of [0, 1, 2]) await say(ada, id, i, 'include');
    await say(ben, id, 0, 'exclude');
    expect(await ofOther(ada, id)).toEqual([]);
    await expect(
      changeChoice(ada, id, { act: 'settle', id: ids[0]!, says: 'include' }),
    ).rejects.toMatchObject({ status: 409 });
    for (const i of [1, 2]) await say(ben, id, i, 'include');
    expect(await ofOther(ada, id)).toHaveLength(3);
    const { back } = await changeChoice(ada, id, { act: 'settle', id: ids[0]!, says: 'exclude' });
    expect((await saidIn(ben, id)).settled).toEqual([{ candidate: ids[0], says: 'exclude', by: 'You' }]);
    await changeChoice(ada, id, back!);
    expect((await saidIn(ben, id)).settled).toEqual([]);
  });

  it('takes candidates out and in again with what was said of them', async () => {
    const id = await asked('opinion');
    await say(ada, id, 1, 'keep');
    const { back } = await changeChoice(ada, id, { act: 'take out', ids: [ids[1]!] });
    expect((await saidIn(ada, id)).votes).toEqual([]);
    await changeChoice(ada, id, back!);
    expect((await saidIn(ada, id)).votes).toMatchObject([{ candidate: ids[1], says: 'keep' }]);
    expect(await changeChoice(ada, id, { act: 'add', ids: [ids[1]!] })).toEqual({});
  });

  it('is deleted only when it was put away', async () => {
    const id = await asked('opinion');
    await say(ada, id, 0, 'keep');
    await expect(deleteChoice(ada, id)).rejects.toMatchObject({ status: 409 });
    await changeChoice(ada, id, { act: 'put away', away: true });
    await deleteChoice(ada, id);
    for (const table of ['choice', 'candidate', 'vote', 'choice_voter'])
      expect(await db(table).select('*')).toEqual([]);
  });

  it('goes with a source that leaves, and over with one that is merged and back again', async () => {
    const id = await asked('opinion', [ids[0]!, ids[2]!]);
    await say(ada, id, 0, 'keep', 'good');
    const merged = await merge(ada, { ids: [ids[1]!, ids[0]!], bases: [1, 1] });
    expect((await saidIn(ada, id)).votes).toMatchObject([
      { candidate: ids[1], says: 'keep', reason: 'good' },
    ]);
    await undoMerge(ada, merged);
    expect((await saidIn(ada, id)).votes).toMatchObject([
      { candidate: ids[0], says: 'keep', reason: 'good' },
    ]);
    await binSources(ada, [ids[2]!], true);
    await deleteForGood(ada, 'sources', [ids[2]!]);
    expect((await getChoice(ada, id)).among.map((one) => one.id)).toEqual([ids[0]]);
  });

  it('is of its library', async () => {
    const id = await asked('opinion');
    const { personId, libraryId } = await makePerson(db, 'Dee');
    const dee: Context = { db, personId, libraryId, role: 'owner' };
    expect(await listChoices(dee)).toEqual([]);
    await expect(getChoice(dee, id)).rejects.toMatchObject({ status: 404 });
    await expect(saidIn(dee, id)).rejects.toMatchObject({ status: 404 });
    await expect(changeChoice(dee, id, { act: 'rename', name: 'x' })).rejects.toMatchObject({ status: 404 });
    await expect(say(dee, id, 0, 'keep')).rejects.toMatchObject({ status: 404 });
  });
});
