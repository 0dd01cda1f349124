import type { Node } from './pieces';

/** CSL 1.0.2, "Text-case". */
export type TextCase =
  'lowercase' | 'uppercase' | 'capitalize-first' | 'capitalize-all' | 'sentence' | 'title';

/** Words that title case leaves small; CSL 1.0.2, "Title Case Conversion". */
const SMALL = new Set(
  `a about according across afore after against ahead along alongside amid amidst among amongst an and anenst apart apropos apud
  around as aside astride at athwart atop back barring because before behind below beneath beside besides between beyond but
  by c ca circa close d de despite down due during et except far for forenenst from given in inside instead into lest like
  modulo near next nor notwithstanding of off on onto or out outside over per plus prior pro pursuant qua rather regardless
  sans since so such than that the through throughout thru thruout till to toward towards under underneath until unto up
  upon v van versus via vis-à-vis von vs where with within without yet`.split(/\s+/),
);
/** Of these the list has only what follows them: "according to", "that of". Alone they are words like others. */
const ONLY_BEFORE: Record<string, string> = {
  according: 'to', ahead: 'of', apart: 'from', back: 'to', because: 'of', close: 'to', due: 'to', far: 'from',
  instead: 'of', prior: 'to', pursuant: 'to', rather: 'than', regardless: 'of', such: 'as', that: 'of', where: 'as',
  outside: 'of',
}; // prettier-ignore

/** Whether letters have the cases of English in a language. */
export const isEnglish = (lang: string | undefined) => lang === undefined || /^en\b/i.test(lang);

interface Letters {
  text: string;
  /** Of each unit of UTF-16, whether it keeps its case; nothing where none does. */
  kept: boolean[] | undefined;
  /** Units that become others, by where they stand, in order. */
  at: number[];
  to: string[];
}

function lettersOf(nodes: Node[]): Letters {
  const only = nodes[0];
  if (nodes.length === 1 && typeof only === 'string') return { text: only, kept: undefined, at: [], to: [] };
  const kept: boolean[] = [];
  let text = '';
  const go = (node: Node, nocase: boolean) => {
    if (typeof node === 'string') {
      text += node;
      for (let i = 0; i < node.length; i++) kept.push(nocase);
    } else for (const kid of node.kids) go(kid, nocase || node.nocase === true);
  };
  for (const node of nodes) go(node, false);
  return { text, kept, at: [], to: [] };
}

/** Nodes with the letters that became others in their places. */
function putBack(nodes: Node[], { at, to }: Letters): Node[] {
  let from = 0;
  let next = 0;
  const go = (node: Node): Node => {
    if (typeof node !== 'string') return { ...node, kids: node.kids.map(go) };
    const end = from + node.length;
    let text = '';
    let done = from;
    for (; next < at.length && at[next]! < end; next++) {
      text += node.slice(done - from, at[next]! - from) + to[next]!;
      done = at[next]! + 1;
    }
    text += node.slice(done - from);
    from = end;
    return text;
  };
  return nodes.map(go);
}

/** Puts something in place of one unit, behind those before it that were changed. */
function change(letters: Letters, at: number, to: string): void {
  letters.at.push(at);
  letters.to.push(to);
}

const upper = (text: string, lang?: string) =>
  lang && /^(?:tr|az|lt|el)\b/i.test(lang) ? text.toLocaleUpperCase(lang) : text.toUpperCase();
const lower = (text: string, lang?: string) =>
  lang && /^(?:tr|az|lt|el)\b/i.test(lang) ? text.toLocaleLowerCase(lang) : text.toLowerCase();

const WORD = /[^\s\u00a0\u2013\u2014/-]+/g;
const LETTER = /\p{L}/u;
const hasCapital = (word: string) => word !== word.toLowerCase();

/** Makes the first letter of a word large, when the word has none yet. */
function capitalise(letters: Letters, from: number, word: string, lang?: string): void {
  for (let i = 0; i < word.length; i++) {
    const unit = word[i]!;
    if (/\d/.test(unit)) return;
    if (!LETTER.test(unit) && !/[\ud800-\udfff]/.test(unit)) continue;
    if (!letters.kept?.[from + i] && !hasCapital(word)) change(letters, from + i, upper(unit, lang));
    return;
  }
}

function small(letters: Letters, from: number, to: number, lang?: string): void {
  for (let i = from; i < to; i++) if (!letters.kept?.[i]) change(letters, i, lower(letters.text[i]!, lang));
}

const PLAIN_WORD = /^[A-Za-z]+$/;

/** What the text before a word ends in, a closing quotation mark and blanks passed over. */
function markBefore(text: string, at: number): string {
  let end = at - 1;
  while (end > 0 && BLANK.test(text[end]!)) end--;
  const mark = text[end]!;
  return end > 0 && '”’"\''.includes(mark) ? text[end - 1]! : mark;
}
const BLANK = /\s/;

function titleCase(letters: Letters): void {
  const { text } = letters;
  const words = [...text.matchAll(WORD)];
  words.forEach((m, i) => {
    const from = m.index;
    const whole = m[0];
    const bare = (
      PLAIN_WORD.test(whole) ? whole : whole.replace(/^[^\p{L}\p{N}]+|[^\p{L}\p{N}]+$/gu, '')
    ).toLowerCase();
    const before = text[from - 1];
    const after = text[from + whole.length];
    const joinedBefore = before === '-';
    const joinedAfter = after === '-';
    const mark = i === 0 ? '' : markBefore(text, from);
    const first = i === 0 || ':?!'.includes(mark) || (mark === '.' && hasCapital(whole));
    const last = i === words.length - 1;
    const next = words[i + 1]?.[0].toLowerCase();
    const smallWord = SMALL.has(bare) && (ONLY_BEFORE[bare] === undefined || ONLY_BEFORE[bare] === next);
    const articleBefore = /^d[’'`]\p{L}/u.test(whole);
    if (smallWord && !first && !last && !(joinedAfter && !joinedBefore)) {
      // One in capitals throughout is meant so.
      if (whole.toUpperCase() !== whole) small(letters, from, from + whole.length);
      return;
    }
    if (articleBefore) return;
    if (bare.length === 1 && (joinedBefore || joinedAfter)) return;
    capitalise(letters, from, whole);
  });
}

/** Nodes in the case of letters a style asks for; CSL 1.0.2, "Text-case". `lang` is the language of the text. */
export function inCase(nodes: Node[], wanted: TextCase | undefined, lang: string | undefined): Node[] {
  if (!wanted) return nodes;
  if (wanted === 'title' && !isEnglish(lang)) return nodes;
  // A first word that has a capital stays as it is, which most do.
  if (wanted === 'capitalize-first' && nodes.length === 1 && typeof nodes[0] === 'string') {
    const word = /\S+/.exec(nodes[0])?.[0];
    if (word === undefined || hasCapital(word)) return nodes;
  }
  const letters = lettersOf(nodes);
  const { text, kept } = letters;
  if (text === '') return nodes;
  if (wanted === 'uppercase') {
    for (let i = 0; i < text.length; i++) if (!kept?.[i]) change(letters, i, upper(text[i]!, lang));
  } else if (wanted === 'lowercase') small(letters, 0, text.length, lang);
  else if (wanted === 'capitalize-first') {
    const m = /\S+/.exec(text);
    if (m) capitalise(letters, m.index, m[0], lang);
  } else if (wanted === 'capitalize-all')
    for (const m of text.matchAll(WORD)) capitalise(letters, m.index, m[0], lang);
  else if (wanted === 'sentence') {
    const m = /\p{L}/u.exec(text);
    if (m) {
      const word = /^[^\s]+/.exec(text.slice(m.index))![0];
      if (!kept?.[m.index] && !hasCapital(word)) change(letters, m.index, upper(text[m.index]!, lang));
      small(letters, m.index + 1, text.length, lang);
    }
  } else titleCase(letters);
  return letters.at.length === 0 ? nodes : putBack(nodes, letters);
}
