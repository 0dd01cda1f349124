/** What stands in a section: a source, a passage, or a sentence or a question of one's own. */
export type ItemKind = 'source' | 'passage' | 'sentence' | 'question';

/** Something in a section. `ref` is the id of the source or the passage, or an id of its own; it stands in a section once. */
export interface Item {
  sectionId: string;
  ref: string;
  kind: ItemKind;
  /** One’s own words, of a sentence or a question. */
  words?: string | undefined;
}

/** Which item is meant: a source can stand in several sections. */
export type ItemKey = Pick<Item, 'sectionId' | 'ref'>;

/** What is done to the items of an outline. `before` is the `ref` of one in the section; null puts what comes last. */
export type ItemChange =
  /** Items that are there are put elsewhere, or in another section; what stands there already moves to that place. */
  | { act: 'move'; items: ItemKey[]; sectionId: string; before: string | null }
  /** Others come in. Those that stand in the section already stay where they are. */
  | { act: 'put'; items: Omit<Item, 'sectionId'>[]; sectionId: string; before: string | null }
  | { act: 'take out'; items: ItemKey[] }
  /** One’s own words are others now; `was` is what they were when one began. */
  | { act: 'write'; item: ItemKey; kind: 'sentence' | 'question'; words: string; was: string }
  /** Takes changes back: items stand again behind the one they stood behind, others are gone. */
  | { act: 'restore'; put: Restored[]; out: ItemKey[] };

/** An item as it was: behind which other it stood, null for the first; `was` are the words it has until it is restored. */
export interface Restored extends Item {
  after: string | null;
  was?: string | undefined;
}

/** Why a change cannot be made. */
export class OutlineError extends Error {
  constructor(
    readonly code: 'not-there' | 'changed-meanwhile' | 'not-own',
    message: string,
  ) {
    super(message);
  }
}

export const keyOf = ({ sectionId, ref }: ItemKey): string => `${sectionId} ${ref}`;
export const isOwn = (kind: ItemKind): kind is 'sentence' | 'question' =>
  kind === 'sentence' || kind === 'question';

/** Items as they stand: those of each section in their order. */
type Standing = Map<string, Item[]>;

function standing(items: readonly Item[]): Standing {
  const found: Standing = new Map();
  for (const item of items) {
    const there = found.get(item.sectionId);
    if (there) there.push(item);
    else found.set(item.sectionId, [item]);
  }
  return found;
}

function taken(now: Standing, { sectionId, ref }: ItemKey): Item | undefined {
  const there = now.get(sectionId) ?? [];
  const at = there.findIndex((item) => item.ref === ref);
  return at === -1 ? undefined : there.splice(at, 1)[0];
}

function insert(now: Standing, sectionId: string, items: Item[], before: string | null): void {
  const there = now.get(sectionId) ?? [];
  now.set(sectionId, there);
  const at = before === null ? there.length : there.findIndex((item) => item.ref === before);
  if (at === -1)
    throw new OutlineError('not-there', 'What it was to stand before is not in this section any more.');
  there.splice(at, 0, ...items);
}

function found(now: Standing, key: ItemKey): Item {
  const item = now.get(key.sectionId)?.find((i) => i.ref === key.ref);
  if (!item) throw new OutlineError('not-there', 'It is not in this section any more.');
  return item;
}

/** Makes one change. Gives which items it touched, by their keys. */
function made(now: Standing, change: ItemChange): string[] {
  switch (change.act) {
    case 'move': {
      const { sectionId } = change;
      const keys = new Map(change.items.map((key) => [keyOf(key), key]));
      const moving = [...keys.values()].map((key) => found(now, key));
      // What they are put before may be one of them: then before the next that stays.
      const beside = now.get(sectionId) ?? [];
      const from = change.before === null ? -1 : beside.findIndex((item) => item.ref === change.before);
      const refs = new Set(moving.map((item) => item.ref));
      const before =
        from === -1 ? change.before : (beside.slice(from).find((item) => !refs.has(item.ref))?.ref ?? null);
      const touched = moving.map(keyOf);
      for (const item of moving) taken(now, item);
      const coming = [...refs].map((ref): Item => ({
        ...moving.find((item) => item.ref === ref)!,
        sectionId,
      }));
      for (const item of coming) taken(now, item);
      insert(now, sectionId, coming, before);
      return [...touched, ...coming.map(keyOf)];
    }
    case 'put': {
      const { sectionId } = change;
      const there = new Set((now.get(sectionId) ?? []).map((item) => item.ref));
      const coming = change.items.filter(({ ref }) => !there.has(ref) && there.add(ref));
      insert(
        now,
        sectionId,
        coming.map((item) => ({ ...item, sectionId })),
        change.before,
      );
      return coming.map(({ ref }) => keyOf({ sectionId, ref }));
    }
    case 'take out': {
      for (const key of change.items) found(now, key);
      for (const key of change.items) taken(now, key);
      return change.items.map(keyOf);
    }
    case 'write': {
      const item = found(now, change.item);
      if (!isOwn(item.kind))
        throw new OutlineError('not-own', 'Only one’s own sentences and questions can be written here.');
      if (item.words !== change.was)
        throw new OutlineError('changed-meanwhile', 'Somebody wrote here meanwhile.');
      const there = now.get(item.sectionId)!;
      there[there.indexOf(item)] = { ...item, kind: change.kind, words: change.words };
      return [keyOf(item)];
    }
    case 'restore': {
      const present = new Map<string, Item>();
      for (const key of [...change.out, ...change.put]) {
        const item = now.get(key.sectionId)?.find((i) => i.ref === key.ref);
        if (item) present.set(item.ref, item);
      }
      for (const { ref, was } of change.put)
        if (was !== undefined && present.has(ref) && present.get(ref)!.words !== was)
          throw new OutlineError('changed-meanwhile', 'Somebody wrote here meanwhile.');
      for (const key of [...change.out, ...change.put]) taken(now, key);
      for (const { after, was, ...before } of change.put) {
        const item: Item = { ...before };
        // What was written since stays, unless it is the writing that is taken back.
        const words = was === undefined ? present.get(item.ref)?.words : undefined;
        if (words !== undefined) item.words = words;
        const there = now.get(item.sectionId) ?? [];
        now.set(item.sectionId, there);
        const at = after === null ? 0 : there.findIndex((i) => i.ref === after) + 1;
        // What it stood behind is gone: it comes last.
        there.splice(after !== null && at === 0 ? there.length : at, 0, item);
      }
      return [...change.out, ...change.put].map(keyOf);
    }
  }
}

/**
 * Makes changes one after the other, all or none. Gives the items as they stand then, those of a section in their order, and
 * the change that takes them back, which touches only what they did. Throws an OutlineError when one cannot be made.
 */
export function changed(
  items: readonly Item[],
  changes: readonly ItemChange[],
): { items: Item[]; back: ItemChange & { act: 'restore' } } {
  const now = standing(items);
  const touched = new Set(changes.flatMap((change) => made(now, change)));
  const after = [...now.values()].flat();
  const there = new Map(after.map((item) => [keyOf(item), item]));
  /** Words as they are now, wherever what was changed went. */
  const words = new Map(after.flatMap((item) => (touched.has(keyOf(item)) ? [[item.ref, item.words]] : [])));
  const put: Restored[] = [];
  let before: Item | undefined;
  const known = new Set<string>();
  for (const item of [...standing(items).values()].flat()) {
    const key = keyOf(item);
    known.add(key);
    if (touched.has(key)) {
      const was = words.get(item.ref);
      put.push({
        ...item,
        after: before?.sectionId === item.sectionId ? before.ref : null,
        ...(was !== undefined && was !== item.words ? { was } : {}),
      });
    }
    before = item;
  }
  const out = [...touched]
    .filter((key) => !known.has(key))
    .flatMap((key) => there.get(key) ?? [])
    .map(({ sectionId, ref }) => ({ sectionId, ref }));
  return { items: after, back: { act: 'restore', put, out } };
}

/**
 * Own words cut in two where the caret stands, as changes: what stands before it stays, the rest is a sentence of its own
 * behind it. `before` is what stands behind it now.
 */
export const splitWords = (
  item: Item & { words: string },
  at: number,
  ref: string,
  before: string | null,
): ItemChange[] => [
  {
    act: 'write',
    item: { sectionId: item.sectionId, ref: item.ref },
    kind: item.kind === 'question' ? 'question' : 'sentence',
    words: item.words.slice(0, at).trimEnd(),
    was: item.words,
  },
  {
    act: 'put',
    items: [{ ref, kind: item.kind, words: item.words.slice(at).trimStart() }],
    sectionId: item.sectionId,
    before,
  },
];

/** Own words joined to those before them, as changes; nothing where what stands before is not one’s own. */
export function joinedWords(before: Item | undefined, item: Item): ItemChange[] | undefined {
  if (!before || !isOwn(before.kind) || !isOwn(item.kind) || before.sectionId !== item.sectionId)
    return undefined;
  const words = [before.words, item.words].filter(Boolean).join(' ');
  const { sectionId } = item;
  return [
    { act: 'write', item: { sectionId, ref: before.ref }, kind: before.kind, words, was: before.words ?? '' },
    { act: 'take out', items: [{ sectionId, ref: item.ref }] },
  ];
}
