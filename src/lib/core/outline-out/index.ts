import {
  listToHtml,
  markdownDocument,
  runsToHtml,
  runsToMarkdown,
  runsToText,
  type PrintedList,
  type Run,
} from '../citing';
import { altOf, citesOwn, partsOfPassage, type PassageOut } from '../passages-out';
import { escapeHtml, inOneLine, withoutControls } from '../text';

/** A line of an outline as it is written out. `depth` is how deep its section stands, from 0. */
export type OutlineLineOut =
  | { kind: 'section'; depth: number; name: string }
  | { kind: 'sentence' | 'question'; depth: number; words: string }
  | { kind: 'source'; depth: number; citation: Run[]; title: string }
  | { kind: 'passage'; depth: number; passage: PassageOut };

/** An outline as it is written out, as it is read, with the reference list of what it cites. */
export interface OutlineOut {
  title: string;
  /** The language the citations are in. */
  lang: string;
  lines: OutlineLineOut[];
  references: PrintedList | undefined;
}

export interface OutlineOutOptions {
  /** With the words of the works; else only what they are cited for, in one’s own words. */
  quotations: boolean;
}

/** A paragraph of what a passage says: the work’s words or one’s own, and its citation behind those it belongs to. */
export interface Said {
  kind: 'quotation' | 'own';
  text: string;
  citation?: Run[];
}

/** The paragraphs of a passage. Without quotations, a passage that has no words of one’s own is its citation alone. */
export function paragraphsOfPassage(passage: PassageOut, { quotations }: OutlineOutOptions): Said[] {
  const { quotation, own } = partsOfPassage(passage);
  const ownCited = citesOwn(passage) || !quotations;
  const said: Said[] = [];
  if (quotations && quotation)
    said.push({ kind: 'quotation', text: quotation, ...(ownCited ? {} : { citation: passage.citation }) });
  own.forEach((text, i) =>
    said.push({
      kind: 'own',
      text,
      ...(ownCited && i === own.length - 1 ? { citation: passage.citation } : {}),
    }),
  );
  if (ownCited && own.length === 0) said.push({ kind: 'own', text: '', citation: passage.citation });
  return said;
}

const md = (text: string): string => runsToMarkdown([{ text: inOneLine(withoutControls(text)) }]);
/** Headings go down to the sixth, in Markdown (CommonMark 0.31, 4.2) as in HTML. */
const level = (depth: number): number => Math.min(6, depth + 2);

/** An outline as Markdown (CommonMark 0.31): headings, quotes with their citations, paragraphs of one’s own. */
export function outlineToMarkdown(out: OutlineOut, options: OutlineOutOptions): string {
  const blocks = [`# ${md(out.title)}`];
  for (const line of out.lines)
    switch (line.kind) {
      case 'section':
        blocks.push(`${'#'.repeat(level(line.depth))} ${md(line.name)}`);
        break;
      case 'source':
        blocks.push(`- ${[md(line.title), runsToMarkdown(line.citation)].filter(Boolean).join(' ')}`);
        break;
      case 'passage':
        if (options.quotations && line.passage.figure?.png)
          blocks.push(`![${md(altOf(line.passage))}](data:image/png;base64,${line.passage.figure.png})`);
        for (const { kind, text, citation } of paragraphsOfPassage(line.passage, options))
          blocks.push(
            `${kind === 'quotation' ? '> ' : ''}${[md(text), citation ? runsToMarkdown(citation) : ''].filter(Boolean).join(' ')}`,
          );
        break;
      default:
        blocks.push(md(line.words));
    }
  if (out.references?.entries.length)
    blocks.push(markdownDocument(out.references, 'References').trimEnd().replace(/^# /, '## '));
  return `${blocks.filter(Boolean).join('\n\n')}\n`;
}

/** An outline as a whole HTML document. */
export function outlineDocument(out: OutlineOut, options: OutlineOutOptions): string {
  const parts: string[] = [];
  for (const line of out.lines)
    switch (line.kind) {
      case 'section':
        parts.push(
          `<h${level(line.depth)}>${escapeHtml(withoutControls(line.name))}</h${level(line.depth)}>`,
        );
        break;
      case 'source':
        parts.push(
          `<p class="source">${escapeHtml(withoutControls(line.title))} ${runsToHtml(line.citation)}</p>`,
        );
        break;
      case 'passage':
        if (options.quotations && line.passage.figure?.png)
          parts.push(
            `<img src="data:image/png;base64,${line.passage.figure.png}" alt="${escapeHtml(altOf(line.passage))}" width="${Math.round(Math.min(line.passage.figure.width / 2, 560))}">`,
          );
        for (const { kind, text, citation } of paragraphsOfPassage(line.passage, options)) {
          const html = `<p>${[escapeHtml(text), citation ? runsToHtml(citation) : ''].filter(Boolean).join(' ')}</p>`;
          parts.push(kind === 'quotation' ? `<blockquote>${html}</blockquote>` : html);
        }
        break;
      default:
        parts.push(
          `<p${line.kind === 'question' ? ' class="question"' : ''}>${escapeHtml(withoutControls(line.words))}</p>`,
        );
    }
  if (out.references?.entries.length) parts.push('<h2>References</h2>', listToHtml(out.references));
  return `<!doctype html>
<html lang="${escapeHtml(out.lang)}">
<head><meta charset="utf-8"><title>${escapeHtml(out.title)}</title>
<style>body{font-family:serif;max-width:40em;margin:2em auto;line-height:1.5}h1,h2,h3,h4,h5,h6{line-height:1.25}blockquote{margin:0 0 0.4em 1.5em}.question{font-style:italic}img{display:block;max-width:100%;height:auto}</style></head>
<body>
<h1>${escapeHtml(out.title)}</h1>
${parts.join('\n')}
</body>
</html>
`;
}

const attribute = (text: string): string => escapeHtml(inOneLine(withoutControls(text)));

/** An outline as OPML 2.0 (http://opml.org/spec2.opml): a section holds what stands under it; each has its `text`. */
export function outlineToOpml(out: OutlineOut, options: OutlineOutOptions): string {
  const lines: string[] = [];
  let open = 0;
  const indent = () => '  '.repeat(open + 2);
  const leaf = (text: string) => lines.push(`${indent()}<outline text="${attribute(text)}"/>`);
  for (const line of out.lines)
    switch (line.kind) {
      case 'section':
        while (open > line.depth) {
          open--;
          lines.push(`${indent()}</outline>`);
        }
        lines.push(`${indent()}<outline text="${attribute(line.name)}">`);
        open++;
        break;
      case 'source':
        leaf(`${line.title} ${runsToText(line.citation)}`.trim());
        break;
      case 'passage':
        for (const { text, citation } of paragraphsOfPassage(line.passage, options))
          leaf([text, citation ? runsToText(citation) : ''].filter(Boolean).join(' '));
        break;
      default:
        leaf(line.words);
    }
  while (open > 0) {
    open--;
    lines.push(`${indent()}</outline>`);
  }
  return `<?xml version="1.0" encoding="UTF-8"?>
<opml version="2.0">
  <head><title>${attribute(out.title)}</title></head>
  <body>
${lines.join('\n')}
  </body>
</opml>
`;
}
