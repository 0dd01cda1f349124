/**
 * The order of the parts of a draft after a window put its own: what that window did not know of stays behind what it stood
 * behind, and what is gone goes. `there` is the order there is, `put` that of the window. Nothing living is lost.
 */
export function mergedOrder(
  there: readonly string[],
  put: readonly string[],
  gone: ReadonlySet<string>,
): string[] {
  const known = new Set(put);
  /** What comes behind each, by what it stood behind; at the top by nothing. */
  const behind = new Map<string, string[]>();
  let before = '';
  for (const id of there) {
    if (known.has(id)) before = id;
    else if (!gone.has(id)) {
      const row = behind.get(before);
      if (row) row.push(id);
      else behind.set(before, [id]);
    }
  }
  const order = [...(behind.get('') ?? [])];
  for (const id of new Set(put)) {
    if (!gone.has(id)) order.push(id);
    order.push(...(behind.get(id) ?? []));
  }
  return order;
}
