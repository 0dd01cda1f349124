import { decodeXML } from 'entities';
import { escapeHtml, withoutControls } from '../text';

/** An element of a formula, or its text. */
interface Node {
  name: string;
  attrs: Record<string, string>;
  children: Node[];
  text: string;
}

/** How deep what stands in one another is read. */
const DEEPEST = 100;

/** The tree of a formula as MathML, which is well formed since a library wrote it; nothing where it is too deep. */
function treeOf(mathml: string): Node | undefined {
  const root: Node = { name: '', attrs: {}, children: [], text: '' };
  const open = [root];
  for (const [, close, name, attrs, alone, text] of mathml.matchAll(
    /<(\/?)([a-z]+)((?:\s+[\w:-]+="[^"<]*")*)\s*(\/?)>|([^<]+)/g,
  )) {
    const into = open.at(-1)!;
    if (text !== undefined) into.text += decodeXML(text);
    else if (close) {
      if (open.length > 1) open.pop();
    } else {
      const node: Node = { name: name!, attrs: {}, children: [], text: '' };
      for (const [, key, value] of attrs!.matchAll(/([\w:-]+)="([^"<]*)"/g)) node.attrs[key!] = decodeXML(value!); // prettier-ignore
      into.children.push(node);
      if (!alone) open.push(node);
      if (open.length > DEEPEST) return undefined;
    }
  }
  return root.children[0];
}

/** Signs that take what follows them with them, as sums do. ECMA-376-1, 22.1.2.70 (nary). */
const NARY = /^[∑∏∐∫-∳⋀-⋃⨀-⨆⨌]$/u;
/** Signs set over a letter, as the combining character that OMML has for them (22.1.2.1, acc; 22.1.2.20, chr). */
const ACCENTS: Readonly<Record<string, string>> = {
  '^': '\u0302',
  ˆ: '\u0302',
  '~': '\u0303',
  '˜': '\u0303',
  '˙': '\u0307',
  '.': '\u0307',
  '¨': '\u0308',
  '→': '\u20d7',
  '⃗': '\u20d7',
  ˇ: '\u030c',
  '´': '\u0301',
  '`': '\u0300',
  '˘': '\u0306',
  '¯': '\u0304',
};
const BRACES = new Set(['⏞', '⏟', '⏜', '⏝', '⎴', '⎵']);

const el = (name: string, inside: string): string => `<m:${name}>${inside}</m:${name}>`;
const val = (name: string, value: string): string => `<m:${name} m:val="${escapeHtml(value)}"/>`;
/** A run of letters; `style` is upright (`p`) where it is not slanted, as is said of it (22.1.2.111, sty). */
const run = (text: string, look = ''): string => {
  const said = withoutControls(text);
  return said ? el('r', `${look && el('rPr', look)}<m:t xml:space="preserve">${escapeHtml(said)}</m:t>`) : '';
};
const e = (inside: string): string => el('e', inside);

/** The one child of rows that hold one thing. */
function bare(node: Node): Node {
  let one = node;
  while (['mrow', 'mstyle', 'mpadded'].includes(one.name) && one.children.length === 1)
    one = one.children[0]!;
  return one;
}
const isSign = (node: Node | undefined, sign: { test(text: string): boolean }): boolean =>
  node !== undefined && bare(node).name === 'mo' && sign.test(bare(node).text.trim());
const isFence = (node: Node): boolean => node.name === 'mo' && node.attrs.fence === 'true';

/** A sum or the like with its limits, and what it is of. */
function naryOf(node: Node): { sign: string; under: string; over: string; around: boolean } | undefined {
  const one = bare(node);
  const { name, children } = one;
  if (name === 'mo' && NARY.test(one.text.trim()))
    return { sign: one.text.trim(), under: '', over: '', around: false };
  if (!/^m(?:sub|sup|under|over)+$/.test(name) || !isSign(children[0], NARY)) return undefined;
  const rest = children.slice(1).map(write);
  const below = /sub|under/.test(name) ? (rest.shift() ?? '') : '';
  return { sign: bare(children[0]!).text.trim(), under: below, over: rest.shift() ?? '', around: /under|over/.test(name) }; // prettier-ignore
}

/** Where each bracket of a row that is shut ends. Where it is not said which side one is, one opens and the next shuts. */
function endsOf(nodes: readonly Node[]): Map<number, number> {
  const ends = new Map<number, number>();
  const open: number[] = [];
  for (const [i, node] of nodes.entries()) {
    if (!isFence(node)) continue;
    const { form } = node.attrs;
    if (form === 'prefix' || (form !== 'postfix' && open.length === 0)) open.push(i);
    else if (open.length) ends.set(open.pop()!, i);
  }
  return ends;
}

/** What stands in a row: brackets with what is between them, sums with what they are of. */
function row(nodes: readonly Node[]): string {
  const ends = endsOf(nodes);
  const between = (from: number, to: number, deep: number): string => {
    const parts: string[] = [];
    for (let i = from; i < to; i++) {
      const node = nodes[i]!;
      const end = ends.get(i);
      if (end !== undefined && end < to && deep < DEEPEST) {
        const look = val('begChr', node.text.trim()) + val('endChr', nodes[end]!.text.trim());
        parts.push(el('d', el('dPr', look) + e(between(i + 1, end, deep + 1))));
        i = end;
        continue;
      }
      const nary = naryOf(node);
      if (!nary) {
        parts.push(write(node));
        continue;
      }
      const look =
        val('chr', nary.sign) +
        val('limLoc', nary.around ? 'undOvr' : 'subSup') +
        (nary.under ? '' : val('subHide', '1')) +
        (nary.over ? '' : val('supHide', '1'));
      const next = i + 1 < to ? nodes[i + 1] : undefined;
      const of = next && !isFence(next) && next.name !== 'mo' ? write(nodes[++i]!) : '';
      parts.push(el('nary', el('naryPr', look) + el('sub', nary.under) + el('sup', nary.over) + e(of)));
    }
    return parts.join('');
  };
  return between(0, nodes.length, 0);
}

function overOrUnder(node: Node): string {
  const [base, mark, second] = node.children;
  if (!base || !mark) return row(node.children);
  if (node.name === 'munderover')
    return el('limUpp', e(el('limLow', e(write(base)) + el('lim', write(mark)))) + el('lim', second ? write(second) : '')); // prettier-ignore
  const sign = bare(mark).name === 'mo' ? bare(mark).text.trim() : '';
  const over = node.name === 'mover';
  if (over && ACCENTS[sign]) return el('acc', el('accPr', val('chr', ACCENTS[sign])) + e(write(base)));
  if (BRACES.has(sign)) {
    const look = val('chr', sign) + (over ? val('pos', 'top') + val('vertJc', 'bot') : val('pos', 'bot'));
    return el('groupChr', el('groupChrPr', look) + e(write(base)));
  }
  return el(over ? 'limUpp' : 'limLow', e(write(base)) + el('lim', write(mark)));
}

function enclosed(node: Node): string {
  const notation = node.attrs.notation ?? '';
  const inside = e(row(node.children));
  if (notation === 'top') return el('bar', el('barPr', val('pos', 'top')) + inside);
  if (notation === 'bottom') return el('bar', el('barPr', val('pos', 'bot')) + inside);
  const strikes = notation.includes('updiagonalstrike') ? val('strikeBLTR', '1') : '';
  const box = notation.includes('box') ? '' : ['Top', 'Bot', 'Left', 'Right'].map((side) => val(`hide${side}`, '1')).join(''); // prettier-ignore
  return el('borderBox', el('borderBoxPr', box + strikes) + inside);
}

const part = (node: Node, i: number): string => (node.children[i] ? write(node.children[i]) : '');

/** An element of MathML Core as OMML. ECMA-376-1, 22.1.2. */
function write(node: Node): string {
  switch (node.name) {
    case 'mi': {
      const upright = node.attrs.mathvariant === 'normal' || [...node.text.trim()].length > 1;
      return run(node.text.trim(), upright ? val('sty', 'p') : '');
    }
    case 'mn':
    case 'mo':
      // Signs that are not seen, such as the one for a function applied.
      return run(node.text.trim().replace(/[\u2061-\u2064]/g, ''));
    case 'mtext':
    case 'ms':
      return run(node.text.replace(/\u00a0/g, ' '), '<m:nor/>');
    case 'mspace':
      return parseFloat(node.attrs.width ?? '0') >= 0.1 && /em$/.test(node.attrs.width ?? '')
        ? run('\u2009')
        : '';
    case 'mfrac': {
      const bar = /^0(?:px|pt|em)?$/.test(node.attrs.linethickness ?? '')
        ? el('fPr', val('type', 'noBar'))
        : '';
      return el('f', bar + el('num', part(node, 0)) + el('den', part(node, 1)));
    }
    case 'msqrt':
      return el('rad', `${el('radPr', val('degHide', '1'))}<m:deg/>${e(row(node.children))}`);
    case 'mroot':
      return el('rad', el('deg', part(node, 1)) + e(part(node, 0)));
    case 'msub':
      return el('sSub', e(part(node, 0)) + el('sub', part(node, 1)));
    case 'msup':
      return el('sSup', e(part(node, 0)) + el('sup', part(node, 1)));
    case 'msubsup':
      return el('sSubSup', e(part(node, 0)) + el('sub', part(node, 1)) + el('sup', part(node, 2)));
    case 'munder':
    case 'mover':
    case 'munderover':
      return overOrUnder(node);
    case 'menclose':
      return enclosed(node);
    case 'mtable':
      return el('m', node.children.map((line) => el('mr', line.children.map((cell) => e(row(cell.children))).join(''))).join('')); // prettier-ignore
    case 'semantics':
      return part(node, 0);
    case 'annotation':
    case 'mphantom':
      return '';
    default:
      return row(node.children);
  }
}

const NAMESPACE = 'http://schemas.openxmlformats.org/officeDocument/2006/math';

/**
 * A formula as Office has it (Office Math Markup Language, ECMA-376-1, 22.1), from the MathML a library made of it: an `m:oMath`
 * element. Nothing for what is none, or has nothing in it.
 */
export function ommlOf(mathml: string): string | undefined {
  const math = treeOf(mathml);
  if (math?.name !== 'math') return undefined;
  const inside = row(math.children);
  return inside && `<m:oMath xmlns:m="${NAMESPACE}">${inside}</m:oMath>`;
}
