import { entryRuns, writable, type PrintedText, type Run } from '../citing';
import { edited, type Edit } from './edits';
import { TYPES, withRelation } from './package';
import { setParagraphs, standingOf, THING, type Kept, type Paragraph, type Thing } from './paragraphs';
import { LIST_MARK, UnreadableManuscript, type Parts, type PrintedParts, type Works } from './setting';
import { attrOf, endOf, escaped, rawText, tagsOf, type RawText, type Tag } from './xml';

const DOCUMENT = 'word/document.xml';
const FOOTNOTES = 'word/footnotes.xml';
const ENDNOTES = 'word/endnotes.xml';
const RELATIONS = 'word/_rels/document.xml.rels';
/** Names in the document: what our content controls are tagged with, and the part that says what they cite. */
const TAG = 'retexa-';
const LIST_TAG = 'retexa-list';
const KEPT_NAMESPACE = 'urn:retexa:citations';
const NEW_KEPT = 'customXml/retexa.xml';
const NAMESPACE = 'http://schemas.openxmlformats.org/wordprocessingml/2006/main';

/** Which parts of a document are read and may change; the rest stays byte by byte. */
export const isDocxPart = (name: string): boolean =>
  [DOCUMENT, FOOTNOTES, ENDNOTES, RELATIONS, TYPES].includes(name) ||
  /^customXml\/[^/]{1,80}\.xml$/.test(name);

/** A piece of a paragraph: letters of one `w:t`, or a thing. */
interface Piece extends RawText {
  at: number;
  /** The run it stands in, and the tag of its text; not of things. */
  run?: { properties: string };
  tag?: Tag;
  /** Where a thing stands in the XML. */
  from: number;
  to: number;
}
interface DocxParagraph extends Paragraph {
  part: string;
  pieces: Piece[];
  /** Where the whole paragraph stands. */
  from: number;
  to: number;
  /** Properties of the runs of citations that were printed before, by their ids. */
  looks: Map<string, string>;
}

/** The inside of the first element of a name in a stretch of XML. */
function insideOf(xml: string, name: string): string {
  for (const tag of tagsOf(xml)) {
    if (tag.name !== name || tag.is === 'close') continue;
    return tag.is === 'empty' ? '' : xml.slice(tag.to, endOf(xml, tag) - `</${name}>`.length);
  }
  return '';
}

/** Properties of a run without those a citation gives itself. */
const plainLook = (properties: string) =>
  properties.replace(/<w:(?:vertAlign|rStyle)(?:\s[^<>]{0,200})?\/>/g, '');

/**
 * The paragraphs of a part in order, each with its text as it reads. What stands in a note of a footnote part is told by the id of
 * the note; `own` are notes of citations that were printed before, which are no text. A second drawing of what is drawn already,
 * for programs of old, is passed over.
 */
function paragraphsIn(
  part: string,
  xml: string,
  kept: ReadonlyMap<string, Kept>,
  hasMore: (note: string) => boolean,
  own: ReadonlySet<string> = new Set(),
): DocxParagraph[] {
  const done: DocxParagraph[] = [];
  const open: (Omit<DocxParagraph, 'things'> & { things: Map<number, Thing> })[] = [];
  const kind = part === FOOTNOTES ? 'footnote' : part === ENDNOTES ? 'endnote' : undefined;
  let note: string | undefined;
  let run: { properties: string } | undefined;
  let skip = 0;
  for (const tag of tagsOf(xml)) {
    if (tag.from < skip) continue;
    const now = open.at(-1);
    const thing = (what: Thing, to: number) => {
      if (!now) return;
      now.things.set(now.text.length, what);
      now.pieces.push({ at: now.text.length, text: THING, places: [], from: tag.from, to });
      now.text += THING;
    };
    switch (tag.name) {
      case 'mc:Fallback':
        if (tag.is === 'open') skip = endOf(xml, tag);
        break;
      case 'w:footnote':
      case 'w:endnote':
        if (tag.is === 'open' && own.has(`${kind ?? ''} ${attrOf(tag, 'w:id') ?? ''}`)) {
          skip = endOf(xml, tag);
          break;
        }
        note = tag.is === 'open' && kind ? `${kind} ${attrOf(tag, 'w:id') ?? ''}` : undefined;
        break;
      case 'w:p':
        if (tag.is === 'open')
          open.push({ part, text: '', things: new Map(), note, pieces: [], looks: new Map(), from: tag.from, to: tag.to });
        else if (tag.is === 'close' && now) {
          now.to = tag.to;
          done.push(open.pop()!);
        }
        break;
      case 'w:sdt': {
        if (tag.is !== 'open') break;
        const name = nameOf(xml, tag);
        if (!name) break;
        const end = endOf(xml, tag);
        if (name === LIST_TAG) {
          skip = end;
          break;
        }
        const id = name.slice(TAG.length);
        const was = kept.get(id);
        // A note to which something was added stays, and what is cited in it is printed there.
        if (!now || !was || notesReferred(xml.slice(tag.from, end)).some(hasMore)) break;
        now.looks.set(id, insideOf(insideOf(xml.slice(tag.from, end), 'w:sdtPr'), 'w:rPr'));
        thing({ is: 'kept', id, kept: was }, end);
        skip = end;
        break;
      }
      case 'w:r':
        if (tag.is === 'open') run = { properties: '' };
        else run = undefined;
        break;
      case 'w:rPr':
        if (tag.is === 'open' && run && !run.properties) {
          skip = endOf(xml, tag);
          run.properties = xml.slice(tag.to, skip - '</w:rPr>'.length);
        }
        break;
      case 'w:pPr':
      case 'w:moveFrom':
      case 'w:instrText':
        if (tag.is === 'open') skip = endOf(xml, tag);
        break;
      case 'w:t': {
        if (tag.is !== 'open' || !now || !run) break;
        const end = xml.indexOf('</w:t>', tag.to);
        if (end === -1) break;
        const read = rawText(xml, tag.to, end);
        now.pieces.push({ ...read, at: now.text.length, run, tag, from: tag.to, to: end });
        now.text += read.text;
        break;
      }
      case 'w:footnoteReference':
      case 'w:endnoteReference':
        if (tag.is !== 'close')
          thing({ is: 'note', id: `${tag.name.slice(2, -'Reference'.length)} ${attrOf(tag, 'w:id') ?? ''}` }, tag.to);
        break;
      case 'w:tab':
      case 'w:br':
      case 'w:cr':
      case 'w:drawing':
      case 'w:pict':
      case 'w:object':
        if (tag.is !== 'close' && run) thing({ is: 'other' }, tag.to);
        break;
    }
  }
  return done;
} // prettier-ignore

/** What a content control of ours is tagged with, said in its properties. */
function nameOf(xml: string, control: Tag): string | undefined {
  const head = xml.slice(control.to, control.to + 4_000);
  const end = head.indexOf('</w:sdtPr>');
  return /<w:tag\s[^<>]{0,40}w:val="(retexa-[a-z0-9]{1,40})"/.exec(
    head.slice(0, end === -1 ? undefined : end),
  )?.[1];
}

const notesReferred = (xml: string): string[] =>
  [...xml.matchAll(/<w:(footnote|endnote)Reference\s[^<>]{0,200}?w:id="(-?\d{1,9})"/g)].map(
    (m) => `${m[1]} ${m[2]}`,
  );

/** Runs as WordprocessingML, in the look of the text around them. ECMA-376, part 1, 17.3.2. */
function runsXml(runs: readonly Run[], look: string): string {
  return writable([...runs])
    .filter((run) => run.text !== '')
    .map((run) => {
      const own = [
        run.italic ? '<w:i/>' : '',
        run.bold ? '<w:b/>' : '',
        run.smallCaps ? '<w:smallCaps/>' : '',
        run.underline ? '<w:u w:val="single"/>' : '',
        run.raised ? '<w:vertAlign w:val="superscript"/>' : run.lowered ? '<w:vertAlign w:val="subscript"/>' : '',
      ].join('');
      return runXml(`<w:t xml:space="preserve">${escaped(run.text)}</w:t>`, `${plainLook(look)}${own}`);
    })
    .join('');
} // prettier-ignore

const runXml = (inside: string, look: string) =>
  `<w:r>${look ? `<w:rPr>${look}</w:rPr>` : ''}${inside}</w:r>`;

/** A content control of a citation or a list, which our own reading finds again. ECMA-376, part 1, 17.5.2. */
const controlled = (name: string, inside: string, look = '') =>
  `<w:sdt><w:sdtPr>${look ? `<w:rPr>${look}</w:rPr>` : ''}<w:tag w:val="${name}"/></w:sdtPr><w:sdtContent>${inside}</w:sdtContent></w:sdt>`;

/** What was cited where, as a document that was printed before says it. */
function keptIn(parts: Parts): { name: string | undefined; kept: Map<string, Kept> } {
  for (const [name, xml] of Object.entries(parts)) {
    if (!name.startsWith('customXml/') || !xml.includes(KEPT_NAMESPACE)) continue;
    const kept = new Map<string, Kept>();
    for (const tag of tagsOf(xml)) {
      if (tag.name !== 'citation' || tag.is === 'close') continue;
      const id = attrOf(tag, 'id');
      const source = attrOf(tag, 'says');
      if (!id || !source) continue;
      kept.set(id, { source, blank: attrOf(tag, 'blank') ?? '', mark: attrOf(tag, 'mark') ?? '' });
    }
    return { name, kept };
  }
  return { name: undefined, kept: new Map() };
}

const keptXml = (kept: ReadonlyMap<string, Kept>) =>
  `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<citations xmlns="${KEPT_NAMESPACE}">${[...kept]
    .map(([id, { source, blank, mark }]) => `<citation id="${id}" says="${escaped(source)}"${blank ? ` blank="${escaped(blank)}"` : ''}${mark ? ` mark="${escaped(mark)}"` : ''}/>`)
    .join('')}</citations>`; // prettier-ignore

/** The texts of the notes of a part, those of citations that were printed before left out. */
function notesIn(xml: string): Map<string, { from: number; to: number; more: boolean }> {
  const notes = new Map<string, { from: number; to: number; more: boolean }>();
  let skip = 0;
  for (const tag of tagsOf(xml)) {
    if (tag.from < skip || tag.name !== 'w:footnote' || tag.is !== 'open') continue;
    skip = endOf(xml, tag);
    let text = '';
    let passed = 0;
    for (const inner of tagsOf(xml.slice(tag.to, skip))) {
      if (inner.from < passed) continue;
      if (inner.name === 'w:sdt' && inner.is === 'open') {
        const end = endOf(xml.slice(tag.to, skip), inner);
        if (nameOf(xml.slice(tag.to, skip), inner)) passed = end;
      } else if (inner.name === 'w:t' && inner.is === 'open')
        text += xml.slice(tag.to + inner.to, xml.indexOf('<', tag.to + inner.to));
    }
    notes.set(`footnote ${attrOf(tag, 'w:id') ?? ''}`, { from: tag.from, to: skip, more: text.trim() !== '' });
  }
  return notes;
} // prettier-ignore

/**
 * Prints the citations of a .docx manuscript (ECMA-376, transitional), written in it in pandoc’s syntax, and the list of exactly what
 * it cites: in the paragraph `{#refs}`, or at the end. Each is a content control that can be found again: what was printed
 * before is printed anew. `notes`: the style cites in notes, and each citation becomes a footnote. All else stays.
 */
export function printDocx(
  parts: Parts,
  printer: PrintedText,
  works: Works,
  { notes }: { notes: boolean },
): PrintedParts {
  const document = parts[DOCUMENT];
  if (document === undefined) throw new UnreadableManuscript('The file is no .docx document.');
  if (!document.includes(`xmlns:w="${NAMESPACE}"`))
    throw new UnreadableManuscript('The document is written in a form of .docx that is not read; save it anew.');
  const { name: keptName = NEW_KEPT, kept: before } = keptIn(parts);
  const ours = notesIn(parts[FOOTNOTES] ?? '');
  const hasMore = (note: string) => ours.get(note)?.more ?? true;
  const inText = paragraphsIn(DOCUMENT, document, before, hasMore);
  const own = new Set(inText.flatMap((p) => [...p.things].flatMap(([at, thing]) => (thing.is === 'kept' ? notesReferred(xmlOf(p, document, at)) : []))));
  const paragraphs = [...inText, ...[FOOTNOTES, ENDNOTES].flatMap((part) => parts[part] === undefined ? [] : paragraphsIn(part, parts[part], before, hasMore, own))];

  const set = setParagraphs(paragraphs, before.keys(), works, printer, { notes });

  const kept = new Map<string, Kept>();
  const edits: Record<string, Edit[]> = {};
  const edit = (part: string, ...more: Edit[]) => (edits[part] ??= []).push(...more);
  let nextNote = Math.max(0, ...[...(parts[FOOTNOTES] ?? '').matchAll(/<w:footnote\s[^<>]{0,200}?w:id="(\d{1,9})"/g)].map((m) => Number(m[1])));
  let newNotes = '';
  let citations = 0;
  const spaced = new Set<Tag>();
  for (const one of set.placed) {
    const { id, paragraph } = one;
    const as = set.printed.get(id);
    if (!as) {
      // It names a work that is not there: it stays as it is, and is found again when it was printed before.
      if (before.has(id)) kept.set(id, before.get(id)!);
      continue;
    }
    citations++;
    const standing = standingOf(one, as, notes);
    kept.set(id, standing.kept);
    const look = paragraph.looks.get(id) ?? plainLook(pieceAt(paragraph, standing.from)?.run?.properties ?? '');
    let inside = runsXml(standing.line, look);
    if (standing.note) {
      const number = ++nextNote;
      newNotes += noteXml(number, controlled(`${TAG}${id}`, runsXml(standing.note, '')));
      inside += runXml(`<w:footnoteReference w:id="${number}"/>`, '<w:rStyle w:val="FootnoteReference"/><w:vertAlign w:val="superscript"/>');
    }
    const by = [
      runsXml([{ text: standing.before }], look),
      controlled(`${TAG}${id}`, inside, look),
      runsXml([{ text: standing.after }], look),
    ].join('');
    edit(paragraph.part, ...replaced(paragraph, standing.from, standing.to, by, spaced));
    for (const [at, thing] of paragraph.things)
      if (thing.is === 'kept' && at >= one.from && at < one.to)
        for (const old of notesReferred(xmlOf(paragraph, parts[paragraph.part]!, at))) {
          const { from, to } = ours.get(old)!;
          edit(FOOTNOTES, { from, to, by: '' });
        }
  }
  edit(DOCUMENT, ...listEdits(document, paragraphs, listXml(set.list.entries, set.list.hangingIndent)));

  const changed: Record<string, string> = {};
  if (newNotes) {
    const there = parts[FOOTNOTES];
    if (there === undefined) Object.assign(changed, withNotes(parts, newNotes));
    else {
      const at = there.lastIndexOf('</w:footnotes>');
      if (at === -1) throw new UnreadableManuscript('The footnotes of the document cannot be read.');
      edit(FOOTNOTES, { from: at, to: at, by: newNotes });
    }
  }
  for (const [part, all] of Object.entries(edits)) if (all.length) changed[part] = edited(parts[part]!, all);
  changed[keptName] = keptXml(kept);
  if (parts[keptName] === undefined) withRelation(parts, changed, 'customXml', `../${keptName}`);
  return { changed, missing: set.missing, citations };
} // prettier-ignore

const pieceAt = ({ pieces }: DocxParagraph, at: number): Piece | undefined =>
  pieces.find((piece) => piece.at <= at && at < piece.at + piece.text.length);

/** The edits that put XML in the place of a stretch of a paragraph’s text: a run is closed before it and opened again behind it. */
function replaced({ pieces }: DocxParagraph, from: number, to: number, by: string, spaced: Set<Tag>): Edit[] {
  const edits: Edit[] = [];
  let given = by;
  for (const { at, text, places, run, tag, from: begins, to: ends } of pieces) {
    const [start, end] = [Math.max(from, at), Math.min(to, at + text.length)];
    if (start >= end) continue;
    if (!run || !tag) {
      // A citation that was printed before goes as a whole; nothing else that is no text stands in one.
      edits.push({ from: begins, to: ends, by: given });
      given = '';
      continue;
    }
    const look = run.properties ? `<w:rPr>${run.properties}</w:rPr>` : '';
    edits.push({
      from: places[start - at]!,
      to: places[end - at]!,
      by: given ? `</w:t></w:r>${given}<w:r>${look}<w:t xml:space="preserve">` : '',
    });
    // A blank at the new end of a text counts.
    if (!/xml:space=/.test(tag.attrs) && !spaced.has(tag))
      edits.push({
        from: tag.from + '<w:t'.length,
        to: tag.from + '<w:t'.length,
        by: ' xml:space="preserve"',
      });
    spaced.add(tag);
    given = '';
  }
  return edits;
}

/** The XML of a thing of a paragraph. */
function xmlOf({ pieces }: DocxParagraph, xml: string, at: number): string {
  const piece = pieces.find((one) => one.at === at);
  return piece ? xml.slice(piece.from, piece.to) : '';
}

const noteXml = (number: number, inside: string) =>
  `<w:footnote w:id="${number}"><w:p><w:pPr><w:pStyle w:val="FootnoteText"/></w:pPr>${runXml('<w:footnoteRef/>', '<w:rStyle w:val="FootnoteReference"/><w:vertAlign w:val="superscript"/>')}${runXml('<w:t xml:space="preserve"> </w:t>', '')}${inside}</w:p></w:footnote>`;

/** Half an inch in twentieths of a point, the customary hanging indent. */
const HALF_INCH = 720;
const listXml = (entries: readonly { label?: string; runs: Run[] }[], hanging: boolean) =>
  entries
    .map((entry) => `<w:p><w:pPr><w:spacing w:after="120"/>${hanging ? `<w:ind w:left="${HALF_INCH}" w:hanging="${HALF_INCH}"/>` : ''}</w:pPr>${runsXml(entryRuns(entry), '')}</w:p>`)
    .join(''); // prettier-ignore

/** The list in the place it had, in that of its mark, or at the end. */
function listEdits(document: string, paragraphs: readonly DocxParagraph[], list: string): Edit[] {
  for (const tag of tagsOf(document)) {
    if (tag.name !== 'w:sdt' || tag.is !== 'open') continue;
    if (nameOf(document, tag) !== LIST_TAG) continue;
    // A control must hold a paragraph.
    return [{ from: tag.from, to: endOf(document, tag), by: controlled(LIST_TAG, list || '<w:p/>') }];
  }
  if (!list) return [];
  const block = controlled(LIST_TAG, list);
  const mark = paragraphs.find((p) => p.part === DOCUMENT && p.text.trim() === LIST_MARK);
  if (mark) return [{ from: mark.from, to: mark.to, by: block }];
  const end = document.lastIndexOf('</w:body>');
  // The properties of the last section stand last in the body.
  const section = document.lastIndexOf('<w:sectPr');
  const at = section > document.lastIndexOf('</w:p>') ? section : end;
  if (at === -1) throw new UnreadableManuscript('The text of the document cannot be read.');
  return [{ from: at, to: at, by: block }];
}

/** A part for footnotes, where a document has none: ECMA-376, part 1, 11.3.7. */
function withNotes(parts: Parts, notes: string): Record<string, string> {
  const line = (id: number, type: string, inside: string) =>
    `<w:footnote w:type="${type}" w:id="${id}"><w:p><w:r>${inside}</w:r></w:p></w:footnote>`;
  const changed: Record<string, string> = {
    [FOOTNOTES]: `<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n<w:footnotes xmlns:w="${NAMESPACE}">${line(-1, 'separator', '<w:separator/>')}${line(0, 'continuationSeparator', '<w:continuationSeparator/>')}${notes}</w:footnotes>`,
  };
  withRelation(parts, changed, 'footnotes', 'footnotes.xml', {
    part: '/word/footnotes.xml',
    type: 'application/vnd.openxmlformats-officedocument.wordprocessingml.footnotes+xml',
  });
  return changed;
} // prettier-ignore
