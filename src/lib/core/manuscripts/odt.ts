import { entryRuns, writable, type PrintedList, type PrintedText, type Run } from '../citing';
import { edited, type Edit } from './edits';
import { setParagraphs, standingOf, THING, type Kept, type Paragraph, type Thing } from './paragraphs';
import { LIST_MARK, UnreadableManuscript, type Parts, type PrintedParts, type Works } from './setting';
import { attrOf, endOf, escaped, rawText, tagsOf, type RawText, type Tag } from './xml';

const CONTENT = 'content.xml';
/** What the names of our reference marks begin with, and the bookmark over our list. */
const MARK = 'retexa ';
const LIST = 'retexa list';

/** Which parts of an OpenDocument text are read and may change. */
export const isOdtPart = (name: string): boolean => name === CONTENT;

/** A piece of a paragraph: letters between two tags, a blank that is a tag, or a thing. */
interface Piece extends RawText {
  at: number;
  letters: boolean;
  from: number;
  to: number;
  /** What goes with a thing: the letters, notes and marks of a citation that was printed before. */
  cuts: [number, number][];
}
interface OdtParagraph extends Paragraph {
  pieces: Piece[];
  from: number;
  to: number;
}

/** What a reference mark of ours says; `inside`: it stands in a note, and is none of those that hold one. */
interface Marked extends Kept {
  id: string;
  inside: boolean;
}

function markOf(tag: Tag): Marked | undefined {
  const name = attrOf(tag, 'text:name');
  if (!name?.startsWith(`${MARK}{`)) return undefined;
  try {
    const { id, says, blank, mark, inside } = JSON.parse(name.slice(MARK.length)) as Record<string, unknown>;
    if (typeof id !== 'string' || typeof says !== 'string' || !/^c\d{1,9}$/.test(id)) return undefined;
    return { id, source: says, blank: String(blank ?? ''), mark: String(mark ?? ''), inside: inside === true };
  } catch {
    return undefined;
  }
} // prettier-ignore

const markName = (id: string, { source, blank, mark }: Kept, inside: boolean) =>
  `${MARK}${JSON.stringify({ id, says: source, ...(blank ? { blank } : {}), ...(mark ? { mark } : {}), ...(inside ? { inside } : {}) })}`;

/** XML between two marks of one name. */
const marked = (name: string, inside: string) =>
  `<text:reference-mark-start text:name="${escaped(name)}"/>${inside}<text:reference-mark-end text:name="${escaped(name)}"/>`;

/** Elements in a paragraph whose words are not its own. */
const ASIDE = new Set(['text:note-citation', 'office:annotation', 'text:tracked-changes', 'text:ruby-text']);

/** The paragraphs of a document in order, each with its text as it reads. OpenDocument 1.3, part 3, 5 and 6. */
function paragraphsIn(xml: string, list: { from: number; to: number } | undefined): OdtParagraph[] {
  const done: OdtParagraph[] = [];
  const open: (Omit<OdtParagraph, 'things'> & { things: Map<number, Thing> })[] = [];
  const notes: string[] = [];
  let skip = 0;
  let last = 0;
  /** A citation that was printed before, until its mark ends. */
  let inside: { name: string; piece: Piece; begins: number; depth: number; least: number } | undefined;
  for (const tag of tagsOf(xml)) {
    if (tag.from < skip) continue;
    if (list && tag.from >= list.from && tag.from < list.to) {
      last = skip = list.to;
      continue;
    }
    const now = open.at(-1);
    const letters = (read: RawText, from: number, to: number, isText: boolean) => {
      if (!now || read.text === '') return;
      if (inside) return void inside.piece.cuts.push([from, to]);
      now.pieces.push({ ...read, at: now.text.length, letters: isText, from, to, cuts: [] });
      now.text += read.text;
    };
    const thing = (what: Thing, to: number): Piece | undefined => {
      if (!now) return undefined;
      if (inside) return void inside.piece.cuts.push([tag.from, to]);
      const piece: Piece = { at: now.text.length, text: THING, places: [], letters: false, from: tag.from, to, cuts: [] };
      now.things.set(now.text.length, what);
      now.pieces.push(piece);
      now.text += THING;
      return piece;
    };
    if (last < tag.from) letters(rawText(xml, last, tag.from), last, tag.from, true);
    last = tag.to;
    if (inside && tag.is !== 'empty' && tag.name !== 'text:note' && !ASIDE.has(tag.name)) {
      inside.depth += tag.is === 'open' ? 1 : -1;
      inside.least = Math.min(inside.least, inside.depth);
    }
    const pass = () => (last = skip = endOf(xml, tag));
    if (ASIDE.has(tag.name)) {
      if (tag.is === 'open') pass();
      continue;
    }
    switch (tag.name) {
      case 'text:p':
      case 'text:h':
        if (tag.is === 'open') open.push({ text: '', things: new Map(), note: notes.at(-1), pieces: [], from: tag.from, to: tag.to });
        else if (tag.is === 'close' && now) {
          now.to = tag.to;
          done.push(open.pop()!);
          inside = undefined;
        }
        break;
      case 'text:note': {
        if (tag.is === 'close') {
          notes.pop();
          break;
        }
        const end = endOf(xml, tag);
        // A note of a citation that was printed before goes with it.
        if (inside) {
          thing({ is: 'other' }, end);
          pass();
          break;
        }
        const id = `note ${tag.from}`;
        thing({ is: 'note', id }, end);
        notes.push(id);
        break;
      }
      case 'text:reference-mark-start': {
        const mark = markOf(tag);
        // A note to which something was added stays, and what is cited in it is printed there.
        if (!now || !mark || inside || (!mark.inside && hasMore(xml, tag))) break;
        const { id, inside: _inside, ...kept } = mark;
        const piece = thing({ is: 'kept', id, kept }, tag.to);
        if (piece) inside = { name: attrOf(tag, 'text:name')!, piece, begins: tag.to, depth: 0, least: 0 };
        break;
      }
      case 'text:reference-mark-end':
        if (!inside || attrOf(tag, 'text:name') !== inside.name) break;
        // What begins and ends between the marks goes whole; else the letters go, and the elements stay as they are nested.
        if (inside.depth === 0 && inside.least === 0) inside.piece.cuts = [[inside.begins, tag.to]];
        else inside.piece.cuts.push([tag.from, tag.to]);
        inside = undefined;
        break;
      case 'text:s': {
        const count = Math.min(100, Number(attrOf(tag, 'text:c') ?? 1) || 1);
        if (tag.is !== 'close') letters({ text: ' '.repeat(count), places: [] }, tag.from, tag.to, false);
        break;
      }
      case 'text:tab':
      case 'text:line-break':
      case 'draw:frame':
        if (tag.is !== 'close') thing({ is: 'other' }, tag.to);
        break;
    }
  }
  return done;
} // prettier-ignore

/** Whether the note of a citation that was printed before holds words besides it. */
function hasMore(xml: string, start: Tag): boolean {
  const name = attrOf(start, 'text:name');
  let [text, last, deep] = ['', start.to, 0];
  let inNote = 0;
  for (const tag of tagsOf(xml, start.to)) {
    if (inNote && deep === 0) text += xml.slice(last, tag.from);
    last = tag.to;
    if (tag.name === 'text:note-body') inNote += tag.is === 'open' ? 1 : -1;
    else if (tag.name === 'text:reference-mark-start' && inNote && markOf(tag)?.inside) deep++;
    else if (tag.name === 'text:reference-mark-end') {
      if (attrOf(tag, 'text:name') === name) break;
      if (inNote && deep && markOf(tag)?.inside) deep--;
    } else if (tag.name === 'text:p' && tag.is === 'close' && !inNote) break;
  }
  return text.trim() !== '';
}

/** The looks that are used, by the name of their style. */
type Looks = Map<string, string>;

/** Runs as OpenDocument has them: what has a look of its own in a span. */
function runsXml(runs: readonly Run[], looks: Looks): string {
  return writable([...runs])
    .filter((run) => run.text !== '')
    .map((run) => {
      const properties = [
        run.italic ? ' fo:font-style="italic"' : '',
        run.bold ? ' fo:font-weight="bold"' : '',
        run.smallCaps ? ' fo:font-variant="small-caps"' : '',
        run.underline ? ' style:text-underline-style="solid"' : '',
        run.raised ? ' style:text-position="super 58%"' : run.lowered ? ' style:text-position="sub 58%"' : '',
      ].join('');
      // Blanks in a row are one, and those where a paragraph begins none, but for those that are said to be there.
      const text = escaped(run.text).replace(/ {2,}/g, (blanks) => ` <text:s text:c="${blanks.length - 1}"/>`);
      if (!properties) return text;
      const name = `Retexa${['italic', 'bold', 'smallCaps', 'underline', 'raised', 'lowered'].flatMap((look) => (run[look as 'italic'] ? look[0]!.toUpperCase() : [])).join('')}`;
      looks.set(name, `<style:style style:name="${name}" style:family="text"><style:text-properties${properties}/></style:style>`);
      return `<text:span text:style-name="${name}">${text}</text:span>`;
    })
    .join('');
} // prettier-ignore

/**
 * Prints the citations of an OpenDocument text (OpenDocument 1.3), written in it in pandoc’s syntax, and the list of exactly what it
 * cites: in the paragraph `{#refs}`, or at the end. Each stands between reference marks that say what it cites, so that what
 * was printed before is printed anew. `notes`: the style cites in notes, and each citation becomes a footnote. All else stays.
 */
export function printOdt(
  parts: Parts,
  printer: PrintedText,
  works: Works,
  { notes }: { notes: boolean },
): PrintedParts {
  const xml = parts[CONTENT];
  const end = xml === undefined ? -1 : xml.lastIndexOf('</office:text>');
  if (xml === undefined || end === -1)
    throw new UnreadableManuscript('The file is no OpenDocument text (.odt).');
  const there = listIn(xml);
  const paragraphs = paragraphsIn(xml, there);
  const before = paragraphs.flatMap((p) => [...p.things.values()].flatMap((t) => (t.is === 'kept' ? [t.id] : [])));
  const set = setParagraphs(paragraphs, before, works, printer, { notes });
  const edits: Edit[] = [];
  const looks: Looks = new Map();
  let citations = 0;
  for (const one of set.placed) {
    const { id, paragraph } = one;
    const as = set.printed.get(id);
    if (!as) continue;
    citations++;
    const { from, to, kept, before: start, after, line, note } = standingOf(one, as, notes);
    const isNote = note
      ? `<text:note text:id="retexa-${id}" text:note-class="footnote"><text:note-citation>1</text:note-citation><text:note-body><text:p text:style-name="Footnote">${marked(markName(id, kept, true), runsXml(note, looks))}</text:p></text:note-body></text:note>`
      : '';
    const by = [
      runsXml([{ text: start }], looks),
      marked(markName(id, kept, paragraph.note !== undefined), runsXml(line, looks) + isNote),
      runsXml([{ text: after }], looks),
    ].join('');
    edits.push(...replaced(paragraph, from, to, by));
  }
  edits.push(...listEdits(there, end, paragraphs, set.list, looks));
  return {
    changed: { [CONTENT]: withLooks(edited(xml, edits), looks) },
    missing: set.missing,
    citations,
  };
} // prettier-ignore

function replaced({ pieces }: OdtParagraph, from: number, to: number, by: string): Edit[] {
  const edits: Edit[] = [];
  let given = by;
  for (const { at, text, places, letters, from: begins, to: ends, cuts } of pieces) {
    const [start, end] = [Math.max(from, at), Math.min(to, at + text.length)];
    if (start >= end) continue;
    if (letters) edits.push({ from: places[start - at]!, to: places[end - at]!, by: given });
    else edits.push({ from: begins, to: ends, by: given });
    for (const [cut, until] of cuts) edits.push({ from: cut, to: until, by: '' });
    given = '';
  }
  return edits;
}

/** Where the list stands that was printed before: the paragraphs under its bookmark. */
function listIn(xml: string): { from: number; to: number } | undefined {
  const start = xml.indexOf(`<text:bookmark-start text:name="${LIST}"`);
  const end = xml.indexOf(`<text:bookmark-end text:name="${LIST}"`, start);
  const from = start === -1 ? -1 : xml.lastIndexOf('<text:p', start);
  const close = end === -1 ? -1 : xml.indexOf('</text:p>', end);
  return from === -1 || close === -1 ? undefined : { from, to: close + '</text:p>'.length };
}

/** The list in the place it had, in that of its mark, or at the end, with a bookmark over it. */
function listEdits(
  there: { from: number; to: number } | undefined,
  end: number,
  paragraphs: readonly OdtParagraph[],
  { entries, hangingIndent }: PrintedList,
  looks: Looks,
): Edit[] {
  const style = hangingIndent ? 'RetexaHanging' : 'RetexaList';
  const lines = entries.map((entry) => runsXml(entryRuns(entry), looks));
  if (lines.length === 0 && !there) return [];
  if (lines.length === 0) lines.push('');
  const list = lines
    .map((line, i) => `<text:p text:style-name="${style}">${i ? '' : `<text:bookmark-start text:name="${LIST}"/>`}${line}${i < lines.length - 1 ? '' : `<text:bookmark-end text:name="${LIST}"/>`}</text:p>`)
    .join('');
  looks.set(style, `<style:style style:name="${style}" style:family="paragraph" style:parent-style-name="Standard"><style:paragraph-properties fo:margin-bottom="0.2cm"${hangingIndent ? ' fo:margin-left="1.27cm" fo:text-indent="-1.27cm"' : ''}/></style:style>`);
  const mark = paragraphs.find((p) => p.note === undefined && p.text.trim() === LIST_MARK);
  const { from, to } = there ?? mark ?? { from: end, to: end };
  return [{ from, to, by: list }];
} // prettier-ignore

/** A document with the styles that are used in it. */
function withLooks(xml: string, looks: Looks): string {
  const styles = [...looks].flatMap(([name, style]) => (xml.includes(`style:name="${name}"`) ? [] : style)).join('');
  if (!styles) return xml;
  const empty = /<office:automatic-styles\s*\/>/.exec(xml);
  if (empty) return xml.replace(empty[0], `<office:automatic-styles>${styles}</office:automatic-styles>`);
  const close = xml.indexOf('</office:automatic-styles>');
  if (close !== -1) return `${xml.slice(0, close)}${styles}${xml.slice(close)}`;
  const body = xml.indexOf('<office:body');
  return `${xml.slice(0, body)}<office:automatic-styles>${styles}</office:automatic-styles>${xml.slice(body)}`;
} // prettier-ignore
