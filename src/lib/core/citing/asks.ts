import {
  creatorsOf,
  isDateVariable,
  isNameVariable,
  isTextVariable,
  type CslType,
  type SourceRecord,
  type Variable,
} from '../source';
import { nodesNamed, type Tree } from '../csl';

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
 * Calls `visit` with every element of a style's bibliography (or, when it has none, its citation) that can print for a type,
 * in order; `cased` says whether something around it sets the case of letters.
 */
function reach(style: Tree, type: CslType, visit: (node: Tree, cased: boolean) => void): void {
  const macros = new Map(nodesNamed(style, 'macro').map((m) => [m.attrs.name ?? '', m]));
  const open = new Set<string>();
  const walk = (node: Tree, around: boolean): void => {
    const cased = around || node.attrs['text-case'] !== undefined;
    const inside = (of: Tree) => of.children.forEach((c) => typeof c !== 'string' && walk(c, cased));
    if (node.name === 'choose') {
      for (const branch of node.children) {
        if (typeof branch === 'string') continue;
        const met = branch.name === 'else' ? 'yes' : verdict(branch, type);
        if (met !== 'no') inside(branch);
        if (met === 'yes') break;
      }
      return;
    }
    if (node.name === 'text' && node.attrs.macro) {
      const macro = macros.get(node.attrs.macro);
      if (macro && !open.has(node.attrs.macro)) {
        open.add(node.attrs.macro);
        inside(macro);
        open.delete(node.attrs.macro);
      }
      return;
    }
    visit(node, cased);
    inside(node);
  };
  const [printed] = [...nodesNamed(style, 'bibliography'), ...nodesNamed(style, 'citation')];
  for (const layout of printed ? nodesNamed(printed, 'layout') : []) walk(layout, false);
}

/**
 * Whether a style prints the title of a type as it stands in the record, without setting its capitals (CSL 1.0.2
 * specification, "Text-case").
 */
export function titleAsItStands(style: Tree, type: CslType): boolean {
  let [plain, cased] = [false, false];
  reach(style, type, (node, within) => {
    if (node.name !== 'text' || node.attrs.variable !== 'title') return;
    if (within) cased = true;
    else plain = true;
  });
  return plain && !cased;
}

/**
 * The variables a style can print of a type of work, in the order it prints them: those its bibliography (or, when it
 * has none, its citation) reaches for that type, whatever the record holds. Conditions on the type are decided; all
 * others count as met and as not met. Source: CSL 1.0.2 specification, "Rendering Elements" and "Choose".
 */
export function asksFor(style: Tree, type: CslType): Variable[] {
  const found = new Set<Variable>();
  reach(style, type, (node) => {
    if (!['text', 'number', 'date', 'names'].includes(node.name)) return;
    for (const name of node.attrs.variable?.split(/\s+/) ?? []) {
      const long = name
        .replace(/^title-short$/, 'title')
        .replace(/^container-title-short$/, 'container-title');
      if (isNameVariable(long) || isDateVariable(long) || isTextVariable(long)) found.add(long);
    }
  });
  return [...found];
}

const v = (list: string) => list.split(' ') as Variable[];

/** The parts a work of a type practically always has; common practice. A style may print more, which it need not have. */
const HAS: Partial<Record<CslType, Variable[]>> = {
  'article-journal': v('author issued title container-title volume issue page'),
  'article-magazine': v('author issued title container-title page'),
  'article-newspaper': v('author issued title container-title'),
  'review-book': v('author issued container-title volume issue page'),
  book: v('author issued title publisher publisher-place'),
  chapter: v('author issued title container-title editor page publisher publisher-place'),
  'paper-conference': v('author issued title container-title page'),
  'entry-encyclopedia': v('issued title container-title publisher'),
  'entry-dictionary': v('issued title container-title publisher'),
  thesis: v('author issued title genre publisher'),
  report: v('author issued title publisher'),
  dataset: v('author issued title publisher'),
  software: v('author issued title'),
  motion_picture: v('director issued title publisher'),
  manuscript: v('title archive archive_location'),
  webpage: v('title container-title URL'),
  'post-weblog': v('author issued title container-title URL'),
};

/** What stands in for a part: an editor for an author, an article number for pages. */
const INSTEAD: Partial<Record<Variable, Variable[]>> = {
  author: v('editor director composer compiler translator'),
  director: v('author producer'),
  page: v('number page-first status'),
  issued: v('status'),
  volume: v('status'),
  issue: v('number status'),
  'publisher-place': v('URL DOI'),
  'container-title': v('event-title publisher'),
};

/**
 * The parts a style would print of a record and the record lacks, in the order the style prints them: what the style asks
 * (`asks`, of `asksFor`) of what a work of the type has, nothing standing in for it.
 */
export function missingFor(asks: Variable[], record: SourceRecord): Variable[] {
  const has = HAS[record.type] ?? v('issued title');
  const roles = creatorsOf(record).map((c) => c.role as string);
  const held = (field: Variable) =>
    isNameVariable(field) ? roles.includes(field) : record[field] !== undefined;
  return asks.filter((field) => has.includes(field) && !held(field) && !(INSTEAD[field] ?? []).some(held));
}
