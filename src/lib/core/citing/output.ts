import { escapeHtml } from '../text';
import type { PrintedList, PrintedReference } from './printer';
import { runsToHtml, runsToLatex, runsToMarkdown, runsToRtf, runsToText } from './runs';

const labelled = (e: PrintedReference) => (e.label ? `${e.label.trim()} ` : '');

/** Columns of a wrapped plain text, and how far lines after the first hang in. */
const COLUMNS = 78;
const HANG = 4;

function hung(text: string): string {
  const lines: string[] = [];
  for (const word of text.split(' ')) {
    const last = lines[lines.length - 1];
    const room = COLUMNS - (lines.length > 1 ? HANG : 0);
    if (last !== undefined && [...last].length + 1 + [...word].length <= room)
      lines[lines.length - 1] = `${last} ${word}`;
    else lines.push(word);
  }
  return lines.join(`\n${' '.repeat(HANG)}`);
}

/**
 * A list as plain text, an empty line between entries. With `wrap`, lines are broken at 78 columns and those after the
 * first hang in by four spaces, where the style has a hanging indent; without, each entry is one line, as a word
 * processor wants it.
 */
export function listToText(list: PrintedList, options: { wrap?: boolean } = {}): string {
  const entries = list.entries.map((e) => labelled(e) + runsToText(e.runs));
  return (options.wrap && list.hangingIndent ? entries.map(hung) : entries).join('\n\n') + '\n';
}

/** A list as an HTML fragment that keeps its look when pasted: styles are in the elements. */
export function listToHtml(list: PrintedList): string {
  const indent = list.hangingIndent ? 'margin:0 0 0.6em 2em;text-indent:-2em' : 'margin:0 0 0.6em 0';
  return list.entries
    .map((e) => `<p style="${indent}">${escapeHtml(labelled(e))}${runsToHtml(e.runs, { links: true })}</p>`)
    .join('\n');
}

/** A list as a whole HTML document. `lang` is the list's language. */
export function htmlDocument(list: PrintedList, title: string, lang: string): string {
  return `<!doctype html>
<html lang="${escapeHtml(lang)}">
<head><meta charset="utf-8"><title>${escapeHtml(title)}</title></head>
<body style="font-family:serif;max-width:40em;margin:2em auto;line-height:1.5">
<h1 style="font-size:1.2em;text-align:center">${escapeHtml(title)}</h1>
${listToHtml(list)}
</body>
</html>
`;
}

/** A list as an RTF document, hanging indent of half an inch (720 twips). */
export function rtfDocument(list: PrintedList, title: string): string {
  const indent = list.hangingIndent ? '\\li720\\fi-720' : '';
  const paragraph = (body: string) => `{\\pard${indent}\\sa120 ${body}\\par}`;
  const entries = list.entries.map((e) => paragraph(runsToRtf([{ text: labelled(e) }, ...e.runs])));
  return `{\\rtf1\\ansi\\ansicpg1252\\uc1\\deff0{\\fonttbl{\\f0\\froman Times New Roman;}}\n{\\pard\\qc\\b\\sa240 ${runsToRtf([{ text: title }])}\\par}\n${entries.join('\n')}\n}\n`;
}

/** A list as Markdown: a heading, a paragraph an entry. */
export function markdownDocument(list: PrintedList, title: string): string {
  const entries = list.entries.map((e) => runsToMarkdown([{ text: labelled(e) }, ...e.runs]));
  // A label such as `1.` or `[1]` at the start of a line would be read as a list or a link.
  const guarded = entries.map((e) => e.replace(/^(\d+)([.)])/, '$1\\$2').replace(/^([-+])/, '\\$1'));
  return `# ${title}\n\n${guarded.join('\n\n')}\n`;
}

/** A list as a LaTeX document; compiled by pdflatex, xelatex or lualatex with hyperref. */
export function latexDocument(list: PrintedList, title: string): string {
  const indent = list.hangingIndent
    ? '\\setlength{\\parindent}{-2em}\\setlength{\\leftskip}{2em}'
    : '\\setlength{\\parindent}{0pt}';
  const entries = list.entries.map((e) => runsToLatex([{ text: labelled(e) }, ...e.runs]));
  return `\\documentclass{article}
\\usepackage{iftex}
\\ifpdftex\\usepackage[utf8]{inputenc}\\usepackage[T1]{fontenc}\\fi
\\usepackage[hidelinks]{hyperref}
\\begin{document}
\\section*{${runsToLatex([{ text: title }])}}
${indent}\\setlength{\\parskip}{0.6em}

${entries.join('\n\n')}

\\end{document}
`;
}
