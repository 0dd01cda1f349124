import { isDateVariable, isNameVariable, isTextVariable, type CslType, type Variable } from '../source';
import { nodesNamed, type Tree } from './tree';

type Verdict = 'yes' | 'no' | 'perhaps';

/** Conditions beside `type` that depend on a record's values or on where a citation stands. CSL 1.0.2, "Choose". */
const OPEN = ['variable', 'is-numeric', 'is-uncertain-date', 'disambiguate', 'locator', 'position'];

function verdict(node: Tree, type: CslType): Verdict {
  const { match = 'all' } = node.attrs;
  const tests: Verdict[] = [];
  const given = node.attrs.type?.split(/\s+/).filter(Boolean) ?? [];
  for (const t of given) tests.push(t === type ? 'yes' : 'no');
  if (OPEN.some((name) => node.attrs[name] !== undefined)) tests.push('perhaps');
  if (tests.length === 0) return 'perhaps';
  const turned =
    match === 'none'
      ? tests.map((t): Verdict => (t === 'yes' ? 'no' : t === 'no' ? 'yes' : 'perhaps'))
      : tests;
  if (match === 'any') return turned.includes('yes') ? 'yes' : turned.includes('perhaps') ? 'perhaps' : 'no';
  return turned.includes('no') ? 'no' : turned.includes('perhaps') ? 'perhaps' : 'yes';
}

/**
 * The variables a style can print of a type of work, in the order it prints them: those its bibliography (or, when it
 * has none, its citation) reaches for that type, whatever the record holds. Conditions on the type are decided; all
 * others count as met and as not met. Source: CSL 1.0.2 specification, "Rendering Elements" and "Choose".
 */
export function asksFor(style: Tree, type: CslType): Variable[] {
  const macros = new Map(nodesNamed(style, 'macro').map((m) => [m.attrs.name ?? '', m]));
  const found = new Set<Variable>();
  const add = (names: string | undefined) => {
    for (const name of names?.split(/\s+/) ?? []) {
      const long = name
        .replace(/^title-short$/, 'title')
        .replace(/^container-title-short$/, 'container-title');
      if (isNameVariable(long) || isDateVariable(long) || isTextVariable(long)) found.add(long);
    }
  };
  const open = new Set<string>();
  const walk = (node: Tree): void => {
    if (node.name === 'choose') {
      for (const branch of node.children) {
        if (typeof branch === 'string') continue;
        const met = branch.name === 'else' ? 'yes' : verdict(branch, type);
        if (met !== 'no') branch.children.forEach((c) => typeof c !== 'string' && walk(c));
        if (met === 'yes') break;
      }
      return;
    }
    if (node.name === 'text' && node.attrs.macro) {
      const macro = macros.get(node.attrs.macro);
      if (macro && !open.has(node.attrs.macro)) {
        open.add(node.attrs.macro);
        macro.children.forEach((c) => typeof c !== 'string' && walk(c));
        open.delete(node.attrs.macro);
      }
      return;
    }
    if (['text', 'number', 'date', 'names'].includes(node.name)) add(node.attrs.variable);
    node.children.forEach((c) => typeof c !== 'string' && walk(c));
  };
  const [printed] = [...nodesNamed(style, 'bibliography'), ...nodesNamed(style, 'citation')];
  for (const layout of printed ? nodesNamed(printed, 'layout') : []) walk(layout);
  return [...found];
}
