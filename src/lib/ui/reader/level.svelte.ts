import { tick } from 'svelte';

const GAP = 10;
/** The height of a card that is not on the page yet. */
const USUAL = 70;

/**
 * Sets cards in the margin level with the first line of what they stand for, each below the one before it where they
 * would overlap, and says where the sheet of the one that is open stands. `marks` gives the marks of a card in the text.
 */
export function level(marks: (id: string) => Element[]) {
  let tops = $state<Record<string, number>>({});
  let sheetTop = $state(0);
  const cards: Record<string, HTMLElement | undefined> = {};
  /** The card whose sheet was last brought into view. */
  let shown: string | undefined;
  let last: { ids: string[]; open: string | undefined } = { ids: [], open: undefined };

  const topOf = (id: string): number | undefined => marks(id)[0]?.getBoundingClientRect().top;

  function lay(ids: string[], open: string | undefined) {
    last = { ids, open };
    let free = 12;
    const next: Record<string, number> = {};
    const order = ids.map((id) => ({ id, top: topOf(id) ?? 0 })).sort((a, b) => a.top - b.top);
    for (const { id, top } of order) {
      next[id] = Math.max(top - 4, free);
      free = next[id] + (cards[id]?.offsetHeight ?? USUAL) + GAP;
    }
    tops = next;
    if (open === undefined) {
      shown = undefined;
      return;
    }
    const ends = marks(open).map((m) => m.getBoundingClientRect().bottom);
    sheetTop = (ends.length ? Math.max(...ends) : (next[open] ?? 0) + 40) + 12;
    if (shown === open) return;
    shown = open;
    void tick().then(() => document.querySelector('.place')?.scrollIntoView({ block: 'nearest' }));
  }
  const again = () => lay(last.ids, last.open);

  return {
    get tops() {
      return tops;
    },
    get sheetTop() {
      return sheetTop;
    },
    topOf,
    lay,
    /** The same, where something grew or shrank. */
    again,
    /** A card of the margin: all are set anew when it grows or shrinks. */
    card(node: HTMLElement, id: string) {
      cards[id] = node;
      const watch = new ResizeObserver(again);
      watch.observe(node);
      return {
        destroy() {
          watch.disconnect();
          if (cards[id] === node) delete cards[id];
        },
      };
    },
  };
}
export type Level = ReturnType<typeof level>;
