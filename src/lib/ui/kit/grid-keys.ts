/** Where one goes in a grid or list of rows, and what is done there. */
export type GridAct =
  { kind: 'move'; to: number; extends: boolean } | { kind: 'select' } | { kind: 'open' } | { kind: 'none' };

/**
 * What a key means in a grid whose rows are selected and opened, by the WAI-ARIA Authoring Practices (grid pattern,
 * https://www.w3.org/WAI/ARIA/apg/patterns/grid/): arrows, Home, End and the page keys move, with Shift they select what
 * is passed; Space selects, Enter opens, Escape selects nothing. `page` is how many rows are in view. Nothing for other
 * keys.
 */
export function gridAct(
  event: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'ctrlKey' | 'metaKey' | 'altKey'>,
  at: number,
  count: number,
  page: number,
): GridAct | undefined {
  if (count === 0 || event.altKey || event.metaKey || (event.ctrlKey && !['Home', 'End'].includes(event.key)))
    return undefined;
  const last = count - 1;
  const to: Record<string, number> = {
    ArrowDown: at + 1,
    ArrowUp: at - 1,
    PageDown: at + Math.max(1, page),
    PageUp: at - Math.max(1, page),
    Home: 0,
    End: last,
  };
  if (Object.hasOwn(to, event.key))
    return {
      kind: 'move',
      to: Math.min(last, Math.max(0, to[event.key]!)),
      extends: event.shiftKey,
    };
  if (event.key === ' ') return { kind: 'select' };
  if (event.key === 'Enter') return { kind: 'open' };
  if (event.key === 'Escape') return { kind: 'none' };
  return undefined;
}
