/** Two windows that write the same draft, as they keep it, over the server as it is: whatever they do, nothing is lost. */
import fc from 'fast-check';
import type { Knex } from 'knex';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { textOfBlock, type Block } from '../../src/lib/core/drafting';
import {
  keepingOf,
  type Clash,
  type KeepingState,
  type Target,
  type Unsent,
} from '../../src/lib/ui/draft/keeping';
import type { Context } from '../../src/lib/server/access/context';
import { addProject } from '../../src/lib/server/projects';
import { openTestLibrary } from '../../src/lib/server/test-library';
import { draftSave, draftSince, openDraft, saveDraft } from '../../src/lib/server/drafts';

let db: Knex;
let ctx: Context;
let draftId: string;
beforeEach(async () => {
  ({ db, ctx } = await openTestLibrary());
  const { id } = await addProject(ctx, { name: 'Tide mills', style: 'apa', locale: 'en-US' });
  draftId = (await openDraft(ctx, id)).id;
});
afterEach(() => db.destroy());

const paragraph = (text: string): Block => ({ type: 'paragraph', content: [{ type: 'text', text }] });

/** Lets what is under way go on, so many times. */
async function turns(n: number): Promise<void> {
  for (let i = 0; i < n; i++) await new Promise((resolve) => setImmediate(resolve));
}

/** A window: its text, and the keeping of it. */
function windowOf(page: string) {
  let text: { id: string; content: Block }[] = [];
  let ids = 0;
  const seen = {
    clashes: [] as Clash[],
    state: { is: 'kept' } as KeepingState,
    stored: undefined as Unsent | undefined,
  };
  let away = false;
  class Away extends Error {}
  /** The way to the server and back takes time, in which one goes on writing. */
  const reach = async <T>(work: () => Promise<T>): Promise<T> => {
    if (away) throw new Away();
    await turns(2);
    const answer = await work();
    await turns(2);
    return answer;
  };
  const keeping = keepingOf({
    read: () => text.map(({ id, content }) => ({ id, json: JSON.stringify(content) })),
    apply: (target: Target) => {
      const there = new Map(text.map((part) => [part.id, part]));
      text = target.map(({ id, content }) => (content ? { id, content } : there.get(id)!));
    },
    save: (save) => reach(() => saveDraft(ctx, draftId, draftSave.parse({ ...save, page }))),
    pull: (since) => reach(() => draftSince(ctx, draftId, since)),
    away: (error) => error instanceof Away,
    told: (state) => (seen.state = state),
    clashes: (there) => (seen.clashes = there),
    store: (unsent) => (seen.stored = unsent),
    newId: () => `${page} ${ids++}`,
  });
  return {
    seen,
    keeping,
    open: async (left?: Unsent) => keeping.open(await draftSince(ctx, draftId), left),
    setAway: (yes: boolean) => (away = yes),
    said: () => text.map(({ content }) => textOfBlock(content)),
    ids: () => text.map(({ id }) => id),
    write(at: number, words: string): void {
      const part = text[at % Math.max(text.length, 1)];
      if (part) part.content = paragraph(words);
    },
    add(at: number, words: string): string {
      const id = `${page} ${ids++}`;
      text.splice(at % (text.length + 1), 0, { id, content: paragraph(words) });
      return id;
    },
    drop: (at: number) => text.splice(at % Math.max(text.length, 1), 1),
    move(at: number, to: number): void {
      const [part] = text.splice(at % Math.max(text.length, 1), 1);
      if (part) text.splice(to % (text.length + 1), 0, part);
    },
  };
}

describe('a window', () => {
  it('keeps what is written while the server is away, and sends it when it is back', async () => {
    const one = windowOf('one');
    await one.open();
    one.add(0, 'Mills');
    one.setAway(true);
    await one.keeping.flush();
    expect(one.seen.state).toEqual({ is: 'away' });
    expect(one.seen.stored?.puts).toHaveLength(1);
    one.setAway(false);
    await one.keeping.flush();
    expect(one.seen).toMatchObject({ state: { is: 'kept' }, stored: undefined });
    const other = windowOf('other');
    await other.open();
    expect(other.said()).toEqual(['Mills']);
  });

  it('keeps what is written while something is on its way', async () => {
    const one = windowOf('one');
    await one.open();
    one.add(0, 'Mills');
    const sending = one.keeping.flush();
    await turns(1);
    one.write(0, 'Mills ground');
    await sending;
    expect(one.seen.state).toEqual({ is: 'waiting' });
    await one.keeping.flush();
    expect((await draftSince(ctx, draftId)).parts.map((p) => textOfBlock(p.content))).toEqual([
      'Mills ground',
    ]);
  });

  it('that was closed before it could send goes on with what it had written', async () => {
    const one = windowOf('one');
    await one.open();
    one.add(0, 'Mills');
    await one.keeping.flush();
    one.setAway(true);
    one.write(0, 'Mills ground');
    one.add(1, 'Gates');
    await one.keeping.flush();
    const again = windowOf('one');
    await again.open(one.seen.stored);
    expect(again.said()).toEqual(['Mills ground', 'Gates']);
    await again.keeping.flush();
    expect(again.seen.state).toEqual({ is: 'kept' });
    expect((await draftSince(ctx, draftId)).parts.map((p) => textOfBlock(p.content))).toEqual(['Mills ground', 'Gates']); // prettier-ignore
  });

  it.each([
    ['mine', ['Mine']],
    ['theirs', ['Theirs']],
    ['both', ['Mine', 'Theirs']],
  ] as const)('decides about what both changed: %s', async (how, becomes) => {
    const [one, two] = [windowOf('one'), windowOf('two')];
    await one.open();
    const id = one.add(0, 'Mills');
    await one.keeping.flush();
    await two.open();
    two.write(0, 'Theirs');
    await two.keeping.flush();
    one.write(0, 'Mine');
    await one.keeping.flush();
    expect(one.seen.state).toEqual({ is: 'asks' });
    expect(one.seen.clashes.map((c) => c.id)).toEqual([id]);
    // Nothing is written over before somebody decides.
    expect((await draftSince(ctx, draftId)).parts.map((p) => textOfBlock(p.content))).toEqual(['Theirs']);
    await one.keeping.decide(id, how);
    await two.keeping.pull();
    expect([one.said(), two.said()]).toEqual([becomes, becomes]);
    expect(one.seen.state).toEqual({ is: 'kept' });
  });
});

type Step = typeof step extends fc.Arbitrary<infer T> ? T : never;
const step = fc.record({
  who: fc.boolean(),
  // Most of it is writing while something is under way.
  act: fc.constantFrom(
    'write',
    'write',
    'write',
    'flush',
    'flush',
    'flush',
    'pull',
    'add',
    'drop',
    'move',
    'settle',
    'away',
    'back',
  ),
  at: fc.nat(3),
  to: fc.nat(9),
});

it(
  'two windows come to the same text, with every word that nobody took out',
  { timeout: 240_000 },
  async () => {
    const come = async (steps: Step[]) => {
      const { id } = await addProject(ctx, { name: 'One more', style: 'apa', locale: 'en-US' });
      draftId = (await openDraft(ctx, id)).id;
      const [one, two] = [windowOf(`one ${draftId}`), windowOf(`two ${draftId}`)];
      await one.open();
      one.add(0, 'Mills');
      await one.keeping.flush();
      await two.open();
      /** Words that stand: nobody who saw them wrote something else there, or took them out. */
      const standing = new Set(['Mills']);
      for (const [n, { who, act, at, to }] of steps.entries()) {
        const window = who ? one : two;
        const before = window.said()[at % Math.max(window.said().length, 1)];
        const words = `words ${n}`;
        if (act === 'add' || act === 'write') {
          if (act === 'add') window.add(at, words);
          else window.write(at, words);
          if (act === 'write') standing.delete(before ?? '');
          if (act === 'add' || before !== undefined) standing.add(words);
        } else if (act === 'drop') {
          window.drop(at);
          standing.delete(before ?? '');
        } else if (act === 'move') window.move(at, to);
        else if (act === 'away' || act === 'back') window.setAway(act === 'away');
        else if (act === 'settle') await window.keeping.flush();
        else {
          // One goes on writing while it is under way.
          void window.keeping[act]();
          await turns(to);
        }
      }
      for (const window of [one, two, one, two]) {
        window.setAway(false);
        await window.keeping.flush();
        for (const clash of window.seen.clashes) await window.keeping.decide(clash.id, 'both');
        await window.keeping.pull();
      }
      await one.keeping.pull();
      expect(one.said()).toEqual(two.said());
      expect(one.ids()).toEqual((await draftSince(ctx, draftId)).parts.map((p) => p.id));
      for (const window of [one, two])
        expect(window.seen).toMatchObject({ state: { is: 'kept' }, clashes: [], stored: undefined });
      for (const words of standing) expect(one.said()).toContain(words);
    };
    await fc.assert(fc.asyncProperty(fc.array(step, { maxLength: 30 }), come), { numRuns: 150 });
  },
);
