import { capitalised } from './citations';
import type { NameValue } from './item';
import { nameKeys } from './names';
import { findKind, isEmpty, piece, numbered, replaced, textOf, type Node } from './pieces';
import { scopeOf, type Entry, type Names, type Registry } from './registry';

/** An entry of a list as nodes: all of it, or what stands in the margin and what beside. */
export interface EntryNodes {
  entry: Entry;
  nodes: Node[];
}

/** The nodes of one work in the list, kept as long as the work and what tells it apart stay as they are. */
export function entryNodes(registry: Registry, entry: Entry): Node[] {
  return printedOf(registry, entry).nodes;
}

function printedOf(registry: Registry, entry: Entry): NonNullable<Entry['printed']> {
  const kept = entry.printed;
  const number = registry.style.bibliography!.printsNumber ? entry.number : 0;
  if (kept?.stamp === entry.stamp) {
    if (kept.number === number) return kept;
    const nodes = numbered(kept, number);
    if (nodes) return (entry.printed = { ...kept, number, nodes });
  }
  return (entry.printed = { stamp: entry.stamp, number, nodes: printEntry(registry, entry) });
}

function printEntry(registry: Registry, entry: Entry, withoutNames = false): Node[] {
  const area = registry.style.bibliography!;
  const scope = scopeOf(registry, entry, 'bibliography', { withoutNames });
  let nodes: Node[];
  if (area.attrs['second-field-align']) {
    const printed = area.parts
      .map((part) => part(scope))
      .filter((n): n is Node => n !== undefined && !isEmpty(n));
    const [first, ...rest] = printed;
    if (first === undefined) return [];
    if (rest.length > 0)
      return [
        piece([...(area.prefix ? [area.prefix] : []), first], { display: 'left-margin' }),
        piece([...rest, ...(area.suffix ? [area.suffix] : [])], { display: 'right-inline' }),
      ];
    // Where there is no second field, nothing is aligned to it.
    nodes = [first];
  } else nodes = withoutNames ? area.print(scope) : capitalised(area.print(scope));
  if (registry.style.hasBlocks) nodes = withMarks(nodes);
  if (nodes.length === 0 || nodes.every(isEmpty)) return [];
  if (area.prefix || area.suffix)
    nodes = [...(area.prefix ? [area.prefix] : []), ...(area.suffix ? withEnd(nodes, area.suffix) : nodes)];
  return area.look ? [piece(nodes, { look: area.look })] : nodes;
}

/** Whether nodes end with one that stands by itself in the entry. */
function endsInBlock(nodes: Node[]): boolean {
  const last = nodes[nodes.length - 1];
  return last !== undefined && typeof last !== 'string' && (Boolean(last.display) || endsInBlock(last.kids));
}

/** Puts a text at the end of nodes; into the last that stands by itself in the entry, if they end with one. */
function withEnd(nodes: Node[], text: string): Node[] {
  const last = nodes[nodes.length - 1];
  if (last !== undefined && typeof last !== 'string' && (last.display || endsInBlock(last.kids)))
    return [...nodes.slice(0, -1), { ...last, kids: withEnd(last.kids, text) }];
  return [...nodes, text];
}

const MARKS = /^[\p{P}\s]+$/u;

/**
 * Nodes in which marks between one that stands by itself and the next, such as a delimiter, are at the end of it: they would
 * begin a line of their own otherwise. CSL 1.0.2, "Display".
 */
function withMarks(nodes: Node[]): Node[] {
  let out: Node[] = [];
  for (const node of nodes)
    if (typeof node !== 'string') out.push({ ...node, kids: withMarks(node.kids) });
    else if (MARKS.test(node) && endsInBlock(out)) out = withEnd(out, node);
    else out.push(node);
  return out;
}

/**
 * The entries of a list in order. Where the style puts something in place of names that repeat, entries depend on the one
 * before. CSL 1.0.2, "Reference Grouping".
 */
export function listNodes(registry: Registry): EntryNodes[] {
  const area = registry.style.bibliography;
  if (!area) return [];
  const substitute = area.attrs['subsequent-author-substitute'];
  const rule = area.attrs['subsequent-author-substitute-rule'] ?? 'complete-all';
  if (substitute === undefined)
    return registry.order.map((entry) => ({ entry, nodes: entryNodes(registry, entry) }));
  let before: string[] | undefined;
  return registry.order.map((entry) => {
    const printed = printedOf(registry, entry);
    let { nodes } = printed;
    const { found, texts } = (printed.names ??= firstNames(nodes));
    if (found && texts?.length && before)
      if (entry.instead?.of === nodes && entry.instead.before === before) nodes = entry.instead.nodes;
      else {
        nodes =
          substitute === '' && repeat(texts, before) && !findKind(found, 'label')
            ? // Nothing in place of names: what the style puts around them goes with them.
              printEntry(registry, entry, true)
            : substituted(nodes, found, texts, before, substitute, rule);
        entry.instead = { of: printed.nodes, before, nodes };
      }
    before = texts;
    return { entry, nodes };
  });
}

/** Whether names stand first in an entry, before every word and every other value of the work but its number. Common practice. */
function leads(nodes: Node[], names: Node): boolean {
  let first: boolean | undefined;
  const go = (node: Node): void => {
    if (first !== undefined) return;
    if (typeof node === 'string') {
      if (LETTER.test(node)) first = false;
    } else if (node === names) first = true;
    else if (node.field === 'citation-number') return;
    else if (node.field !== undefined && !isEmpty(node)) first = false;
    else node.kids.forEach(go);
  };
  nodes.forEach(go);
  return first === true;
}

function firstNames(nodes: Node[]): Names {
  const names = findKind(piece(nodes), 'names');
  return {
    // A label before names, such as “to”, is a word before them.
    found: names && leads(nodes, findKind(names, 'list') ?? names) ? names : undefined,
    texts: names && namesOf(names),
  };
}

const LETTER = /\p{L}/u;

/**
 * Whose the names are that print first in a block, those of one variable, one by one, and all of them. A value that stands in
 * for names counts as one.
 */
function namesOf(node: Node): string[] {
  const list = findKind(node, 'list');
  if (!list) return printsField(node) ? [textOf(node)] : [];
  const names: string[] = [];
  const go = (n: Node) => {
    if (typeof n === 'string') return;
    if (n.kind === 'name') names.push(n.who ? whole(n.who) : textOf(n));
    else n.kids.forEach(go);
  };
  go(list);
  return [...names, names.join('\u0001')];
}

/** A name by which repetitions are known: one without parts is the same however the record has it. */
const whole = (name: NameValue): string =>
  name.given || name.literal
    ? nameKeys(name)[2]
    : [name['non-dropping-particle'], name.family].filter(Boolean).join(' ');

/** Whether there is a value of the work in it. */
const printsField = (node: Node): boolean =>
  typeof node !== 'string' && (node.field !== undefined || node.kids.some(printsField));

/** Whether all names are those of the entry before. */
const repeat = (names: string[], before: string[]) => names[names.length - 1] === before[before.length - 1];

function substituted(
  nodes: Node[],
  found: Node,
  names: string[],
  before: string[],
  substitute: string,
  rule: string,
): Node[] {
  const change = (to: (n: Node) => Node) =>
    nodes.map((n) => replaced(n, (p) => (p === found ? to(p) : undefined)));
  const whole = repeat(names, before);
  if (rule === 'complete-all') {
    if (!whole) return nodes;
    return change((n) => keepingLabel(n, substitute));
  }
  const list = names.slice(0, -1);
  if (list.length === 0) return whole ? change((n) => keepingLabel(n, substitute)) : nodes;
  const of = before.slice(0, -1);
  let many = 0;
  while (many < list.length && list[many] === of[many]) many++;
  if (rule === 'complete-each') {
    if (!whole) return nodes;
    many = list.length || 1;
  } else if (rule === 'partial-first') many = Math.min(many, 1);
  if (many === 0) return nodes;
  let left = many;
  return change((n) => replaced(n, (p) => (p.kind === 'name' && left-- > 0 ? substitute : undefined)));
}

/** Names replaced as a whole, a label beside them kept. */
function keepingLabel(node: Node, substitute: string): Node {
  if (typeof node === 'string') return substitute;
  let done = false;
  const go = (n: Node): Node => {
    if (typeof n === 'string') return n;
    if (n.kind === 'list' && !done) {
      done = true;
      return substitute;
    }
    return { ...n, kids: n.kids.map(go) };
  };
  const out = go(node);
  return done ? out : substitute;
}
