import { testsOf, type Test } from './conditions';
import { dressOf, elements, type Compiling } from './elements';
import { namesPart } from './naming';
import { isEmpty, joined, piece, type Node, type Piece } from './pieces';
import type { Part, Scope } from './scope';
import type { Tree } from './tree';
import { datePartElement, labelPart, numberPart, textPart } from './variables';

function groupPart(tree: Tree, around: Compiling): Part {
  const c = { ...around, alternatives: false };
  const parts = elements(tree).map((k) => compile(k, c));
  const { delimiter } = tree.attrs;
  const dress = dressOf(tree.attrs, c.locale);
  return (scope) => {
    const node = asOne(parts, scope);
    return node === undefined ? undefined : dress(joined(apart(node), delimiter), scope);
  };
}

/**
 * Parts that print together or not at all: nothing when they ask for variables and all of those are empty. What prints
 * counts as a variable that is not empty to what is around. CSL 1.0.2, "Group".
 */
function asOne(parts: Part[], scope: Scope): Node | undefined {
  const { called, found } = scope;
  scope.called = false;
  scope.found = false;
  const node = printAll(parts, scope);
  const nothing = node === undefined || (scope.called && !scope.found);
  scope.called = called || scope.called || !nothing;
  // Names that a citation leaves out print nothing, and are there all the same.
  scope.found ||= found || !nothing;
  return nothing ? undefined : node;
}

/** The first part that prints, and no other. */
function firstOf(parts: Part[], scope: Scope): Node | undefined {
  for (let i = 0; i < parts.length; i++) {
    const node = parts[i]!(scope);
    if (!isEmpty(node)) return node;
  }
  return undefined;
}

/** What parts print: of several that print, their nodes spliced; nothing where none does, as most do not of most works. */
function printAll(parts: Part[], scope: Scope): Node | undefined {
  let first: Node | undefined;
  let nodes: Node[] | undefined;
  for (let i = 0; i < parts.length; i++) {
    const node = parts[i]!(scope);
    if (isEmpty(node)) continue;
    if (first === undefined) first = node;
    else {
      nodes ??= [...apart(first)];
      if (isSpliced(node!)) nodes.push(...node.kids);
      else nodes.push(node!);
    }
  }
  return nodes ? { kids: nodes, spliced: true } : first;
}

const isSpliced = (node: Node): node is Piece => typeof node !== 'string' && node.spliced === true;

/** Spliced nodes each by itself. */
const apart = (node: Node): Node[] => (isSpliced(node) ? node.kids : [node]);

/** Parts that are compiled when they are first asked for: of what a style says of all kinds of works, a list needs a part. */
function whenAsked(trees: Tree[], c: Compiling): () => Part[] {
  let made: Part[] | undefined;
  return () => (made ??= trees.map((tree) => compile(tree, c)));
}

/** Several conditions as one. CSL 1.0.2, "Choose", `match`. */
function together(tests: Test[], match: string | undefined): Test {
  const [only] = tests;
  if (tests.length === 1 && match !== 'none') return only!;
  const any = (s: Scope) => {
    for (let i = 0; i < tests.length; i++) if (tests[i]!(s)) return true;
    return false;
  };
  if (match === 'any') return any;
  if (match === 'none') return (s) => !any(s);
  return (s) => {
    for (let i = 0; i < tests.length; i++) if (!tests[i]!(s)) return false;
    return tests.length > 0;
  };
}

function choosePart(tree: Tree, c: Compiling): Part {
  const branches = elements(tree).map((branch) => {
    const tests = branch.name === 'else' ? [] : testsOf(branch.attrs);
    const met = branch.name === 'else' ? () => true : together(tests, branch.attrs.match);
    return { met, parts: whenAsked(elements(branch), c), branch };
  });
  return (scope) => {
    for (let i = 0; i < branches.length; i++) {
      const { met, parts, branch } = branches[i]!;
      if (!met(scope)) continue;
      const node = c.alternatives ? firstOf(parts(), scope) : printAll(parts(), scope);
      if (!c.traced || node === undefined) return node;
      return { kids: apart(node).map((one) => piece([one], { from: branch })), spliced: true };
    }
    return undefined;
  };
}

/** A macro as what it prints; compiled once for an area, when it first prints. */
export function macroPart(name: string, around: Compiling): Part {
  const c = { ...around, alternatives: false };
  const known = c.made.get(name);
  if (known) return known;
  const tree = c.macros.get(name);
  if (!tree) return () => undefined;
  const parts = whenAsked(elements(tree), c);
  const made: Part = (scope) => {
    const node = asOne(parts(), scope);
    return node !== undefined && isSpliced(node) ? { kids: node.kids } : node;
  };
  c.made.set(name, made);
  return made;
}

/** An element of a style as what it prints. */
export function compile(tree: Tree, c: Compiling): Part {
  const part = partOf(tree, c);
  // What a branch prints is told by the branch.
  if (!c.traced || tree.name === 'choose') return part;
  return (scope) => {
    const node = part(scope);
    return isEmpty(node) ? node : piece([node!], { from: tree });
  };
}

function partOf(tree: Tree, c: Compiling): Part {
  switch (tree.name) {
    case 'text':
      return textPart(tree, c);
    case 'number':
      return numberPart(tree, c);
    case 'label':
      return labelPart(tree, c);
    case 'date':
      return datePartElement(tree, c);
    case 'names':
      return namesPart(tree, c);
    case 'group':
      return groupPart(tree, c);
    case 'choose':
      return choosePart(tree, c);
    default:
      return () => undefined;
  }
}

/** What stands in a layout, each child by itself. */
export function compileLayout(layout: Tree, c: Compiling): { parts: Part[]; print(scope: Scope): Node[] } {
  const parts = elements(layout).map((k) => compile(k, c));
  const print = (scope: Scope): Node[] => {
    const node = printAll(parts, scope);
    return node === undefined ? [] : apart(node);
  };
  return { parts, print };
}
