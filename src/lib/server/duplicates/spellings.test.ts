import fc from 'fast-check';
import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { formOfName, proposeSpellings, spellingsOf } from '../../core/duplicates';
import { parseName, sourceRecord, type SourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { deleteForGood } from '../bin';
import { binSources, editSource, undo } from '../sources';
import { getSource, insertSource } from '../sources/repository';
import { openTestLibrary } from '../test-library';
import { merge, respell, spellingApart, spellingNotApart, spellingsIn, undoMerge } from './index';

let db: Knex;
let ctx: Context;
beforeEach(async () => ({ db, ctx } = await openTestLibrary()));
afterEach(() => db.destroy());

const record = (author: string, fields: Partial<SourceRecord> = {}) =>
  sourceRecord.parse({
    type: 'article-journal',
    title: `A work of ${author}`,
    author: [parseName(author)],
    ...fields,
  });
const add = (author: string, fields: Partial<SourceRecord> = {}) =>
  transaction(ctx, (inner) => insertSource(inner, record(author, fields), { why: 'test' }));
const form = (name: string) => formOfName(parseName(name)!);
const shown = async (kind: 'person' | 'container' = 'person') => {
  const { groups, group, totals } = await spellingsIn(ctx, kind);
  expect(groups.length).toBe(totals[kind]);
  return group?.forms.map((f) => `${f.text} ${f.times}`) ?? [];
};
const authorsOf = async (id: string) => (await getSource(ctx, id)).record.author?.map((a) => a.given);

describe('names in several spellings', () => {
  it('are proposed when one comes, counted, and gone when it goes', async () => {
    await add('Okafor, Chidi');
    expect(await shown()).toEqual([]);
    const short = await add('Okafor, C.');
    expect(await shown()).toEqual(['Okafor, Chidi 1', 'Okafor, C. 1']);
    await add('Okafor, C.');
    expect(await shown()).toEqual(['Okafor, Chidi 1', 'Okafor, C. 2']);
    // A third name that the initials fit as well: nobody knows whose they are.
    const other = await add('Okafor, Clara');
    expect(await shown()).toEqual([]);
    await binSources(ctx, [other.id], true);
    expect(await shown()).toEqual(['Okafor, Chidi 1', 'Okafor, C. 2']);
    await binSources(ctx, [short.id], true);
    await deleteForGood(ctx, 'sources', [short.id]);
    expect(await shown()).toEqual(['Okafor, Chidi 1', 'Okafor, C. 1']);
  });

  it('become one in every role of the sources named, and are undone as one', async () => {
    const full = await add('Okafor, Chidi');
    const short = await add('Okafor, C.', { editor: [parseName('Okafor, C.')!, parseName('Pell, Edwin')!] });
    const left = await add('Okafor, C.');
    const { group } = await spellingsIn(ctx, 'person');
    expect(group!.sources.map((s) => s.has)).toEqual([[0], [1], [1]]);
    const { revisions } = await respell(ctx, {
      act: 'one',
      kind: 'person',
      key: group!.key,
      forms: group!.forms.map((f) => f.form),
      to: { form: form('Okafor, Chidi') },
      sources: [full, short].map(({ id, revision }) => ({ id, revision })),
    });
    expect(revisions.length).toBe(1);
    const after = (await getSource(ctx, short.id)).record;
    expect([after.author, after.editor].map((names) => names?.map((n) => n.given))).toEqual([
      ['Chidi'],
      ['Chidi', 'Edwin'],
    ]);
    expect(await authorsOf(left.id)).toEqual(['C.']);
    expect(await shown()).toEqual(['Okafor, Chidi 2', 'Okafor, C. 1']);
    await undo(ctx, revisions);
    expect((await getSource(ctx, short.id)).record).toEqual(short.record);
    expect(await shown()).toEqual(['Okafor, Chidi 1', 'Okafor, C. 2']);
  });

  it('become what is typed; what is no name is refused, and so is what was changed meanwhile', async () => {
    const a = await add('Okafor, Chidi');
    const b = await add('Okafor, C.');
    const { group } = await spellingsIn(ctx, 'person');
    const one = {
      act: 'one' as const,
      kind: 'person' as const,
      key: group!.key,
      forms: group!.forms.map((f) => f.form),
      sources: [a, b].map(({ id, revision }) => ({ id, revision })),
    };
    await expect(respell(ctx, { ...one, to: { typed: ' ,, ' } })).rejects.toMatchObject({ status: 422 });
    await expect(respell(ctx, { ...one, to: { form: 'no name' } })).rejects.toMatchObject({ status: 422 });
    await expect(respell(ctx, { ...one, to: { form: '[]' } })).rejects.toMatchObject({ status: 422 });
    // Of the names, that is: what somebody wrote into another field stays, and stands in the way of nothing.
    const both = [
      { family: 'Okafor', given: 'C.' },
      { family: 'Pell', given: 'A.' },
    ];
    await editSource(ctx, b.id, b.revision, { fields: { author: both } });
    await expect(respell(ctx, { ...one, to: { typed: 'Okafor, Chidi N.' } })).rejects.toMatchObject({
      status: 409,
    });
    // All or none.
    expect(await authorsOf(a.id)).toEqual(['Chidi']);
    const sources = [a, { id: b.id, revision: b.revision + 1 }].map(({ id, revision }) => ({ id, revision }));
    await respell(ctx, { ...one, sources, to: { typed: 'Okafor, Chidi N.' } });
    expect([await authorsOf(a.id), await authorsOf(b.id)]).toEqual([['Chidi N.'], ['Chidi N.', 'A.']]);
    expect(await shown()).toEqual([]);
  });

  it('that are said to be two names are not proposed again, until that is taken back', async () => {
    await add('Okafor, Chidi');
    await add('Okafor, C.');
    const { group } = await spellingsIn(ctx, 'person');
    const [a, b] = group!.forms.map((f) => f.form) as [string, string];
    await expect(spellingApart(ctx, group!.key, b, ['nobody'])).rejects.toMatchObject({ status: 404 });
    await expect(spellingApart(ctx, 'person nobody n', b, [a])).rejects.toMatchObject({ status: 404 });
    await spellingApart(ctx, group!.key, b, [a]);
    expect(await shown()).toEqual([]);
    await add('Okafor, C.');
    expect(await shown()).toEqual([]);
    const { apart } = await spellingsIn(ctx, 'person');
    expect(apart.map((p) => p.texts.sort())).toEqual([['Okafor, C.', 'Okafor, Chidi']]);
    await spellingNotApart(ctx, group!.key, a, [b]);
    expect(await shown()).toEqual(['Okafor, Chidi 1', 'Okafor, C. 2']);
  });

  it('are containers too, shown at once where only they are', async () => {
    const a = await add('Pell, Edwin', { 'container-title': 'J. Mod. Hist.' });
    await add('Weir, Anna', { 'container-title': 'Journal of Modern History' });
    const { kind, group, totals } = await spellingsIn(ctx, undefined);
    expect({ kind, totals }).toEqual({ kind: 'container', totals: { person: 0, container: 1 } });
    await respell(ctx, {
      act: 'one',
      kind,
      key: group!.key,
      forms: ['J. Mod. Hist.'],
      to: { form: 'Journal of Modern History' },
      sources: [{ id: a.id, revision: a.revision }],
    });
    expect((await getSource(ctx, a.id)).record['container-title']).toBe('Journal of Modern History');
    expect(await shown('container')).toEqual([]);
  });

  it('follow a merge and its undo', async () => {
    const same = { title: 'Salt marsh recovery behind breached dams', DOI: '10.5555/marsh' };
    const a = await add('Okafor, Chidi', same);
    const b = await add('Okafor, C.', same);
    expect(await shown()).toEqual(['Okafor, Chidi 1', 'Okafor, C. 1']);
    const step = await merge(ctx, {
      ids: [a.id, b.id],
      bases: [a.revision, b.revision],
      picks: { author: 0 },
    });
    expect(await shown()).toEqual([]);
    await undoMerge(ctx, step);
    expect(await shown()).toEqual(['Okafor, Chidi 1', 'Okafor, C. 1']);
  });

  it('are the same as when all living records are gone through at once, whatever came and went', async () => {
    const names = [
      'Müller, Anna',
      'Muller, Anna',
      'Müller, A.',
      'Müller, Andreas',
      'Pell, E.',
      'Pell, Edwin',
    ];
    const titles = ['J. Mod. Hist.', 'Journal of Modern History', 'JMH', 'Coastal Studies'];
    const step = fc.record({
      act: fc.constantFrom('add', 'edit', 'bin', 'back'),
      at: fc.nat(1_000),
      name: fc.constantFrom(...names),
      title: fc.constantFrom(...titles),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 5, maxLength: 30 }), async (steps) => {
        await db.destroy();
        ({ db, ctx } = await openTestLibrary());
        const ids: string[] = [];
        for (const { act, at, name, title } of steps) {
          const id = ids[at % Math.max(1, ids.length)];
          if (act === 'add' || !id) ids.push((await add(name, { 'container-title': title })).id);
          else if (act === 'edit') {
            const { revision } = await getSource(ctx, id);
            await editSource(ctx, id, revision, {
              fields: { author: [parseName(name)], 'container-title': title },
            });
          } else await binSources(ctx, [id], act === 'bin');
        }
        const forms = new Map<string, Set<string>>();
        for (const id of ids) {
          const source = await getSource(ctx, id);
          if (source.binned) continue;
          for (const { key, form: one } of spellingsOf(source.record))
            forms.set(key, (forms.get(key) ?? new Set()).add(one));
        }
        const wanted = [...forms].flatMap(([key, some]) =>
          proposeSpellings(key, [...some]).map((p) => p.forms),
        );
        const kept = (await db('spelling_group').select('forms')) as { forms: string }[];
        expect(kept.map((row) => row.forms).sort()).toEqual(wanted.map((f) => JSON.stringify(f)).sort());
      }),
      { numRuns: 15 },
    );
  });
});
