/** A text node and where its data begins in the text of the copy (UTF-16 units). */
export interface Segment {
  start: number;
  node: Text;
}

const BLOCKS = new Set(
  'ADDRESS ARTICLE ASIDE BLOCKQUOTE BODY BR CAPTION DD DETAILS DIV DL DT FIGCAPTION FIGURE FOOTER H1 H2 H3 H4 H5 H6 HEADER HR LI MAIN NAV OL P PRE SECTION SUMMARY TABLE TBODY TD TFOOT TH THEAD TR UL'.split(
    ' ',
  ),
);

/**
 * The text of a document part and the segments that lead back to its nodes. Data of text nodes is taken as it is;
 * one line feed stands where a block begins or ends, never two in a row and none at the start. Elements that only
 * mark up (`mark`, `i`, `a` …) leave no trace, so wrapping text in them does not change the result.
 */
export function textOf(root: Node): { text: string; segments: Segment[] } {
  // Joined at the end: looking at the end of a text that is still growing would have it copied each time.
  const parts: string[] = [];
  let length = 0;
  const segments: Segment[] = [];
  const add = (part: string) => {
    parts.push(part);
    length += part.length;
  };
  const lineBreak = () => {
    if (length > 0 && !parts[parts.length - 1]!.endsWith('\n')) add('\n');
  };
  const walk = (node: Node) => {
    if (node.nodeType === 3) {
      const data = (node as Text).data;
      if (data === '') return;
      segments.push({ start: length, node: node as Text });
      add(data);
      return;
    }
    const block = BLOCKS.has(node.nodeName.toUpperCase());
    if (block) lineBreak();
    for (let child = node.firstChild; child; child = child.nextSibling) walk(child);
    if (block) lineBreak();
  };
  walk(root);
  return { text: parts.join(''), segments };
}

/** A part of one text node. */
export interface Piece {
  node: Text;
  from: number;
  to: number;
}

/** The parts of text nodes between two offsets of the text, in order; line feeds between blocks have none. */
export function piecesOf(segments: Segment[], start: number, end: number): Piece[] {
  const pieces: Piece[] = [];
  for (const { start: at, node } of segments) {
    const from = Math.max(start - at, 0);
    const to = Math.min(end - at, node.data.length);
    if (from < to) pieces.push({ node, from, to });
  }
  return pieces;
}

/** The offset in the text of a place in the document (node and offset as a Range has them). */
export function offsetOf(segments: readonly Segment[], node: Node, offset: number): number | undefined {
  if (node.nodeType === 3) {
    const segment = segments.find((s) => s.node === node);
    return segment && segment.start + offset;
  }
  const child = node.childNodes[offset];
  if (child) {
    const after = segments.find(
      (s) => child === s.node || child.contains(s.node) || (child.compareDocumentPosition(s.node) & 4) !== 0,
    );
    if (after) return after.start;
  }
  const inside = segments.filter((s) => node.contains(s.node));
  const last = inside[inside.length - 1];
  return last && last.start + last.node.data.length;
}
