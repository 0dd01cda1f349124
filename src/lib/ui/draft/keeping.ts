import { mergedOrder, type Block } from '$lib/core/drafting';
import type { DraftSaved } from '$lib/server/drafts';

/** A part as it stands in the editor; `json` is its content. */
export interface Written {
  id: string;
  json: string;
}

/** What the text is to become: its parts in order, with the content of those that are new or other. */
export type Target = { id: string; content?: Block }[];

/** What was written and is not on the server yet, as it is kept in the browser. */
export interface Unsent {
  puts: { id: string; base: number | null; content: Block }[];
  gone: { id: string; base: number }[];
  order: string[];
}

/** A part that was changed here and elsewhere: what stands there now, or nothing where it was taken out. */
export interface Clash {
  id: string;
  revision: number;
  theirs: Block | null;
}

/** How it stands: all is kept; something is on its way, or waits for a person to decide; the server does not answer; it refused, and why. */
export type KeepingState =
  { is: 'kept' } | { is: 'waiting' } | { is: 'asks' } | { is: 'away' } | { is: 'refused'; why: string };

type Save = {
  since: number;
  puts: { id: string; base: number | null; content: Block }[];
  gone: { id: string; base: number }[];
  order?: string[];
};
type Told = Omit<DraftSaved, 'kept' | 'clashes'> & Partial<Pick<DraftSaved, 'kept' | 'clashes'>>;

interface Around {
  /** The text as it is now. */
  read: () => Written[];
  /** Makes the text another, as something that was not done here. */
  apply: (target: Target) => void;
  save: (save: Save) => Promise<DraftSaved>;
  pull: (since: number) => Promise<Told>;
  /** Whether a failure means that the server was not reached, or that it refused. */
  away: (error: unknown) => boolean;
  told: (state: KeepingState) => void;
  clashes: (there: Clash[]) => void;
  /** Keeps in the browser what is not on the server, or lets go of it. */
  store: (unsent: Unsent | undefined) => void;
  newId: () => string;
}

/**
 * Keeps what is written in a window, part by part. What others wrote comes into the text where nothing was written here; where
 * it was, both are shown, and nothing is written over until a person decides.
 */
export function keepingOf(around: Around) {
  /** Parts as the server has them, as far as this window knows. */
  const base = new Map<string, { revision: number | null; json: string }>();
  const clashing = new Map<string, Clash>();
  let order: string[] = [];
  let revision = 0;
  let busy: Promise<void> | undefined;
  let failed: KeepingState | undefined;

  /** What differs from what the server has. */
  function unsent(): Unsent & { ordered: boolean } {
    const now = around.read();
    const there = new Set(now.map(({ id }) => id));
    const ids = now.map(({ id }) => id);
    const puts = now.flatMap(({ id, json }) => {
      const known = base.get(id);
      return known?.json === json
        ? []
        : [{ id, base: known?.revision ?? null, content: JSON.parse(json) as Block }];
    });
    const gone = [...base].flatMap(([id, { revision: r }]) =>
      there.has(id) || r === null ? [] : [{ id, base: r }],
    );
    return {
      puts,
      gone,
      order: ids,
      ordered: ids.length !== order.length || ids.some((id, i) => id !== order[i]),
    };
  }

  const waiting = (): boolean => {
    const { puts, gone, ordered } = unsent();
    return puts.length > 0 || gone.length > 0 || ordered;
  };
  /** What stands apart from what others wrote is not kept before a person decided. */
  const tellState = () =>
    around.told(failed ?? { is: clashing.size ? 'asks' : waiting() ? 'waiting' : 'kept' });
  const tellClashes = () => around.clashes([...clashing.values()]);

  /** Takes in what the server told. `sent` are the parts as they were sent, and the order they were in. */
  function take(told: Told, sent: Map<string, string>, asked: ReadonlySet<string>, put: string[]): void {
    for (const { id, revision: r } of told.kept ?? []) base.set(id, { revision: r, json: sent.get(id)! });
    for (const clash of told.clashes ?? []) clashing.set(clash.id, clash);
    const others = new Set(told.parts.map(({ id }) => id));
    for (const id of asked) if (!others.has(id)) base.delete(id);
    const now = new Map(around.read().map(({ id, json }) => [id, json]));
    const clean = (id: string) => base.get(id)?.json === now.get(id);
    const taken = told.parts.filter(({ id }) => (asked.has(id) ? !now.has(id) : clean(id)));
    const gone = new Set(told.gone.filter((id) => clean(id)));
    for (const id of gone) base.delete(id);
    const ids = [...now.keys()];
    const same = ids.length === put.length && ids.every((id, i) => id === put[i]);
    const coming = new Map(taken.map(({ id, content }) => [id, content]));
    // What was put in another order here meanwhile stays so.
    const wanted = told.order && mergedOrder(told.order, same ? [] : ids, gone);
    const target = (wanted ?? ids).filter((id) => (now.has(id) || coming.has(id)) && !gone.has(id));
    const placed = new Set(target);
    for (const id of ids) if (!placed.has(id) && !gone.has(id)) target.push(id);
    if (coming.size || gone.size || target.some((id, i) => id !== ids[i])) {
      around.apply(target.map((id) => ({ id, ...(coming.has(id) ? { content: coming.get(id)! } : {}) })));
      const applied = new Map(around.read().map(({ id, json }) => [id, json]));
      for (const { id, revision: r } of taken) base.set(id, { revision: r, json: applied.get(id) ?? '' });
    }
    revision = told.revision;
    if (told.order) order = told.order;
    else if (sent.size || put.length) order = put;
    tellClashes();
  }

  async function send(): Promise<void> {
    const { puts: all, gone: left, order: ids, ordered } = unsent();
    const puts = all.filter(({ id }) => !clashing.has(id));
    const gone = left.filter(({ id }) => !clashing.has(id));
    if (!puts.length && !gone.length && !ordered) return;
    const sent = new Map(around.read().map(({ id, json }) => [id, json]));
    const answer = await around.save({ since: revision, puts, gone, ...(ordered ? { order: ids } : {}) });
    take(answer, sent, new Set(gone.map(({ id }) => id)), ids);
  }

  /** One thing after the other; what cannot be done now is done again later, and nothing is lost for it. */
  function inTurn(work: () => Promise<void>): Promise<void> {
    const before = busy ?? Promise.resolve();
    const mine = before.then(async () => {
      try {
        await work();
        failed = undefined;
      } catch (error) {
        failed = around.away(error) ? { is: 'away' } : { is: 'refused', why: (error as Error).message };
      }
      keepHere();
      tellState();
    });
    busy = mine;
    return mine;
  }
  /** Keeps in the browser what is not on the server. */
  function keepHere(): void {
    const { puts, gone, order: ids } = unsent();
    around.store(waiting() ? { puts, gone, order: ids } : undefined);
  }

  return {
    /** Begins with what the server has, and what was written here before and did not get there. */
    open(told: Told, left: Unsent | undefined): void {
      around.apply(told.parts.map(({ id, content }) => ({ id, content })));
      const there = new Map(around.read().map(({ id, json }) => [id, json]));
      for (const { id, revision: r } of told.parts) base.set(id, { revision: r, json: there.get(id) ?? '' });
      revision = told.revision;
      order = told.parts.map(({ id }) => id);
      if (!left) return tellState();
      const puts = new Map(left.puts.map((p) => [p.id, p]));
      const gone = new Set(left.gone.filter((g) => base.get(g.id)?.revision === g.base).map(({ id }) => id));
      const ids = mergedOrder(order, left.order, gone).filter((id) => there.has(id) || puts.has(id));
      around.apply(ids.map((id) => ({ id, ...(puts.has(id) ? { content: puts.get(id)!.content } : {}) })));
      // What it was based on is what the server is asked by.
      for (const [id, put] of puts) {
        const known = base.get(id);
        if (known) base.set(id, { revision: put.base, json: known.revision === put.base ? known.json : '' });
      }
      tellState();
    },
    keepHere,
    /** Sends what is not on the server. */
    flush: (): Promise<void> => inTurn(send),
    /** Takes in what others did. */
    pull: (): Promise<void> =>
      inTurn(async () => {
        const ids = around.read().map(({ id }) => id);
        const told = await around.pull(revision);
        const known = unsent().ordered ? order : ids;
        take(told, new Map(), new Set(), known);
      }),
    /** A person decided about a part that was changed here and elsewhere. */
    decide(id: string, how: 'mine' | 'theirs' | 'both'): Promise<void> {
      const clash = clashing.get(id);
      if (!clash) return Promise.resolve();
      clashing.delete(id);
      const now = around.read().map((w) => w.id);
      if (how === 'theirs') {
        around.apply(
          clash.theirs
            ? now.map((n) => (n === id ? { id: n, content: clash.theirs! } : { id: n }))
            : now.filter((n) => n !== id).map((n) => ({ id: n })),
        );
        const json = around.read().find((w) => w.id === id)?.json;
        if (json === undefined) base.delete(id);
        else base.set(id, { revision: clash.revision, json });
      } else {
        if (how === 'both' && clash.theirs) {
          const theirs = { id: around.newId(), content: clash.theirs };
          around.apply(now.flatMap((n) => (n === id ? [{ id: n }, theirs] : [{ id: n }])));
        }
        base.set(id, { revision: clash.revision, json: '' });
      }
      tellClashes();
      return inTurn(send);
    },
    /** Whether something is not on the server yet. */
    waiting,
  };
}
