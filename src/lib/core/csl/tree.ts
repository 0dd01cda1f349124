/** A node of a CSL style or locale, in the form the processor takes in place of XML. */
export interface Tree {
  name: string;
  attrs: Record<string, string>;
  children: (Tree | string)[];
}

/** The compact form the catalogue ships: name, attributes, children. */
export interface CompactTree {
  n: string;
  a?: Record<string, string>;
  c?: (CompactTree | string)[];
}

/** Opens a compact tree. A term without content gets an empty string, which the processor needs. */
export function openTree(compact: CompactTree): Tree {
  const children = (compact.c ?? []).map((c) => (typeof c === 'string' ? c : openTree(c)));
  return {
    name: compact.n,
    attrs: compact.a ?? {},
    children: compact.n === 'term' && children.length === 0 ? [''] : children,
  };
}

/** The first descendants with a name, in document order. */
export function nodesNamed(tree: Tree, name: string): Tree[] {
  return tree.children.flatMap((c) =>
    typeof c === 'string' ? [] : c.name === name ? [c] : nodesNamed(c, name),
  );
}
