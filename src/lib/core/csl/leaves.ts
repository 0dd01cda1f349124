import type { Locale } from './locale';
import type { Look, Node, Piece } from './pieces';

/** What stands around a leaf, innermost first. */
export interface Frame {
  parent: Frame | undefined;
  piece: Piece;
  /** Its look as it is to be shown there: a mark of a field inside the same look turns it off. */
  look: Look | undefined;
  /** The look that holds inside of it. */
  within: Look;
}

/** A stretch of text as it prints, in order. */
export interface Leaf {
  text: string;
  frame: Frame | undefined;
  /** The text it is a part of, whose own marks stand as they are. */
  unit?: Piece | undefined;
  /** A mark it begins with is its own. */
  own?: boolean | undefined;
  /** It is a quotation mark. */
  quote?: 'open' | 'close';
}

/** The look of a frame inside another: a field’s own mark in the same look turns back to upright. */
function lookWithin(piece: Piece, around: Look | undefined): Look | undefined {
  const { look } = piece;
  if (!look) return undefined;
  const out: Look = {};
  for (const key of ['style', 'variant', 'weight', 'decoration', 'align'] as const) {
    const wanted = look[key];
    if (wanted === undefined) continue;
    const usual = key === 'decoration' ? 'none' : key === 'align' ? 'baseline' : 'normal';
    const now = around?.[key] ?? usual;
    if (piece.flips && wanted === now && wanted !== usual && key !== 'align') out[key] = usual as never;
    else if (wanted === usual && now === usual) continue;
    else out[key] = wanted as never;
  }
  return Object.keys(out).length ? out : undefined;
}

/** The look that holds inside another: a baseline is that of what stands around, as in CSS, so that raised text stays raised. */
function inside(around: Look | undefined, { align, ...look }: Look): Look {
  return { ...around, ...look, ...(align && align !== 'baseline' ? { align } : {}) };
}

/** Nodes as leaves: quotation marks become those of the language, the inner ones inside the outer. */
export function leavesOf(nodes: Node[], locale: Locale): Leaf[] {
  const leaves: Leaf[] = [];
  const go = (node: Node, frame: Frame | undefined, depth: number, unit?: Piece, within?: Piece): void => {
    if (typeof node === 'string') {
      if (node !== '') leaves.push({ text: node, frame, unit, own: within?.own });
      return;
    }
    let inner = frame;
    const text = unit ?? (node.unit ? node : undefined);
    if (node.look || node.display || node.field || node.from) {
      const look = lookWithin(node, frame?.within);
      if (look || node.display || node.field || node.from)
        inner = {
          parent: frame,
          piece: node,
          look,
          within: look ? inside(frame?.within, look) : (frame?.within ?? {}),
        };
    }
    if (node.quoted) {
      const [open, close] = marksFor(node, depth, locale);
      leaves.push({ text: open, frame: inner, quote: 'open' });
      for (const kid of node.kids) go(kid, inner, depth + 1, text);
      leaves.push({ text: close, frame: inner, quote: 'close' });
      return;
    }
    for (let i = 0; i < node.kids.length; i++) go(node.kids[i]!, inner, depth, text, node);
  };
  for (let i = 0; i < nodes.length; i++) go(nodes[i]!, undefined, 0);
  settle(leaves, locale);
  const out: Leaf[] = [];
  for (let i = 0; i < leaves.length; i++) {
    const leaf = leaves[i]!;
    if (RAISED.test(leaf.text)) out.push(...raised(leaf));
    else if (leaf.text !== '') out.push(leaf);
  }
  return out;
}

/** Letters and figures that Unicode has raised, which few typefaces have in full. */
const RAISED =
  /[\u00aa\u00b2\u00b3\u00b9\u00ba\u02b0-\u02b8\u02c0\u02c1\u02e0-\u02e4\u06e5\u06e6\u1d2c-\u1d61\u2070-\u207f\u2120\u2122\u3192-\u319f]/;
const RAISED_EACH = new RegExp(`(${RAISED.source})`);
/** Those that Unicode does not say what they are raised from. */
const RAISED_FROM: Record<string, string> = {
  '\u02c0': '\u0294',
  '\u02c1': '\u0295',
  '\u06e5': '\u0648',
  '\u06e6': '\u064a',
  '\u1d3b': '\u1d3b',
};

/** A leaf whose raised letters are ordinary ones that are set raised. */
function raised(leaf: Leaf): Leaf[] {
  return leaf.text.split(RAISED_EACH).flatMap((text, i): Leaf[] => {
    if (text === '') return [];
    if (i % 2 === 0) return [{ ...leaf, text }];
    const look: Look = { align: 'sup' };
    const plain = RAISED_FROM[text] ?? text.normalize('NFKD');
    return [
      {
        ...leaf,
        text: plain,
        frame: {
          parent: leaf.frame,
          piece: { kids: [], look },
          look,
          within: { ...leaf.frame?.within, ...look },
        },
      },
    ];
  });
}

/**
 * The marks a quotation stands in: of the language, by how deep it lies. Marks that were typed and are not the language’s
 * stay, as does its inner mark where it was typed for an outer one.
 */
function marksFor(node: Piece, depth: number, { quotes }: Locale): [string, string] {
  const own = depth % 2 === 0 ? quotes.outer : quotes.inner;
  if (!node.typed) return own;
  const mark = node.typed[0][0]!;
  if (quotes.outer[0].startsWith(mark)) return own;
  if (quotes.inner[0].startsWith(mark)) return depth === 0 ? quotes.inner : own;
  return node.typed;
}

/**
 * What becomes of a mark that comes to stand behind another where two parts of an entry meet: both stay, one of the two
 * stays. Common practice of typesetting; the CSL test suite's `punctuation_FullMonty` fixtures name every pair.
 */
const MEETING: Record<string, Record<string, 'first' | 'second'>> = {
  ':': { ':': 'first', '.': 'first', '!': 'second', '?': 'second' },
  '.': { '.': 'first' },
  ';': { ':': 'first', '.': 'first', ';': 'first', '!': 'second', '?': 'second' },
  '!': { ':': 'first', '.': 'first', '!': 'first' },
  '?': { ':': 'first', '.': 'first', '?': 'first' },
  ',': { ',': 'first' },
};

const isMark = (c: string) => c === '.' || c === ',' || c === ';' || c === ':' || c === '!' || c === '?';

/** Marks that go inside a closing quotation mark where the language has it so. CSL 1.0.2, "Style-options", `punctuation-in-quote`. */
const goesIn = (c: string) => c === '.' || c === ',' || c === '!' || c === '?';

/** Marks and blanks where parts of an entry meet. Leaves are changed in place. */
function settle(leaves: Leaf[], locale: Locale): void {
  // Those before which the next may have to do with: the last with text that is no closing mark, and the closing ones after it.
  let last = -1;
  let closing = 0;
  for (let i = 0; i < leaves.length; i++) {
    const leaf = leaves[i]!;
    if (leaf.quote === 'close') {
      closing++;
      continue;
    }
    if (leaf.quote === 'open') {
      last = i;
      closing = 0;
      continue;
    }
    const before = last >= 0 ? leaves[last]! : undefined;
    if (before && !before.quote && (before.unit === undefined || before.unit !== leaf.unit)) {
      for (;;) {
        const b = leaf.text[0];
        const a = before.text[before.text.length - 1];
        if (b === undefined || a === undefined) break;
        if (b === ' ' || b === '\u00a0') {
          if ((a === ' ' || a === '\u00a0') && closing === 0 && b === ' ') {
            leaf.text = leaf.text.slice(1);
            continue;
          }
          break;
        }
        if (!isMark(b) || leaf.own) break;
        if (closing > 0 && !locale.punctuationInQuote) {
          if ((a === '?' || a === '!' || a === '.') && b === '.') {
            leaf.text = leaf.text.slice(1);
            continue;
          }
          break;
        }
        // Between a semicolon and a colon that is followed by a number something is missing, and is to be seen.
        const apart = a === ';' && b === ':' && /^:\S/.test(leaf.text);
        const met = isMark(a) && !apart ? MEETING[a]?.[b] : undefined;
        if (met === 'first') {
          leaf.text = leaf.text.slice(1);
          continue;
        }
        if (met === 'second') {
          before.text = before.text.slice(0, -1) + b;
          leaf.text = leaf.text.slice(1);
          // It stands alone behind a closing mark now, and goes inside where the language has it so.
          const quoted = lastQuoted(leaves, last);
          if (before.text === b && quoted && locale.punctuationInQuote && goesIn(b)) {
            quoted.text += b;
            before.text = '';
            break;
          }
          continue;
        }
        if (closing > 0 && goesIn(b)) {
          before.text += b;
          leaf.text = leaf.text.slice(1);
          continue;
        }
        break;
      }
    }
    if (leaf.text !== '') {
      last = i;
      closing = 0;
    }
  }
}

/** The text inside the quotation marks that close right before a leaf. */
function lastQuoted(leaves: Leaf[], at: number): Leaf | undefined {
  let i = at - 1;
  while (i >= 0 && leaves[i]!.text === '') i--;
  if (leaves[i]?.quote !== 'close') return undefined;
  while (i >= 0 && (leaves[i]!.quote === 'close' || leaves[i]!.text === '')) i--;
  return leaves[i]?.quote ? undefined : leaves[i];
}

/** The text of leaves. */
export const textOfLeaves = (leaves: Leaf[]): string => leaves.map((l) => l.text).join('');
