import {
  markdownDocument,
  listToHtml,
  listToText,
  runsToHtml,
  runsToMarkdown,
  runsToText,
  type PrintedList,
  type Run,
} from '../citing';
import { escapeHtml, inOneLine, withoutControls } from '../text';
import { drawingInWords, type Shape } from '../figures';
import { inOwnWords, KIND_LABELS, locatorText, type Locator, type PassageKind } from '../passages';

/** A passage as it is written out: its words as they print, and its citation in the style asked for. */
export interface PassageOut {
  kind: PassageKind;
  /** What the source is called, and its citekey. */
  source: string;
  citekey: string;
  /** The words of the work, as the quotation is worded; none for a word on a whole document. */
  quotation: string;
  /** The words of the work as they stand there, where the quotation is worded otherwise. */
  exact: string;
  gist: string;
  ownWords: string;
  locator: Locator | null;
  citation: Run[];
  tint: string;
  tags: string[];
  sections: string[];
  state: string;
  /** When it was kept, UTC, ISO 8601. */
  added: string;
  /** The address of the document it stands in, where there is one. */
  address: string;
  /** The picture of a figure, whose caption is in `quotation`. */
  figure: FigureOut | null;
  /** What others and oneself said to it, in order, where that goes out too. */
  replies?: readonly ReplyOut[];
}

/** What somebody said to a passage, as it is written out. */
export interface ReplyOut {
  by: string;
  text: string;
}

/** A figure as it is written out. */
export interface FigureOut {
  number: string;
  alt: string;
  drawing: readonly Shape[];
  /** The picture with what is drawn over it, as PNG in base64; none where pictures are not written. */
  png: string;
  /** Of the picture, in pixels. */
  width: number;
  height: number;
}

/** What a picture says to those who do not see it: what it shows, and what is drawn over it. */
export function altOf({ figure, quotation }: PassageOut): string {
  if (!figure) return '';
  const drawn = drawingInWords(figure.drawing);
  return withoutControls(
    `${figure.alt || quotation || figure.number || 'Figure'}${drawn ? ` (drawn over it: ${drawn})` : ''}`,
  );
}

/** Passages as they are written out, in order, with the reference list of their sources. */
export interface PassagesOut {
  title: string;
  /** The language the citations are in. */
  lang: string;
  passages: PassageOut[];
  references: PrintedList | undefined;
}

/** Quotation and own words side by side, in two columns, or one below the other. */
export type OutLayout = 'beside' | 'below';

/** The parts of a passage, as a person reads them: what it is and where, the work's words, one's own, and what was said to it. */
export function partsOfPassage(passage: PassageOut): {
  head: string;
  quotation: string;
  own: string[];
  said: string[];
} {
  const { kind, locator, quotation, gist, ownWords, figure, replies = [] } = passage;
  return {
    head: [KIND_LABELS[kind], locatorText(locator)].filter(Boolean).join(', '),
    quotation: withoutControls(
      figure ? [figure.number, quotation].filter(Boolean).join('. ') : quotation && `“${quotation}”`,
    ),
    own: [gist, ownWords].map((text) => withoutControls(text).trim()).filter(Boolean),
    said: replies.map(({ by, text }) => withoutControls(`${by}: ${text}`)),
  };
}

/** Whether the citation stands with one's own words rather than with the work's. */
export const citesOwn = ({ kind, quotation, ownWords, gist, figure }: PassageOut): boolean =>
  (!quotation && !figure) || (inOwnWords(kind) && Boolean(ownWords.trim() || gist.trim()));

/** Passages in the order given, those of one source that follow each other together. */
export function bySource(passages: readonly PassageOut[]): { source: string; passages: PassageOut[] }[] {
  const groups: { source: string; passages: PassageOut[] }[] = [];
  for (const passage of passages) {
    const last = groups.at(-1);
    if (last && last.passages[0]!.citekey === passage.citekey) last.passages.push(passage);
    else groups.push({ source: passage.source, passages: [passage] });
  }
  return groups;
}

/** Passages as plain text, an empty line between paragraphs. */
export function passagesToText({ title, passages, references }: PassagesOut): string {
  const lines = [title];
  for (const group of bySource(passages)) {
    lines.push(group.source);
    for (const passage of group.passages) {
      const { head, quotation, own, said } = partsOfPassage(passage);
      const cited = runsToText(passage.citation);
      const [words, mine] = citesOwn(passage)
        ? [quotation, [...own, cited].join(' ')]
        : [`${quotation} ${cited}`, own.join(' ')];
      lines.push(...[`${head}:`, words, mine, ...said].filter((line) => line.trim() && line !== ':'));
    }
  }
  if (references?.entries.length) lines.push('References', listToText(references).trimEnd());
  return `${lines.map(withoutControls).join('\n\n')}\n`;
}

const md = (text: string): string => runsToMarkdown([{ text: inOneLine(withoutControls(text)) }]);
/** A cell of a table of Markdown: one line, its bars escaped. */
const cell = (text: string): string => text.replace(/\|/g, '\\|');

/** Passages as Markdown; side by side they are tables (GitHub Flavored Markdown, 4.10), else quotes with paragraphs below. */
export function passagesToMarkdown(out: PassagesOut, layout: OutLayout): string {
  const blocks = [`# ${md(out.title)}`];
  for (const { source, passages } of bySource(out.passages)) {
    blocks.push(`## ${md(source)}`);
    const rows: string[] = [];
    for (const passage of passages) {
      const { head, quotation, own, said } = partsOfPassage(passage);
      const cited = runsToMarkdown(passage.citation);
      const at = citesOwn(passage) ? 1 : 0;
      const picture = passage.figure?.png
        ? `![${md(altOf(passage)).replace(/\n/g, ' ')}](data:image/png;base64,${passage.figure.png})`
        : '';
      const work = [picture, quotation ? md(quotation) : '', at === 0 ? cited : ''].filter(Boolean).join(' ');
      const mine = [...own.map(md), at === 1 ? cited : ''].filter(Boolean);
      if (layout === 'beside')
        rows.push(`| ${cell(work)} | ${cell([`*${md(head)}*`, ...mine, ...said.map(md)].join('<br>'))} |`);
      else
        blocks.push(
          ...[work && `> ${work}`, [`*${md(head)}.*`, ...mine].join(' '), ...said.map(md)].filter(Boolean),
        );
    }
    if (layout === 'beside')
      blocks.push(['| Words of the work | Own words |', '|---|---|', ...rows].join('\n'));
  }
  if (out.references?.entries.length)
    blocks.push(markdownDocument(out.references, 'References').trimEnd().replace(/^# /, '## '));
  return `${blocks.join('\n\n')}\n`;
}

const paragraph = (html: string, style = ''): string =>
  `<p style="margin:0 0 0.6em${style && `;${style}`}">${html}</p>`;

/** The picture of a figure, at half its pixels at most, as a screen shows two to a point. */
const pictureHtml = (passage: PassageOut): string => {
  const { figure } = passage;
  if (!figure?.png) return '';
  const width = Math.round(Math.min(figure.width / 2, 560));
  return `<img src="data:image/png;base64,${figure.png}" alt="${escapeHtml(altOf(passage))}" width="${width}" style="display:block;max-width:100%;height:auto;margin:0 0 0.4em">`;
};

/** Passages as an HTML fragment that keeps its look when pasted: styles are in the elements. */
export function passagesToHtml(out: PassagesOut, layout: OutLayout): string {
  const parts: string[] = [];
  for (const { source, passages } of bySource(out.passages)) {
    parts.push(`<h2 style="font-size:1.05em;margin:1.2em 0 0.5em">${escapeHtml(source)}</h2>`);
    const rows: string[] = [];
    for (const passage of passages) {
      const { head, quotation, own, said } = partsOfPassage(passage);
      const cited = runsToHtml(passage.citation);
      const ownCited = citesOwn(passage);
      const words = [pictureHtml(passage), escapeHtml(quotation), ownCited ? '' : cited]
        .filter(Boolean)
        .join(' ');
      const mine = [
        paragraph(`<i>${escapeHtml(head)}</i>`),
        ...own.map((text, i) =>
          paragraph(`${escapeHtml(text)}${ownCited && i === own.length - 1 ? ` ${cited}` : ''}`),
        ),
        ...(ownCited && own.length === 0 ? [paragraph(cited)] : []),
        ...said.map((text) => paragraph(escapeHtml(text), 'margin-left:1em')),
      ].join('');
      if (layout === 'beside')
        rows.push(
          `<tr><td style="vertical-align:top;width:50%;padding:0 1em 0.6em 0">${words && paragraph(words)}</td><td style="vertical-align:top;padding:0 0 0.6em">${mine}</td></tr>`,
        );
      else
        parts.push(
          `${words && `<blockquote style="margin:0 0 0.4em 1.5em">${paragraph(words)}</blockquote>`}${mine}`,
        );
    }
    if (layout === 'beside')
      parts.push(
        `<table style="width:100%;border-collapse:collapse"><tbody>${rows.join('')}</tbody></table>`,
      );
  }
  if (out.references?.entries.length)
    parts.push(
      '<h2 style="font-size:1.05em;margin:1.2em 0 0.5em">References</h2>',
      listToHtml(out.references),
    );
  return parts.join('\n');
}

/** Passages as a whole HTML document. */
export const passagesDocument = (out: PassagesOut, layout: OutLayout): string =>
  `<!doctype html>
<html lang="${escapeHtml(out.lang)}">
<head><meta charset="utf-8"><title>${escapeHtml(out.title)}</title></head>
<body style="font-family:serif;max-width:${layout === 'beside' ? 60 : 40}em;margin:2em auto;line-height:1.5">
<h1 style="font-size:1.2em">${escapeHtml(out.title)}</h1>
${passagesToHtml(out, layout)}
</body>
</html>
`;

/** The columns of passages as a table, by heading. */
const COLUMNS: [heading: string, value: (p: PassageOut) => string][] = [
  ['Source', (p) => p.source],
  ['Citekey', (p) => p.citekey],
  ['Kind', (p) => KIND_LABELS[p.kind]],
  ['Quotation', (p) => p.quotation],
  ['Words of the work', (p) => p.exact],
  ['Gist', (p) => p.gist],
  ['Own words', (p) => p.ownWords],
  ['Locator label', (p) => p.locator?.label ?? ''],
  ['Locator', (p) => p.locator?.value ?? ''],
  ['Citation', (p) => runsToText(p.citation)],
  ['Tint', (p) => p.tint],
  ['Tags', (p) => p.tags.join('; ')],
  ['Sections', (p) => p.sections.join('; ')],
  ['Figure', (p) => p.figure?.number ?? ''],
  ['What the figure shows', altOf],
  ['Replies', (p) => partsOfPassage(p).said.join('\n')],
  ['State', (p) => p.state],
  ['Kept', (p) => p.added],
  ['Address', (p) => p.address],
];

/** What a spreadsheet would take for a formula is set as text, with an apostrophe before it; common practice. */
const plainCell = (text: string): string => (/^[=+\-@\t\r]/.test(text) ? `'${text}` : text);

/** Passages as comma-separated values with a row of headings, lines ended by CRLF (RFC 4180). */
export function passagesToCsv(passages: readonly PassageOut[]): string {
  const field = (text: string) => `"${plainCell(withoutControls(text)).replace(/"/g, '""')}"`;
  const rows = [
    COLUMNS.map(([heading]) => heading),
    ...passages.map((p) => COLUMNS.map(([, value]) => value(p))),
  ];
  return rows.map((row) => `${row.map(field).join(',')}\r\n`).join('');
}
