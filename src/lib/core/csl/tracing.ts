import { child, elements } from './elements';
import type { Frame } from './leaves';
import { NAME_ATTRIBUTES } from './naming';
import { nodesNamed, type Tree } from './tree';

/** The elements and branches of a style that a stretch of text came through, the outermost first. */
export function traceOf(frame: Frame | undefined): Tree[] {
  const trace: Tree[] = [];
  for (let around = frame; around; around = around.parent)
    if (around.piece.from) trace.unshift(around.piece.from);
  return trace;
}

/** An option of names that is in force, and which element says it. */
export interface OptionInForce {
  name: string;
  value: string;
  from: 'name' | 'names' | 'citation' | 'bibliography' | 'style';
}

/**
 * The options of names that are in force for a `names` element of an area, and where each comes from: nearest first, its own
 * `name`, itself, the area, the style. CSL 1.0.2, "Inheritable Name Options".
 */
export function optionsInForce(names: Tree, area: 'citation' | 'bibliography', style: Tree): OptionInForce[] {
  const own = child(names, 'name')?.attrs ?? {};
  const around = child(style, area)?.attrs ?? {};
  return [...NAME_ATTRIBUTES, 'form', 'delimiter'].flatMap((name): OptionInForce[] => {
    const above = name === 'form' || name === 'delimiter' ? `name-${name}` : name;
    const said: [string | undefined, OptionInForce['from']][] = [
      [own[name], 'name'],
      [names.attrs[above], 'names'],
      [around[above], area],
      [style.attrs[above], 'style'],
    ];
    const first = said.find(([value]) => value !== undefined);
    return first ? [{ name, value: first[0]!, from: first[1] }] : [];
  });
}

/** Something in a style that is allowed and prints other than it was meant. */
export interface StyleRemark {
  /** The element it is about. */
  at: Tree;
  text: string;
}

/**
 * What a style that keeps to the schema can still have wrong, element by element: macros that are not there or never called,
 * terms the language and the style do not have, conditions on the same thing one of which is never reached.
 */
export function remarksOn(style: Tree, locale: Tree): StyleRemark[] {
  const remarks: StyleRemark[] = [];
  const macros = new Map(
    elements(style)
      .filter(({ name }) => name === 'macro')
      .map((macro) => [macro.attrs.name ?? '', macro]),
  );
  const termsOf = (tree: Tree) => nodesNamed(tree, 'term').map(({ attrs }) => attrs.name ?? '');
  const terms = new Set([...termsOf(locale), ...termsOf(style)]);
  const called = new Set<string>();
  const go = (tree: Tree): void => {
    const { macro, term } = tree.attrs;
    if (macro !== undefined) {
      called.add(macro);
      if (!macros.has(macro))
        remarks.push({ at: tree, text: `calls the macro “${macro}”, which is not there: nothing prints` });
    }
    if (tree.name === 'text' && term !== undefined && !terms.has(term === 'sub verbo' ? 'sub-verbo' : term))
      remarks.push({
        at: tree,
        text: `asks for the term “${term}”, which neither the language nor the style has`,
      });
    if (tree.name === 'choose') {
      const seen = new Set<string>();
      for (const branch of elements(tree)) {
        const asked = branch.name === 'else' ? '' : JSON.stringify(Object.entries(branch.attrs).sort());
        if (asked && seen.has(asked))
          remarks.push({ at: branch, text: 'asks what a branch before it asks: it is never taken' });
        seen.add(asked);
      }
    }
    elements(tree).forEach(go);
  };
  elements(style).forEach(go);
  for (const [name, macro] of macros)
    if (!called.has(name)) remarks.push({ at: macro, text: `the macro “${name}” is never called` });
  return remarks;
}

/** An element as it is written in a style, without what is in it. */
export function tagOf({ name, attrs }: Tree): string {
  const written = Object.entries(attrs).map(
    ([key, value]) =>
      ` ${key}="${value.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/"/g, '&quot;')}"`,
  );
  return `<${name}${written.join('')}>`;
}
