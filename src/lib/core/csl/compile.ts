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
    return nodes.length === 0 ? undefined : dress(joined(nodes, delimiter), scope);
  };
}

/**
 * Parts that print together or not at all: nothing when they ask for variables and all of those are empty. What prints
 * counts as a variable that is not empty to what is around. CSL 1.0.2, "Group".
 */
function asOne(parts: Part[], scope: Scope): Node[] {
  const { called, found } = scope;
  scope.called = false;
  scope.found = false;
  const nodes = printAll(parts, scope);
  const nothing = nodes.length === 0 || (scope.called && !scope.found);
  scope.called = called || scope.called || !nothing;
  // Names that a citation leaves out print nothing, and are there all the same.
  scope.found ||= found || !nothing;
  return nothing ? [] : nodes;
}

/** The first part that prints, and no other. */
function firstOf(parts: Part[], scope: Scope): Node[] {
  for (const part of parts) {
    const node = part(scope);
    if (node !== undefined && !isEmpty(node)) return [node];
  }
  return [];
}

function printAll(parts: Part[], scope: Scope): Node[] {
  const nodes: Node[] = [];
  for (const part of parts) {
    const node = part(scope);
    if (node === undefined || isEmpty(node)) continue;
    if (typeof node !== 'string' && node.spliced) nodes.push(...node.kids);
    else nodes.push(node);
  }
  return nodes;
}

/** Parts that are compiled when they are first asked for: of what a style says of all kinds of works, a list needs a part. */
function whenAsked(trees: Tree[], c: Compiling): () => Part[] {
  let made: Part[] | undefined;
  return () => (made ??= trees.map((tree) => compile(tree, c)));
}

function choosePart(tree: Tree, c: Compiling): Part {
  const branches = elements(tree).map((branch) => {
    const tests = branch.name === 'else' ? [] : testsOf(branch.attrs);
    const { match = 'all' } = branch.attrs;
    const met: Test =
      branch.name === 'else'
        ? () => true
        : match === 'any'
          ? (s) => tests.some((t) => t(s))
          : match === 'none'
            ? (s) => !tests.some((t) => t(s))
            : (s) => tests.length > 0 && tests.every((t) => t(s));
    return { met, parts: whenAsked(elements(branch), c), branch };
  });
  return (scope) => {
    for (const { met, parts, branch } of branches) {
      if (!met(scope)) continue;
      const printed = c.alternatives ? firstOf(parts(), scope) : printAll(parts(), scope);
      const nodes = c.traced ? printed.map((node) => piece([node], { from: branch })) : printed;
      return nodes.length === 0 ? undefined : nodes.length === 1 ? nodes[0] : piece(nodes, { spliced: true });
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
    return nodes.length === 0 ? undefined : nodes.length === 1 ? nodes[0] : piece(nodes);
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
