import type { PrintedCitation, PrintedList, Run } from '../citing';
import {
  blocksIn,
  captionIn,
  inlinesIn,
  textOfInlines,
  type Block,
  type CitedWork,
  type DraftPart,
  type Inline,
} from '../drafting';
import { withoutControls } from '../text';

/** A picture of a figure, as PNG in base64; width and height in pixels. */
export interface PictureOut {
  png: string;
  width: number;
  height: number;
}

/** A draft as it is written out, with what stands in it as it prints. */
export interface DraftOut {
  title: string;
  lang: string;
  parts: readonly DraftPart[];
  /** What figures, tables and headings are called, by the id of their part. */
  names: ReadonlyMap<string, string>;
  /** Citations as they print, by their ids. */
  printed: ReadonlyMap<string, PrintedCitation>;
  /** Numbers of notes, by the id of the footnote or citation that makes them. */
  notes: ReadonlyMap<string, number>;
  /** Citekeys of works, by the ids the draft names them by. */
  keys: ReadonlyMap<string, string>;
  list: PrintedList | undefined;
  /** Pictures of figures, by the id of the passage, or by the SHA-256 of a picture of one’s own. */
  pictures: ReadonlyMap<string, PictureOut>;
}

/** A stretch of a line as it is written out. */
export type Stretch =
  | { is: 'runs'; runs: Run[]; code?: true; strike?: true; href?: string }
  /** A citation: how it prints in the line, and its works for those who print it themselves. `note`: it stands in that note. */
  | { is: 'cite'; works: CitedWork[]; named: boolean; author: Run[]; runs: Run[]; note?: number }
  | { is: 'note'; number: number; content: Stretch[] }
  | { is: 'tex'; tex: string }
  | { is: 'pointer'; to: string; name: string }
  | { is: 'break' };

/** A paragraph or another block as it is written out. `id` is that of its part, where something may point at it. */
export type Laid =
  | { is: 'heading'; id: string; level: number; line: Stretch[] }
  | { is: 'paragraph'; line: Stretch[] }
  | { is: 'quotation'; content: Laid[] }
  | { is: 'list'; ordered: boolean; start: number; items: Laid[][] }
  | { is: 'table'; id: string; name: string; caption: Stretch[]; rows: { head: boolean; across: number; down: number; content: Laid[] }[][] }
  /** `line`: the citation of its source, behind the caption. `file`: what its picture is called. */
  | { is: 'figure'; id: string; name: string; caption: Stretch[]; alt: string; picture: PictureOut | undefined; line: Stretch[]; file: string }
  | { is: 'formula'; tex: string }
  | { is: 'code'; text: string }
  | { is: 'rule' }; // prettier-ignore

/** Signs of notes and raised numbers stand at the word before them, those of notes behind the mark that follows. */
function atWords(line: Stretch[]): Stretch[] {
  const set = [...line];
  line.forEach((one, i) => {
    if (one.is !== 'cite' || one.author.length) return;
    const raised = one.runs.length > 0 && one.runs.every((run) => run.raised);
    if (one.note === undefined && !raised) return;
    const before = set[i - 1];
    if (before?.is !== 'runs') return;
    const runs = before.runs.map((run, r) =>
      r === before.runs.length - 1 ? { ...run, text: run.text.trimEnd() } : run,
    );
    set[i - 1] = { ...before, runs };
    const after = set[i + 1];
    const mark = after?.is === 'runs' && /^[.,;:!?]+/.exec(after.runs[0]?.text ?? '')?.[0];
    if (!mark || one.note === undefined) return;
    runs.push({ text: mark });
    const [first, ...others] = after.runs;
    set[i + 1] = { ...after, runs: [{ ...first!, text: first!.text.slice(mark.length) }, ...others] };
  });
  return set;
}

/** The blocks of a draft as every kind of file has them. Words to oneself are left out. */
export function laidOut(out: DraftOut): Laid[] {
  const cited = (id: string, works: CitedWork[], named: boolean): Stretch => {
    const as = out.printed.get(id);
    const note = out.notes.get(id);
    return {
      is: 'cite',
      works,
      named,
      author: as?.author ?? [],
      runs: as?.runs ?? [],
      ...(note === undefined ? {} : { note }),
    };
  };
  const line = (content: readonly Inline[]): Stretch[] => atWords(content.map((one) => stretch(one)));
  const stretch = (one: Inline): Stretch => {
      switch (one.type) {
        case 'text': {
          const marks = one.marks ?? [];
          const has = (type: string) => marks.some((m) => m.type === type);
          const link = marks.find((m) => m.type === 'link');
          const run: Run = {
            text: withoutControls(one.text),
            ...(has('italic') ? { italic: true } : {}),
            ...(has('bold') ? { bold: true } : {}),
            ...(has('underline') ? { underline: true } : {}),
          };
          return {
            is: 'runs',
            runs: [run],
            ...(has('code') ? { code: true as const } : {}),
            ...(has('strike') ? { strike: true as const } : {}),
            ...(link?.type === 'link' ? { href: link.attrs.href } : {}),
          };
        }
        case 'hardBreak':
          return { is: 'break' };
        case 'cite':
          return cited(one.attrs.id, one.attrs.works, one.attrs.named);
        case 'footnote':
          return { is: 'note', number: out.notes.get(one.attrs.id) ?? 0, content: line(one.attrs.content) };
        case 'formula':
          return { is: 'tex', tex: withoutControls(one.attrs.tex) };
        case 'crossref':
          return { is: 'pointer', to: one.attrs.to, name: out.names.get(one.attrs.to) ?? '' };
      }
  };
  const lay = (block: Block, id: string): Laid => {
    const under = () => blocksIn(block).map((one) => lay(one, ''));
    switch (block.type) {
      case 'heading':
        return { is: 'heading', id, level: block.attrs.level, line: line(inlinesIn(block)) };
      case 'paragraph':
        return { is: 'paragraph', line: line(inlinesIn(block)) };
      case 'blockquote':
        return { is: 'quotation', content: under() };
      case 'bulletList':
      case 'orderedList':
        return {
          is: 'list',
          ordered: block.type === 'orderedList',
          start: block.type === 'orderedList' ? (block.attrs?.start ?? 1) : 1,
          items: blocksIn(block).map((item) => blocksIn(item).map((one) => lay(one, ''))),
        };
      case 'table':
        return {
          is: 'table',
          id,
          name: out.names.get(id) ?? '',
          caption: line(captionIn(block)),
          rows: blocksIn(block).map((row) =>
            blocksIn(row).map((cell) => ({
              head: cell.type === 'tableHeader',
              across: (cell.type === 'tableCell' || cell.type === 'tableHeader' ? cell.attrs?.colspan : 1) ?? 1,
              down: (cell.type === 'tableCell' || cell.type === 'tableHeader' ? cell.attrs?.rowspan : 1) ?? 1,
              content: blocksIn(cell).map((one) => lay(one, '')),
            })),
          ),
        };
      case 'figure': {
        const { passage, picture, alt, works, cite } = block.attrs;
        const name = out.names.get(id) ?? '';
        const file = passage ?? picture ?? '';
        return {
          is: 'figure',
          id,
          name,
          caption: line(captionIn(block)),
          alt: withoutControls(alt || textOfInlines(captionIn(block)).trim() || name),
          picture: out.pictures.get(file),
          line: works.length ? [cited(cite, works, false)] : [],
          file,
        };
      }
      case 'formulaBlock':
        return { is: 'formula', tex: withoutControls(block.attrs.tex) };
      case 'codeBlock':
        return {
          is: 'code',
          text: withoutControls(inlinesIn(block).map((one) => (one.type === 'text' ? one.text : '\n')).join('')),
        };
      case 'horizontalRule':
        return { is: 'rule' };
      default:
        // What stands only in others: an item, a row, a cell.
        return { is: 'quotation', content: under() };
    }
  };
  return out.parts.map(({ id, content }) => lay(content, id));
} // prettier-ignore

/** All notes of what is laid out, in order: footnotes, and citations that stand in notes. */
export function notesIn(laid: readonly Laid[]): { number: number; content: Stretch[] }[] {
  const found: { number: number; content: Stretch[] }[] = [];
  const inLine = (line: readonly Stretch[]) => {
    for (const one of line) {
      if (one.is === 'note') found.push({ number: one.number, content: one.content });
      else if (one.is === 'cite' && one.note !== undefined)
        found.push({ number: one.note, content: [{ is: 'runs', runs: one.runs }] });
    }
  };
  const go = (blocks: readonly Laid[]) => {
    for (const block of blocks) {
      if ('caption' in block) inLine(block.caption);
      if ('line' in block) inLine(block.line);
      if (block.is === 'quotation') go(block.content);
      if (block.is === 'list') block.items.forEach(go);
      if (block.is === 'table') block.rows.forEach((row) => row.forEach((cell) => go(cell.content)));
    }
  };
  go(laid);
  return found;
}
