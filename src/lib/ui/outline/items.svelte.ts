import { joinedWords, splitWords, type Item, type ItemChange, type ItemKey } from '$lib/core/outline';
import type { OutlineItem } from '$lib/server/projects';
import { change } from '../frame/toasts.svelte';

interface Made {
  made: string[];
  back?: unknown;
}
const counted = (n: number, what: string) => (n === 1 ? `One ${what}` : `${n.toLocaleString('en')} ${what}s`);

/** What is done to what stands in the sections of a project; all of it can be taken back. */
export function itemsOf(projectId: () => string) {
  const make = (changes: ItemChange[], said: string) =>
    change<Made>(`/api/projects/${projectId()}/outline`, { changes }, said);
  return {
    move: (items: ItemKey[], to: { sectionId: string; before: string | null }) =>
      make(
        [{ act: 'move', items: items.map(({ sectionId, ref }) => ({ sectionId, ref })), ...to }],
        items.length === 1 ? 'Moved.' : `${counted(items.length, 'item')} moved.`,
      ),
    put: (
      items: Pick<Item, 'ref' | 'kind'>[],
      to: { sectionId: string; before: string | null },
      name: string,
    ) =>
      make(
        [{ act: 'put', items: items.map(({ ref, kind }) => ({ ref, kind })), ...to }],
        `${counted(items.length, items[0]?.kind ?? 'item')} put in ${name}.`,
      ),
    takeOut: (items: ItemKey[]) =>
      make(
        [{ act: 'take out', items: items.map(({ sectionId, ref }) => ({ sectionId, ref })) }],
        items.length === 1 ? 'Taken out of the section.' : `${counted(items.length, 'item')} taken out.`,
      ),
    /** A sentence of one’s own; gives its id. */
    async begin(words: string, to: { sectionId: string; before: string | null }) {
      const made = await make(
        [{ act: 'put', items: [{ ref: 'new', kind: 'sentence', words }], ...to }],
        'A sentence of your own.',
      );
      return made?.made[0];
    },
    write: (item: OutlineItem, words: string, kind: 'sentence' | 'question') =>
      make(
        [
          {
            act: 'write',
            item: { sectionId: item.sectionId, ref: item.ref },
            kind,
            words,
            was: item.words ?? '',
          },
        ],
        words === item.words ? (kind === 'question' ? 'It is a question.' : 'It is a sentence.') : 'Kept.',
      ),
    /** Cuts words in two; gives the id of the second half. `before` is what stands behind it. */
    async split(item: OutlineItem, words: string, at: number, before: string | null) {
      const kept: ItemChange[] =
        words === item.words
          ? []
          : [{ act: 'write', item: { sectionId: item.sectionId, ref: item.ref }, kind: item.kind as 'sentence', words, was: item.words ?? '' }]; // prettier-ignore
      const now = { sectionId: item.sectionId, ref: item.ref, kind: item.kind, words };
      const made = await make([...kept, ...splitWords(now, at, 'new', before)], 'Cut in two.');
      return made?.made[0];
    },
    /** Joins words to those before them; nothing where what stands before is no sentence or question. */
    join(item: OutlineItem, items: readonly OutlineItem[]) {
      const here = items.filter((i) => i.sectionId === item.sectionId);
      const changes = joinedWords(here[here.findIndex((i) => i.ref === item.ref) - 1], item);
      return changes && make(changes, 'Joined.');
    },
  };
}
