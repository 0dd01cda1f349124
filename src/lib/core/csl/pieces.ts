import type { NameValue } from './item';
import type { Tree } from './tree';

/**
 * What a style prints before it is put into words: a tree of pieces. A piece is a look, a mark or a pair of quotation
 * marks around what it holds; the leaves are text. Affixes and delimiters are leaves like others.
 */

/** How text looks; CSL 1.0.2, "Formatting". `undefined` takes after what is around. */
export interface Look {
  style?: 'normal' | 'italic' | 'oblique';
  variant?: 'normal' | 'small-caps';
  weight?: 'normal' | 'bold' | 'light';
  decoration?: 'none' | 'underline';
  align?: 'baseline' | 'sup' | 'sub';
}

/** Where a part of an entry stands; CSL 1.0.2, "Display". */
export type Display = 'block' | 'left-margin' | 'right-inline' | 'indent';

/** What a piece is, where what comes after has to find it. */
export type Kind =
  'names' | 'list' | 'name' | 'year' | 'suffix' | 'number' | 'locator' | 'label' | 'cite' | 'term' | 'words';

export interface Piece {
  kids: Node[];
  look?: Look;
  /** The look is one of a field’s own marks: inside the same look it turns it off. CSL 1.0.2, appendix "Rich text". */
  flips?: boolean;
  quoted?: boolean;
  display?: Display;
  /** The quotation mark it was typed with, where that is not one of every language. */
  typed?: [open: string, close: string];
  /** The variable it was printed from. */
  field?: string;
  kind?: Kind;
  /** Of a name, whose it is. */
  who?: NameValue;
  /** Letters keep their case. */
  nocase?: boolean;
  /** Its text is the work’s or the style’s own words: a mark it begins with stays. */
  own?: boolean;
  /** One text, whose marks and quotation marks stand as they were written. */
  unit?: boolean;
  /** The element of the style that printed it, or the branch that was taken; only where the style was compiled for being traced. */
  from?: Tree;
  /** What is in it stands directly in what it is in, so that its delimiter comes between. */
  spliced?: boolean;
}

export type Node = string | Piece;

export const piece = (kids: Node[], rest: Omit<Piece, 'kids'> = {}): Piece => ({ kids, ...rest });

/** Whether there is no text in it. */
export function isEmpty(node: Node | undefined): boolean {
  if (node === undefined) return true;
  if (typeof node === 'string') return node === '';
  for (let i = 0; i < node.kids.length; i++) if (!isEmpty(node.kids[i])) return false;
  return true;
}

/** Nodes with a delimiter between those that print. */
export function joined(nodes: Node[], delimiter: string | undefined): Node[] {
  if (!delimiter || nodes.length < 2) return nodes;
  const out: Node[] = [];
  for (let i = 0; i < nodes.length; i++) {
    if (i > 0) out.push(delimiter);
    out.push(nodes[i]!);
  }
  return out;
}

/** A node between a prefix and a suffix. */
export function affixed(node: Node, prefix: string | undefined, suffix: string | undefined): Node {
  if (!prefix && !suffix) return node;
  const kids: Node[] = [];
  if (prefix) kids.push(prefix);
  kids.push(node);
  if (suffix) kids.push(suffix);
  return { kids };
}

/** The letters of a node, without any look. */
export function textOf(node: Node | undefined): string {
  if (node === undefined) return '';
  if (typeof node === 'string') return node;
  let text = '';
  for (let i = 0; i < node.kids.length; i++) text += textOf(node.kids[i]);
  return text;
}

/** The first piece of a kind, in the order it prints. */
export function findKind(node: Node | undefined, kind: Kind): Piece | undefined {
  if (node === undefined || typeof node === 'string') return undefined;
  if (node.kind === kind) return node;
  for (let i = 0; i < node.kids.length; i++) {
    const found = findKind(node.kids[i], kind);
    if (found) return found;
  }
  return undefined;
}

/** A copy in which the pieces for which `change` answers are replaced; what is replaced is not gone into. */
export function replaced(node: Node, change: (piece: Piece) => Node | undefined): Node {
  if (typeof node === 'string') return node;
  const other = change(node);
  if (other !== undefined) return other;
  let same = true;
  const kids = node.kids.map((kid) => {
    const next = replaced(kid, change);
    if (next !== kid) same = false;
    return next;
  });
  return same ? node : { ...node, kids };
}

/** Nodes with another number of the work; nothing where it stands in them as another word than itself. */
function renumbered(nodes: Node[], from: number, to: number): Node[] | undefined {
  const [was, is] = [String(from), String(to)];
  let holding = numbersIn.get(nodes);
  if (!holding) {
    const found = nodes.flatMap((node, i) => (findKind(node, 'number') ? [i] : []));
    numbersIn.set(nodes, (holding = found));
  }
  if (holding.length === 0) return undefined;
  let plain = true;
  const next = [...nodes];
  for (const i of holding)
    next[i] = replaced(nodes[i]!, (p) => {
      if (p.kind !== 'number') return undefined;
      plain &&= textOf(p) === was;
      return { ...p, kids: [is] };
    });
  numbersIn.set(next, holding);
  return plain ? next : undefined;
}

/** What was printed with one number of a work, with another; nothing where it has to be printed anew. */
export const numbered = (
  kept: { number: number; nodes: Node[] } | undefined,
  number: number,
): Node[] | undefined =>
  kept?.number === number ? kept.nodes : kept && renumbered(kept.nodes, kept.number, number);

/** Of nodes that were numbered anew, which hold a number. */
const numbersIn = new WeakMap<Node[], number[]>();
