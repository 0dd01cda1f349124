import { tick } from 'svelte';

const GAP = 10;
/** The height of a card that is not on the page yet. */
const USUAL = 70;

/**
 * Sets cards in the margin level with the first line of what they stand for, each below the one before it where they
 * would overlap, and says where the sheet of the one that is open stands. `topOf` gives where that line is in the document,
 * in pixels, and `bottomOf` where its last one ends.
 */
export function level(
  topOf: (id: string) => number | undefined,
  bottomOf: (id: string) => number | undefined,
) {
  let tops = $state.raw<Record<string, number>>({});
  let sheetTop = $state(0);
  const cards: Record<string, HTMLElement | undefined> = {};
  const heights: Record<string, number> = {};
  /** Height of what stands above all cards. */
  let above = 0;
  /** The card whose sheet was last brought into view. */
  let shown: string | undefined;
  let last: { ids: string[]; open: string | undefined } = { ids: [], open: undefined };

  function lay(ids: string[], open: string | undefined) {
    last = { ids, open };
    let free = 12 + above;
    const next: Record<string, number> = {};
    const order = ids.map((id) => ({ id, top: topOf(id) ?? 0 })).sort((a, b) => a.top - b.top);
    for (const { id, top } of order) {
      next[id] = Math.max(top - 4, free);
      free = next[id] + (heights[id] ?? USUAL) + GAP;
    }
    tops = next;
    if (open === undefined) {
      shown = undefined;
      return;
    }
    sheetTop = (bottomOf(open) ?? (next[open] ?? 0) + 40) + 12;
    if (shown === open) return;
    shown = open;
    void tick().then(() => document.querySelector('.place')?.scrollIntoView({ block: 'nearest' }));
  }
  const again = () => lay(last.ids, last.open);

  // One watch for all cards, so that many that grow at once set the margin once.
  const watch =
    typeof ResizeObserver === 'undefined'
      ? undefined
      : new ResizeObserver((entries) => {
          let changed = false;
          for (const { target, borderBoxSize } of entries) {
            const id = (target as HTMLElement).dataset.card ?? 'new';
            const height = borderBoxSize[0]?.blockSize ?? (target as HTMLElement).offsetHeight;
            if (heights[id] === height || cards[id] !== target) continue;
            heights[id] = height;
            changed = true;
          }
          if (changed) again();
        });

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
    /** What stands above the cards of the margin. */
    head(node: HTMLElement) {
      const tall = new ResizeObserver(() => {
        above = node.offsetHeight;
        again();
      });
      tall.observe(node);
      return { destroy: () => tall.disconnect() };
    },
    /** A card of the margin: all are set anew when it grows or shrinks. */
    card(node: HTMLElement, id: string) {
      cards[id] = node;
      watch?.observe(node);
      return {
        destroy() {
          watch?.unobserve(node);
          if (cards[id] !== node) return;
          delete cards[id];
          delete heights[id];
        },
      };
    },
  };
}
export type Level = ReturnType<typeof level>;
