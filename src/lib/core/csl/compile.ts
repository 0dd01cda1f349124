import { testsOf, type Test } from './conditions';
import { dressOf, elements, type Compiling } from './elements';
import { namesPart } from './naming';
import { isEmpty, joined, piece, type Node } from './pieces';
import type { Part, Scope } from './scope';
import type { Tree } from './tree';
import { datePartElement, labelPart, numberPart, textPart } from './variables';

function groupPart(tree: Tree, around: Compiling): Part {
  const c = { ...around, alternatives: false };
  const parts = elements(tree).map((k) => compile(k, c));
  const { delimiter } = tree.attrs;
  const dress = dressOf(tree.attrs, c.locale);
  return (scope) => {
    const nodes = asOne(parts, scope);
    return nodes === NOTHING ? undefined : dress(joined(nodes, delimiter), scope);
  };
}

/** What parts give that print nothing, as most parts of a style do of most works. It is not to be changed. */
const NOTHING: Node[] = [];

/**
 * Parts that print together or not at all: nothing when they ask for variables and all of those are empty. What prints
 * counts as a variable that is not empty to what is around. CSL 1.0.2, "Group".
 */
function asOne(parts: Part[], scope: Scope): Node[] {
  const { called, found } = scope;
  scope.called = false;
  scope.found = false;
  const nodes = printAll(parts, scope);
  const nothing = nodes === NOTHING || (scope.called && !scope.found);
  scope.called = called || scope.called || !nothing;
  // Names that a citation leaves out print nothing, and are there all the same.
  scope.found ||= found || !nothing;
  return nothing ? NOTHING : nodes;
}

/** The first part that prints, and no other. */
function firstOf(parts: Part[], scope: Scope): Node[] {
  for (const part of parts) {
    const node = part(scope);
    if (node !== undefined && !isEmpty(node)) return [node];
  }
  return NOTHING;
}

function printAll(parts: Part[], scope: Scope): Node[] {
  let nodes: Node[] | undefined;
  for (let i = 0; i < parts.length; i++) {
    const node = parts[i]!(scope);
    if (node === undefined || isEmpty(node)) continue;
    const spliced = typeof node !== 'string' && node.spliced;
    if (nodes === undefined) nodes = spliced ? [...node.kids] : [node];
    else if (spliced) nodes.push(...node.kids);
    else nodes.push(node);
  }
  return nodes ?? NOTHING;
}

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
      const printed = c.alternatives ? firstOf(parts(), scope) : printAll(parts(), scope);
      if (printed === NOTHING) return undefined;
      const nodes = c.traced ? printed.map((node) => piece([node], { from: branch })) : printed;
      return nodes.length === 1 ? nodes[0] : { kids: nodes, spliced: true };
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
    const nodes = asOne(parts(), scope);
    return nodes === NOTHING ? undefined : nodes.length === 1 ? nodes[0] : { kids: nodes };
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
  return { parts, print: (scope) => printAll(parts, scope) };
}
