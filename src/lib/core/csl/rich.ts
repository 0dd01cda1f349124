import type { Look, Node, Piece } from './pieces';

/**
 * The marks of look a field may hold; CSL-JSON, "Rich text" (CSL 1.0.2 appendix): italics, bold, small capitals, raised
 * and lowered text, and text whose letters keep their case.
 */
const TAGS: Record<string, { close: string; look?: Look; nocase?: boolean }> = {
  '<i>': { close: '</i>', look: { style: 'italic' } },
  '<b>': { close: '</b>', look: { weight: 'bold' } },
  '<sc>': { close: '</sc>', look: { variant: 'small-caps' }, nocase: true },
  '<sup>': { close: '</sup>', look: { align: 'sup' }, nocase: true },
  '<sub>': { close: '</sub>', look: { align: 'sub' }, nocase: true },
  nocase: { close: '</span>', nocase: true },
  nodecor: { close: '</span>', look: { style: 'normal', weight: 'normal', variant: 'normal' }, nocase: true },
  smallcaps: { close: '</span>', look: { variant: 'small-caps' }, nocase: true },
};

const SPAN = /^<span (?:class="(nocase|nodecor)"|style="font-variant: ?(small-caps);?")>$/;

/** What may begin a mark. A field without any of it is plain, which most are. */
const MARKS = /<\/?[a-z][^<>]*>|["'“”‘’«»‹›„‚]/g;
const MARKED = /[<"'“”‘’«»‹›„‚]/;

/** Text that begins with a mark, which is its own and no affix of anything. */
const BEGINS_WITH_MARK = /^[.,;:!?]/;

/** How many marks may stand open in each other; what opens more is text. */
const DEEPEST = 32;

interface Open {
  /** What closes it. */
  close: string;
  /** How it stands in the text, should it turn out to be none. */
  plain: string;
  made: Piece;
  /** Where its content begins among the nodes of what is around. */
  at: number;
}

const CLOSERS: Record<string, string> = {
  '“': '”',
  '‘': '’',
  '«': '»',
  '‹': '›',
  '„': '“',
  '‚': '‘',
  '"': '"',
  "'": "'",
};

/** Marks as they were typed; a narrow blank inside where one was typed, as French has it. */
const typedMarks = (open: string, close: string, spaced: boolean): [string, string] =>
  spaced ? [`${open}\u202f`, `\u202f${close}`] : [open, close];

/** What is in quotation marks without the blanks some languages put inside of them: the marks bring their own. */
function withoutEdges(kids: Node[]): Node[] {
  const out = [...kids];
  const first = out[0];
  if (typeof first === 'string') out[0] = first.replace(/^[\u00a0\u202f ]+/, '');
  const last = out[out.length - 1];
  if (typeof last === 'string') out[out.length - 1] = last.replace(/[\u00a0\u202f ]+$/, '');
  return out;
}

const isWord = (c: string | undefined) => c !== undefined && /[\p{L}\p{N}]/u.test(c);
const isBlank = (c: string | undefined) => c === undefined || /\s/.test(c);

/**
 * The text of a field as nodes: tags of look, and quotation marks of any kind as pieces that are quoted, so that they are
 * printed in the marks of the language and the level they come to stand at. What opens and never closes is text. An
 * apostrophe that is typed straight becomes a curved one.
 */
export function richText(text: string): Node[] {
  if (!MARKED.test(text)) return BEGINS_WITH_MARK.test(text) ? [{ kids: [text], own: true }] : [text];
  const nodes: Node[] = [];
  const open: Open[] = [];
  const add = (node: Node) => {
    const last = nodes.length - 1;
    const from = open.length ? open[open.length - 1]!.at : 0;
    if (typeof node === 'string' && last >= from && typeof nodes[last] === 'string') nodes[last] += node;
    else if (node !== '') nodes.push(node);
  };
  /** Takes back what was opened from a level on: it stands as text, its content behind it. */
  const demote = (level: number) => {
    while (open.length > level) {
      const { at, plain } = open.pop()!;
      const content = nodes.splice(at);
      add(plain);
      content.forEach(add);
    }
  };
  const close = (level: number) => {
    demote(level + 1);
    const { at, made } = open.pop()!;
    const kids = nodes.splice(at);
    nodes.push({ ...made, kids: made.quoted ? withoutEdges(kids) : kids });
  };
  const openMark = (closing: string, plain: string, made: Omit<Piece, 'kids'>) =>
    open.push({ close: closing, plain, made: { ...made, kids: [] }, at: nodes.length });
  let from = 0;
  for (const m of text.matchAll(MARKS)) {
    const [mark] = m;
    add(text.slice(from, m.index));
    from = m.index + mark.length;
    const before = text[m.index - 1];
    const after = text[from];
    if (mark[0] === '<') {
      const span = SPAN.exec(mark);
      const tag = TAGS[span ? (span[1] ?? 'smallcaps') : mark];
      if (tag && open.length < DEEPEST) {
        openMark(tag.close, mark, {
          ...(tag.look ? { look: tag.look, flips: true } : {}),
          ...(tag.nocase ? { nocase: true } : {}),
        });
        continue;
      }
      const level = open.findLastIndex((o) => o.close === mark);
      if (level >= 0) close(level);
      else add(mark);
      continue;
    }
    const apostrophe = mark === "'" || mark === '’';
    const level = open.findLastIndex((o) => o.close === mark);
    const tagBefore = before === '>';
    const inWord = isWord(before) && isWord(after);
    const spaced = mark === '»' || mark === '›';
    const mayClose = level >= 0 && (spaced || !isBlank(before)) && !isWord(after) && !(apostrophe && inWord);
    if (mayClose) {
      close(level);
      continue;
    }
    const closing = CLOSERS[mark];
    const mayOpen =
      closing !== undefined &&
      open.length < DEEPEST &&
      (mark === '«' || !isBlank(after)) &&
      after !== mark &&
      (!isWord(before) || mark === '«' || mark === '“') &&
      (mark !== "'" && mark !== '"'
        ? true
        : isBlank(before) || /[([{\u2013\u2014\-“‘"'/]/.test(before!) || tagBefore);
    if (mayOpen)
      openMark(closing, mark === "'" ? '’' : mark, {
        quoted: true,
        ...(/[«‹„‚‘“]/.test(mark) ? { typed: typedMarks(mark, closing, isBlank(after)) } : {}),
      });
    else add(mark === "'" ? '’' : mark);
  }
  add(text.slice(from));
  demote(0);
  return nodes.length > 1 ? [{ kids: nodes, unit: true }] : nodes;
}
