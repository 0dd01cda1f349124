import { nodesNamed, type Tree } from '../csl';

/** Most nodes a style may come to when the macros it calls stand in place of each call; the largest in use have some thousands. */
const MOST_NODES = 100_000;

/**
 * What keeps a style from ever being done, in words: a macro that calls itself, by way of others or not, or macros that call
 * each other so often that the whole grows beyond measure. Nothing for a style that can be used. CSL 1.0.2, "Macro".
 */
export function entangledIn(style: Tree): string | undefined {
  const macros = new Map(nodesNamed(style, 'macro').map((m) => [m.attrs.name ?? '', m]));
  const sizes = new Map<string, number>();
  const open = new Set<string>();
  let circle: string | undefined;
  const sizeOf = (node: Tree): number => {
    let size = 1;
    const called = node.name === 'macro' ? undefined : node.attrs.macro;
    if (called !== undefined) size += sizeOfMacro(called);
    for (const child of node.children) if (typeof child !== 'string') size += sizeOf(child);
    return Math.min(size, 10 * MOST_NODES);
  };
  const sizeOfMacro = (name: string): number => {
    const known = sizes.get(name);
    if (known !== undefined) return known;
    const macro = macros.get(name);
    if (!macro) return 0;
    if (open.has(name)) {
      circle ??= name;
      return 0;
    }
    open.add(name);
    const size = sizeOf(macro);
    open.delete(name);
    sizes.set(name, size);
    return size;
  };
  let whole = 0;
  for (const name of macros.keys()) sizeOfMacro(name);
  for (const part of [...nodesNamed(style, 'citation'), ...nodesNamed(style, 'bibliography')])
    whole += sizeOf(part);
  if (circle !== undefined) return `the macro “${circle}” calls itself`;
  return whole > MOST_NODES
    ? 'its macros call each other so often that nothing could be printed in it'
    : undefined;
}
