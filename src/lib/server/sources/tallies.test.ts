import fc from 'fast-check';
import { expect, it } from 'vitest';
import { sourceRecord } from '../../core/source';
import { transaction, type Context } from '../access/context';
import { Refusal } from '../access/refusal';
import { newId } from '../db/ids';
import { recount } from './tallies';
import { insertSource } from './repository';
import { deleteForGood } from '../bin';
import { keepApart, merge, notApart, undoMerge } from '../duplicates';
import { countsOf } from '../overview';
import { keepLeads } from '../leads';
import { keepNote } from '../notes';
import { binPassage } from '../passages';
import { insertPassage } from '../passages/repository';
import { file } from '../projects';
import { binSources, editSources } from './index';
import { openTestLibrary } from '../test-library';

const ACTS = [
  'add',
  'add',
  'add',
  'bin',
  'back',
  'file',
  'unfile',
  'tag',
  'passage',
  'private',
  'bin passage',
  'merge',
  'unmerge',
  'apart',
  'not apart',
  'note',
  'lead',
  'delete',
] as const;

const said = (sourceId: string, visibility: 'private' | 'library') => ({
  sourceId,
  copyId: null,
  kind: 'summary' as const,
  selectors: null,
  exact: '',
  locator: null,
  gist: 'Its point',
  ownWords: '',
  tint: 'claim' as const,
  visibility,
  anchor: 'found' as const,
});

/** Everything counted, as rows in an order. */
const tallies = async (ctx: Context) =>
  (
    (await ctx
      .db('tally')
      .whereNot({ n: 0 })
      .select('library_id', 'project_id', 'person_id', 'what', 'n')) as object[]
  )
    .map((r) => JSON.stringify(r))
    .sort();

/** Which source has which trait, as the rows themselves say. */
const TRAITS = `
  SELECT id, kind, value FROM (
    SELECT source_id AS id, kind, value FROM facet
    UNION ALL SELECT source_id, 'tag', tag FROM source_tag
    UNION ALL SELECT source_id, 'finding', name FROM finding
    UNION ALL SELECT id, 'type', type FROM source
    UNION ALL SELECT id, 'year', year FROM source WHERE year IS NOT NULL
    UNION ALL SELECT id, 'state', 'unchecked' FROM source WHERE checked IS NULL
    UNION ALL SELECT id, 'state', 'found' FROM source WHERE findings <> '[]'
  ) ORDER BY id, kind, value`;
const texts = (rows: { id: string; kind: string; value: unknown }[]) =>
  rows.map(({ id, kind, value }) => `${id} ${kind} ${String(value)}`).sort();

const SEED = Number(process.env.SEED ?? 20261126);

it(`what is counted as rows come, change and go is what counting them anew gives (seed ${SEED})`, async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.record({ act: fc.constantFrom(...ACTS), a: fc.nat(30), b: fc.nat(30), n: fc.nat(2) }), {
        minLength: 5,
        maxLength: 45,
      }),
      async (steps) => {
        const { db, ctx } = await openTestLibrary();
        const project = newId();
        await db('project').insert({
          id: project,
          library_id: ctx.libraryId,
          owner_id: ctx.personId,
          name: 'A paper',
          style: 'apa',
          locale: 'en-US',
          created: 'x',
        });
        const merges: string[] = [];
        const passages: string[] = [];
        const ids = async () =>
          ((await db('source').orderBy('id').select('id')) as { id: string }[]).map((r) => r.id);
        for (const { act, a, b, n } of steps) {
          const all = await ids();
          const [x, y] = [all[a % (all.length || 1)], all[b % (all.length || 1)]];
          const does: Record<(typeof ACTS)[number], () => Promise<unknown>> = {
            add: () =>
              transaction(ctx, (inner) =>
                insertSource(
                  inner,
                  sourceRecord.parse({
                    type: n ? 'book' : 'report',
                    title: `Title ${n}`,
                    author: [{ family: 'Ng' }],
                    issued: { 'date-parts': [[2000 + n]] },
                    ...(b % 3 ? {} : { DOI: `10.5555/${n}` }),
                  }),
                  { checked: a % 2 === 0, why: 'test' },
                ),
              ),
            bin: () => binSources(ctx, [x!], true),
            back: () => binSources(ctx, [x!], false),
            file: () => file(ctx, project, [...new Set([x!, y!])], true),
            unfile: () => file(ctx, project, [x!], false),
            tag: () => editSources(ctx, [x!], { tag: `tag ${n}` }),
            passage: async () =>
              passages.push(
                (await transaction(ctx, (inner) => insertPassage(inner, said(x!, 'library')))).id,
              ),
            private: async () =>
              passages.push(
                (await transaction(ctx, (inner) => insertPassage(inner, said(x!, 'private')))).id,
              ),
            'bin passage': () => binPassage(ctx, passages[a % passages.length]!, b % 2 === 0),
            merge: async () => {
              const rows = (await db('source').whereIn('id', [x!, y!]).select('id', 'revision')) as {
                id: string;
                revision: number;
              }[];
              const revision = (id: string) => rows.find((r) => r.id === id)!.revision;
              merges.push(await merge(ctx, { ids: [x!, y!], bases: [revision(x!), revision(y!)] }));
            },
            unmerge: () => undoMerge(ctx, merges[a % merges.length]!),
            apart: () => keepApart(ctx, x!, [y!]),
            'not apart': () => notApart(ctx, x!, [y!]),
            note: () => keepNote(ctx, { body: 'a thought', projectId: n ? project : null, sourceId: null }),
            lead: () =>
              keepLeads(ctx, { text: 'A work to be found', projectId: n ? project : null, metIn: null }),
            delete: () => deleteForGood(ctx, 'sources', [x!]),
          };
          // What cannot be done now is refused, and changes nothing.
          const acted = { 'bin passage': passages, unmerge: merges, add: ['-'], note: ['-'], lead: ['-'] };
          // There is nothing yet to act on.
          if ((acted[act as keyof typeof acted] ?? all).length === 0) continue;
          await does[act]().catch((error: unknown) => {
            if (!(error instanceof Refusal)) throw error;
          });
        }
        const kept = await tallies(ctx);
        await recount(db);
        expect(kept).toEqual(await tallies(ctx));
        const has = await db('trait_of')
          .join('trait', 'trait.id', 'trait_id')
          .join('source', 'source.no', 'trait_of.no')
          .select('source.id', 'kind', 'value');
        expect(texts(has)).toEqual(texts(await db.raw(TRAITS)));
        // What is found by words is living, and known by its number.
        const sought = await db('search')
          .join('search_subject as s', 's.id', 'search.rowid')
          .where('s.kind', 'source')
          .orderBy('no')
          .pluck('no');
        const alive = db('source').whereNull('binned').whereNull('merged_into');
        expect(sought).toEqual(await alive.orderBy('no').pluck('no'));
        const n = (await db('trait')
          .leftJoin('trait_of', 'trait_id', 'trait.id')
          .groupBy('trait.id')
          .select('n')
          .count({ counted: 'no' })) as unknown as { n: number; counted: number }[];
        expect(n.filter((one) => one.n !== one.counted)).toEqual([]);
        expect((await countsOf(ctx)).sources).toBe(
          (
            (await db('source').whereNull('binned').whereNull('merged_into').count({ n: '*' })) as [
              { n: number },
            ]
          )[0].n,
        );
        await db.destroy();
      },
    ),
    { seed: SEED, numRuns: 25 },
  );
});
