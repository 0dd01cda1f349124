import { escapeHtml, inOneLine, withoutControls } from '../text';
import type { PrintedList, PrintedReference } from './printer';
import { runsToHtml, runsToLatex, runsToMarkdown, runsToRtf, runsToText, type Run } from './runs';

/** The heading of a list, where none is given. */
export const HEADING = 'References';

/** The runs of an entry with its label before them, a number or letters, where the style has one. */
export const entryRuns = (entry: Pick<PrintedReference, 'label' | 'runs'>): Run[] =>
  entry.label ? [{ text: labelled(entry) }, ...entry.runs] : entry.runs;

const labelled = (e: Pick<PrintedReference, 'label'>) =>
  e.label ? `${withoutControls(e.label).trim()} ` : '';

/** Columns of a wrapped plain text, and how far lines after the first hang in. */
const COLUMNS = 78;
const HANG = 4;

/** How many characters a word has. */
const widthOf = (word: string) => (/[\ud800-\udfff]/.test(word) ? [...word].length : word.length);

function hung(text: string): string {
  let lines = '';
  let begin = 0;
  let wide = -1;
  for (let from = 0; from <= text.length;) {
    const blank = text.indexOf(' ', from);
    const to = blank < 0 ? text.length : blank;
    const more = widthOf(text.slice(from, to));
    if (wide >= 0 && wide + 1 + more > COLUMNS - (begin > 0 ? HANG : 0)) {
      lines += `${text.slice(begin, from - 1)}\n${' '.repeat(HANG)}`;
      begin = from;
      wide = more;
    } else wide += 1 + more;
    from = to + 1;
  }
  return lines + text.slice(begin);
}

/** Writes a list in order: what each kind of paragraph becomes is up to the format. */
function paragraphs(
  list: PrintedList,
  write: {
    heading(text: string): string;
    entry(entry: PrintedReference): string;
    annotation(text: string): string;
  },
): string[] {
  const out: string[] = [];
  for (const e of list.entries) {
    if (e.heading) out.push(write.heading(withoutControls(e.heading)));
    out.push(write.entry(e));
    for (const a of e.annotations ?? []) out.push(write.annotation(withoutControls(a.text)));
  }
  return out;
}

/**
 * A list as plain text, an empty line between paragraphs. With `wrap`, lines are broken at 78 columns and those after the
 * first hang in by four spaces, where the style has a hanging indent; without, each entry is one line, as a word
 * processor wants it. Annotations are indented.
 */
export function listToText(list: PrintedList, options: { wrap?: boolean } = {}): string {
  const hang = options.wrap && list.hangingIndent;
  const all = paragraphs(list, {
    heading: (text) => text,
    entry: (e) => (hang ? hung(labelled(e) + runsToText(e.runs)) : labelled(e) + runsToText(e.runs)),
    annotation: (text) => (options.wrap ? ' '.repeat(HANG) + hung(text) : ' '.repeat(HANG) + text),
  });
  return all.join('\n\n') + '\n';
}

/** A list as an HTML fragment that keeps its look when pasted: styles are in the elements. */
export function listToHtml(list: PrintedList): string {
  const indent = list.hangingIndent ? 'margin:0 0 0.6em 2em;text-indent:-2em' : 'margin:0 0 0.6em 0';
  return paragraphs(list, {
    heading: (text) => `<h2 style="font-size:1.05em;margin:1.2em 0 0.5em">${escapeHtml(text)}</h2>`,
    entry: (e) => `<p style="${indent}">${escapeHtml(labelled(e))}${runsToHtml(e.runs, { links: true })}</p>`,
    annotation: (text) => `<p style="margin:0 0 0.6em 2em">${escapeHtml(text)}</p>`,
  }).join('\n');
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
  const paragraph = (look: string, body: string) => `{\\pard${look}\\sa120 ${body}\\par}`;
  const all = paragraphs(list, {
    heading: (text) => paragraph('\\b\\sb240', runsToRtf([{ text }])),
    entry: (e) => paragraph(indent, runsToRtf([{ text: labelled(e) }, ...e.runs])),
    annotation: (text) => paragraph('\\li720', runsToRtf([{ text }])),
  });
  return `{\\rtf1\\ansi\\ansicpg1252\\uc1\\deff0{\\fonttbl{\\f0\\froman Times New Roman;}}\n{\\pard\\qc\\b\\sa240 ${runsToRtf([{ text: title }])}\\par}\n${all.join('\n')}\n}\n`;
}

/** What begins a line of Markdown as no more than words: `1.`, `-` and `+` would begin a list, `=` underline a heading. */
const beginning = (line: string) =>
  line
    .trimStart()
    .replace(/^(\d+)([.)])/, '$1\\$2')
    // Hyphens in a row would be read as a dash.
    .replace(/^(?:-+|[+=])/, (signs) => signs.replace(/./g, '\\$&'));

/** A list as Markdown: a heading, a paragraph an entry, annotations as quotes under it. */
export function markdownDocument(list: PrintedList, title: string): string {
  const all = paragraphs(list, {
    heading: (text) => `## ${runsToMarkdown([{ text }])}`,
    entry: (e) => beginning(runsToMarkdown([{ text: labelled(e) }, ...e.runs])),
    annotation: (text) => `> ${beginning(runsToMarkdown([{ text: inOneLine(text) }]))}`,
  });
  return `# ${runsToMarkdown([{ text: title }])}\n\n${all.join('\n\n')}\n`;
}

/** A list as a LaTeX document; compiled by pdflatex, xelatex or lualatex with hyperref. */
export function latexDocument(list: PrintedList, title: string): string {
  const indent = list.hangingIndent
    ? '\\setlength{\\parindent}{-2em}\\setlength{\\leftskip}{2em}'
    : '\\setlength{\\parindent}{0pt}';
  const all = paragraphs(list, {
    heading: (text) => `\\subsection*{${runsToLatex([{ text }])}}`,
    entry: (e) => runsToLatex([{ text: labelled(e) }, ...e.runs]),
    annotation: (text) => `\\begin{quote}${runsToLatex([{ text }])}\\end{quote}`,
  });
  return `\\documentclass{article}
\\usepackage{iftex}
\\ifpdftex\\usepackage[utf8]{inputenc}\\usepackage[T1]{fontenc}\\fi
\\usepackage[hidelinks]{hyperref}
\\begin{document}
\\section*{${runsToLatex([{ text: title }])}}
${indent}\\setlength{\\parskip}{0.6em}

${all.join('\n\n')}

\\end{document}
`;
}
