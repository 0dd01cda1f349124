import { findKind, isEmpty, piece, numbered, replaced, textOf, type Node, type Piece } from './pieces';
import { FIRST_PLACE, type Place } from './positions';
import { scopeOf, type Entry, type Registry } from './registry';
import { richText } from './rich';
import type { Cite } from './scope';
import { inCase } from './case';
import type { CompiledArea } from './style';

/** A cite of a citation, printed. */
interface Printed {
  cite: Cite;
  entry: Entry;
  place: Place;
  nodes: Node[];
  names: string;
  /** A sentence begins with it. */
  begins: boolean;
}

/** What prints in place of a work that prints nothing. */
export const NOTHING_PRINTED = '[CSL STYLE ERROR: reference with no printed form.]';

/** How many mentions of a work are kept as they were printed: what is written changes near where it did before. */
const MENTIONS_KEPT = 12;

/** One mention of a work. It stays for as long as the work and what tells it apart do; its number may be another. */
function printCite(
  registry: Registry,
  entry: Entry,
  cite: Cite,
  place: Place,
  withoutNames: boolean,
): Node[] {
  const { locator, label } = cite;
  const { position, nearNote, firstNote } = place;
  const key = JSON.stringify([locator, label, position, nearNote, firstNote, withoutNames]);
  const number = registry.style.citation.printsNumber ? entry.number : 0;
  let { mentions } = entry;
  if (mentions?.stamp !== entry.stamp || mentions.printed.size > MENTIONS_KEPT)
    entry.mentions = mentions = { stamp: entry.stamp, printed: new Map() };
  const nodes =
    numbered(mentions.printed.get(key), number) ?? printAnew(registry, entry, cite, place, withoutNames);
  mentions.printed.set(key, { number, nodes });
  return nodes;
}

function printAnew(
  registry: Registry,
  entry: Entry,
  cite: Cite,
  place: Place,
  withoutNames: boolean,
): Node[] {
  const scope = scopeOf(registry, entry, 'citation', {
    cite,
    position: place.position,
    nearNote: place.nearNote,
    firstNote: place.firstNote,
    withoutNames,
  });
  return registry.style.citation.print(scope);
}

const ENDS_SENTENCE = /[.?!]\s?["”’»]?$/;

/** Text of a prefix or a suffix, with a blank where it meets the cite and has none of its own. */
function prefixNodes(text: string | undefined): Node[] {
  if (!text) return [];
  const nodes = richText(text);
  return /[\s\u00a0(\[{“‘"'/\-\u2013\u2014\u2019]$/.test(text) ? nodes : [...nodes, ' '];
}
function suffixNodes(text: string | undefined): Node[] {
  if (!text) return [];
  const nodes = richText(text);
  return /^[\s\u00a0.,;:!?)\]}\u2013\u2014-]/.test(text) ? nodes : [' ', ...nodes];
}

/** The works of a citation in the order the style wants them. */
export function sortedCites(registry: Registry, cites: Cite[]): Cite[] {
  const area = registry.style.citation;
  if (area.keys.length === 0 || cites.length < 2) return cites;
  const [first, second] = area.keys;
  if (first?.isNumber && !second) {
    const way = first.descending ? -1 : 1;
    const numberOf = ({ id }: Cite) => registry.entries.get(id)!.number;
    return [...cites].sort((a, b) => way * (numberOf(a) - numberOf(b)));
  }
  const keyed = cites.map((cite, i) => {
    const entry = registry.entries.get(cite.id)!;
    return { cite, i, keys: [], scope: () => scopeOf(registry, entry, 'citation', { cite }) };
  });
  keyed.sort((a, b) => area.compare(a, b) || a.i - b.i);
  return keyed.map((k) => k.cite);
}

/**
 * A citation as nodes: its cites in the order given, those of the same names drawn together and what repeats left out
 * where the style collapses. CSL 1.0.2, "Cite Grouping" and "Cite Collapsing".
 */
export function citationNodes(registry: Registry, cites: Cite[], places: Place[] = []): Node[] {
  const { style } = registry;
  const area = style.citation;
  let printed = cites.flatMap((cite, i): Printed[] => {
    const entry = registry.entries.get(cite.id);
    if (!entry) return [];
    const place = places[i] ?? FIRST_PLACE;
    const nodes = printCite(registry, entry, cite, place, Boolean(cite['suppress-author']));
    const { prefix } = cite;
    const begins = prefix
      ? ENDS_SENTENCE.test(prefix.trimEnd()) && /\s/.test(prefix.trim())
      : style.isNote && i === 0;
    return [{ cite, entry, place, nodes, names: namesText(nodes), begins }];
  });
  const [only] = printed;
  if (only?.cite['author-only']) return authorsIn(only.nodes) ?? only.nodes;
  const { collapse } = area.attrs;
  const groups =
    area.attrs['cite-group-delimiter'] !== undefined ||
    (collapse !== undefined && collapse !== 'citation-number');
  // Works that are in no order stay as they are written.
  if (groups && area.keys.length > 0) printed = drawnTogether(printed);
  const body =
    collapse === 'citation-number' && area.printsNumber
      ? byNumber(printed, area)
      : collapse && collapse !== 'citation-number'
        ? byYear(registry, printed, area, collapse)
        : plain(printed, area, groups);
  const inside: Node[] = [];
  if (area.prefix) inside.push(area.prefix);
  inside.push(...body);
  if (area.suffix) inside.push(area.suffix);
  return area.look ? [piece(inside, { look: area.look })] : inside;
}

/** The names a cite prints; nothing where it prints none, as in a style that numbers. */
function authorsIn(nodes: Node[]): Node[] | undefined {
  const names = findKind(piece(nodes), 'names');
  return names && [names];
}

/** The names a work is cited by, for a sentence they are part of. */
export function authorNodes(registry: Registry, id: string, place: Place = FIRST_PLACE): Node[] | undefined {
  const entry = registry.entries.get(id);
  return entry && authorsIn(printCite(registry, entry, { id }, place, false));
}

const namesText = (nodes: Node[]): string => {
  const found = findKind(piece(nodes), 'names');
  return found ? textOf(found) : '';
};

/** Cites of the same names follow the first of them. */
function drawnTogether(printed: Printed[]): Printed[] {
  const groups = new Map<string, Printed[]>();
  printed.forEach((p, i) => {
    const key = p.names || `\u0001${i}`;
    const group = groups.get(key);
    if (group) group.push(p);
    else groups.set(key, [p]);
  });
  return [...groups.values()].flat();
}

/** A cite with what stands before and behind it. */
function around(p: Printed, nodes: Node[]): Node[] {
  const { prefix, suffix } = p.cite;
  const body = nodes.length === 0 || nodes.every(isEmpty) ? [NOTHING_PRINTED] : nodes;
  return [...prefixNodes(prefix), ...(p.begins ? capitalised(body) : body), ...suffixNodes(suffix)];
}

/** Nodes whose first word is a term of the style, which takes a capital where a sentence begins. */
export function capitalised(nodes: Node[]): Node[] {
  return beginsWithTerm(nodes) ? withCapital(nodes) : nodes;
}

function beginsWithTerm(nodes: Node[]): boolean {
  const first = nodes[0];
  if (first === undefined || typeof first === 'string') return false;
  return first.kind === 'term' || beginsWithTerm(first.kids);
}

function withCapital(nodes: Node[]): Node[] {
  const [first, ...rest] = nodes;
  if (first === undefined || typeof first === 'string') return nodes;
  if (first.kind === 'term')
    return [{ ...first, kids: inCase(first.kids, 'capitalize-first', undefined) }, ...rest];
  return [{ ...first, kids: withCapital(first.kids) }, ...rest];
}

function plain(printed: Printed[], area: CompiledArea, groups: boolean): Node[] {
  const out: Node[] = [];
  printed.forEach((p, i) => {
    if (i > 0) {
      const same = groups && p.names !== '' && p.names === printed[i - 1]!.names;
      out.push(
        ...delimiterBefore(
          p,
          same ? (area.attrs['cite-group-delimiter'] ?? ', ') : area.delimiter,
          printed[i - 1],
        ),
      );
    }
    out.push(piece(around(p, p.nodes), { kind: 'cite' }));
  });
  return out;
}

/** The delimiter before a cite; none where its prefix brings its own mark. */
function delimiterBefore(p: Printed, delimiter: string, before?: Printed): Node[] {
  if (delimiter === '' || /^[.,;:!?]/.test(p.cite.prefix ?? '')) return [];
  // A suffix that ends in a mark of its own stands for the delimiter.
  if (/[.,;:!?]\s*$/.test(before?.cite.suffix ?? '')) return [' '];
  return [delimiter];
}

/** Numbers in a row become a range. CSL 1.0.2, "Cite Collapsing", `citation-number`. */
function byNumber(printed: Printed[], area: CompiledArea): Node[] {
  const out: Node[] = [];
  const bare = (p: Printed) => !p.cite.locator && !p.cite.prefix && !p.cite.suffix;
  let i = 0;
  const afterRange = area.attrs['after-collapse-delimiter'] ?? area.delimiter;
  let collapsed = false;
  while (i < printed.length) {
    const p = printed[i]!;
    let j = i;
    while (
      j + 1 < printed.length &&
      bare(printed[j]!) &&
      bare(printed[j + 1]!) &&
      printed[j + 1]!.entry.number === printed[j]!.entry.number + 1
    )
      j++;
    if (out.length) out.push(...delimiterBefore(p, collapsed ? afterRange : area.delimiter, printed[i - 1]));
    collapsed = false;
    if (j - i >= 2) {
      out.push(
        piece(around(p, p.nodes), { kind: 'cite' }),
        '\u2013',
        piece(printed[j]!.nodes, { kind: 'cite' }),
      );
      collapsed = true;
      i = j + 1;
    } else {
      out.push(piece(around(p, p.nodes), { kind: 'cite' }));
      i++;
    }
  }
  return out;
}

/** Names, and years with letters, that repeat are left out. CSL 1.0.2, "Cite Collapsing", `year`, `year-suffix`, `year-suffix-ranged`. */
function byYear(registry: Registry, printed: Printed[], area: CompiledArea, collapse: string): Node[] {
  const groupDelimiter =
    area.attrs['cite-group-delimiter'] ??
    (registry.style.isNote || area.attrs['after-collapse-delimiter'] !== undefined ? area.delimiter : ', ');
  const suffixDelimiter =
    area.attrs['year-suffix-delimiter'] ?? area.attrs['cite-group-delimiter'] ?? area.delimiter;
  const afterCollapse = area.attrs['after-collapse-delimiter'] ?? area.delimiter;
  const out: Node[] = [];
  let i = 0;
  let collapsedBefore = false;
  while (i < printed.length) {
    let j = i;
    while (
      j + 1 < printed.length &&
      printed[j + 1]!.names === printed[i]!.names &&
      (printed[i]!.names !== '' || collapse !== 'year')
    )
      j++;
    const group = printed.slice(i, j + 1);
    if (out.length)
      out.push(
        ...delimiterBefore(group[0]!, collapsedBefore ? afterCollapse : area.delimiter, printed[i - 1]),
      );
    collapsedBefore = group.length > 1;
    out.push(
      ...groupNodes(
        registry,
        group,
        collapse,
        groupDelimiter,
        suffixDelimiter,
        area.attrs['after-collapse-delimiter'] ?? groupDelimiter,
      ),
    );
    i = j + 1;
  }
  return out;
}

const yearText = (nodes: Node[]): string => {
  const found = findKind(piece(nodes), 'year');
  return found ? textOf(replaced(found, (p) => (p.kind === 'suffix' ? '' : undefined))) : '';
};

function groupNodes(
  registry: Registry,
  group: Printed[],
  collapse: string,
  groupDelimiter: string,
  suffixDelimiter: string,
  afterCollapse: string,
): Node[] {
  const out: Node[] = [];
  const suffixes = collapse.startsWith('year-suffix');
  let k = 0;
  while (k < group.length) {
    const p = group[k]!;
    const nodes = k === 0 ? p.nodes : printCite(registry, p.entry, p.cite, p.place, true);
    const year = yearText(p.nodes);
    const mayFollow = (q: Printed, before: Printed) =>
      suffixes &&
      printsLetter(q) &&
      printsLetter(before) &&
      yearText(q.nodes) === year &&
      year !== '' &&
      !q.cite.prefix &&
      !before.cite.suffix &&
      !before.cite.locator;
    // One that has nothing but its names says nothing new.
    if (k > 0 && nodes.every(isEmpty)) {
      k++;
      continue;
    }
    const before = group[k - 1];
    if (k > 0) out.push(...delimiterBefore(p, before?.cite.locator ? afterCollapse : groupDelimiter, before));
    out.push(piece(around(p, nodes), { kind: 'cite' }));
    let m = k;
    while (m + 1 < group.length && mayFollow(group[m + 1]!, group[m]!)) m++;
    let n = k + 1;
    while (n <= m) {
      let end = n;
      const letter = (q: Printed) => q.entry.told.yearSuffix!;
      if (collapse === 'year-suffix-ranged') {
        // A range takes in the letter before: "2000a–c".
        let from = n - 1;
        while (end <= m && follows(letter(group[end - 1]!), letter(group[end]!))) end++;
        if (end - from >= 3) {
          out.push('\u2013', ...suffixOnly(group[end - 1]!));
          n = end;
          from = end;
          continue;
        }
        end = n;
      }
      out.push(suffixDelimiter, ...suffixOnly(group[n]!));
      n = end + 1;
    }
    k = m + 1;
  }
  return out;
}

const printsLetter = (p: Printed) =>
  p.entry.told.yearSuffix !== undefined && findKind(piece(p.nodes), 'suffix') !== undefined;

const follows = (a: string, b: string) =>
  a.length === 1 && b.length === 1 && b.charCodeAt(0) === a.charCodeAt(0) + 1;

/** Of a cite, the letter of its year and what comes behind the cite. */
function suffixOnly(p: Printed): Node[] {
  const whole = piece(p.nodes);
  const found = findKind(whole, 'suffix');
  const locator = p.cite.locator ? afterSuffix(whole) : [];
  return [found ?? p.entry.told.yearSuffix ?? '', ...locator, ...suffixNodes(p.cite.suffix)];
}

/** What prints behind the letter of the year. */
function afterSuffix(whole: Piece): Node[] {
  const out: Node[] = [];
  let seen = false;
  const go = (node: Node) => {
    if (typeof node !== 'string' && node.kind === 'suffix') {
      seen = true;
      return;
    }
    if (typeof node === 'string') {
      if (seen) out.push(node);
      return;
    }
    if (seen) out.push(node);
    else node.kids.forEach(go);
  };
  go(whole);
  return out;
}
