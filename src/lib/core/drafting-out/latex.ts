import { entryRuns, runsToLatex } from '../citing';
import type { CitedWork } from '../drafting';
import { locatorText, type Locator } from '../passages';
import { laidOut, type DraftOut, type Laid, type Stretch } from './layout';
import type { Citing } from './markdown';

const tex = (text: string) => runsToLatex([{ text }]);
/** Keys as biblatex takes them: what would end the argument, or begin another, is no part of one. */
const keyed = (key: string) => key.replace(/[\s,{}\\%#~"']/g, '');

/** The place of a work as the note behind its citation; pages are numbers alone, which biblatex names itself. biblatex 3.19, 3.9.1. */
function postnote({ label = 'page', locator, suffix }: CitedWork): string {
  const place = locator
    ? label === 'page'
      ? tex(locator)
      : tex(locatorText({ label: label as Locator['label'], value: locator }))
    : '';
  const words = suffix?.trim().replace(/^,\s*/, '') ?? '';
  return [place, tex(words)].filter(Boolean).join(', ');
}

/** A citation as a command of biblatex: in brackets, in the sentence, without its author. biblatex 3.19, 3.9.1 to 3.9.3. */
function command(
  { works, named }: Extract<Stretch, { is: 'cite' }>,
  keys: ReadonlyMap<string, string>,
  inNotes: boolean,
  footcite = 'footcite',
): string {
  const args = (work: CitedWork) => {
    const before = work.prefix?.trim() ? tex(work.prefix.trim()) : '';
    const after = postnote(work);
    const key = `{${keyed(keys.get(work.id) ?? work.id)}}`;
    const brace = (said: string) => (/[[\]]/.test(said) ? `{${said}}` : said);
    return before ? `[${brace(before)}][${brace(after)}]${key}` : after ? `[${brace(after)}]${key}` : key;
  };
  const [first, ...others] = works;
  if (!first) return '';
  const name = named ? 'textcite' : inNotes ? footcite : 'parencite';
  if (others.length) return `\\${name}s${works.map(args).join('')}`;
  return `\\${name}${first.withoutAuthor && !named && !inNotes ? '*' : ''}${args(first)}`;
}

const SECTIONS = ['section', 'subsection', 'subsubsection', 'paragraph', 'subparagraph', 'subparagraph'];

/** What stands in a label: letters and figures alone. */
const labelled = (id: string) => id.replace(/[^A-Za-z0-9-]/g, '');

/** A draft as a LaTeX document: with commands of biblatex and `references.bib`, or with citations and list as they print. */
export function draftToLatex(out: DraftOut, citing: Citing): string {
  const laid = laidOut(out);
  const inNotes = laid.length > 0 && [...out.notes.keys()].some((id) => out.printed.has(id));
  /** The words of notes that stand in a float, which takes their signs alone. */
  let floating: string[] | undefined;
  const float = (text: string): string => {
    floating?.push(text);
    return '\\protect\\footnotemark{}';
  };
  const noted = (words: string): string =>
    floating ? float(`\\footnotetext{${words}}`) : `\\footnote{${words}}`;
  const line = (stretches: readonly Stretch[]): string =>
    stretches
      .map((one) => {
        switch (one.is) {
          case 'runs': {
            let text = runsToLatex(one.runs);
            if (one.code) text = `\\texttt{${text}}`;
            if (one.strike) text = `\\sout{${text}}`;
            return one.href
              ? `\\href{${one.href.replace(/[\\{}^\s]/g, encodeURIComponent).replace(/[%#]/g, '\\$&')}}{${text}}`
              : text;
          }
          case 'cite':
            if (citing === 'keys') {
              const inNote = inNotes && one.note !== undefined;
              return floating && inNote && !one.named
                ? float(command(one, out.keys, true, 'footcitetext'))
                : command(one, out.keys, inNote);
            }
            if (one.note !== undefined) return runsToLatex(one.author) + noted(runsToLatex(one.runs));
            return [runsToLatex(one.author), runsToLatex(one.runs)].filter(Boolean).join(' ');
          case 'note':
            return noted(line(one.content) || '\\ldots');
          case 'tex':
            return `\\(${one.tex}\\)`;
          case 'pointer':
            return tex(one.name);
          case 'break':
            return '\\\\\n';
        }
      })
      .join('');
  /** The caption of a float; what lists of floats say of it is its words alone. */
  const captionOf = (one: Extract<Laid, { caption: Stretch[] }>): string => {
    const all = [line(one.caption), 'line' in one ? line(one.line) : ''].filter(Boolean).join(' ');
    const words = one.caption.flatMap((c) => (c.is === 'runs' ? c.runs : []));
    const bare = one.caption.every((c) => c.is === 'runs') && !('line' in one && one.line.length);
    return `\\caption${bare ? '' : `[{${runsToLatex(words).trim()}}]`}{${all}}\\label{${labelled(one.id)}}`;
  };
  /** A float, and behind it the words of its notes under the numbers their signs have. */
  const floats = (write: () => string): string => {
    // What floats in another goes with it.
    if (floating) return write();
    floating = [];
    const float = write();
    const notes = floating;
    floating = undefined;
    return notes.length
      ? `${float}\n\\addtocounter{footnote}{-${notes.length}}${notes.map((n) => `\\stepcounter{footnote}${n}`).join('')}`
      : float;
  };
  const block = (one: Laid): string => {
    switch (one.is) {
      case 'heading':
        return `\\${SECTIONS[Math.min(one.level, 6) - 1]!}{${line(one.line).replace(/\\\\\n/g, ' ')}}\\label{${labelled(one.id)}}`;
      case 'paragraph':
        return line(one.line);
      case 'quotation':
        return `\\begin{quote}\n${one.content.map(block).join('\n\n')}\n\\end{quote}`;
      case 'list': {
        const name = one.ordered ? 'enumerate' : 'itemize';
        const items = one.items.map((item) => `\\item ${item.map(block).join('\n\n')}`);
        return `\\begin{${name}}\n${items.join('\n')}\n\\end{${name}}`;
      }
      case 'table':
        return floats(() => {
        const wide = Math.max(
          1,
          ...one.rows.map((row) => row.reduce((sum, { across }) => sum + across, 0)),
        );
        const caption = captionOf(one);
        const rows = one.rows.map((row) =>
          row
            .map(({ across, head, content }) => {
              const said = content.map(block).join(' ');
              const text = head && said ? `\\textbf{${said}}` : said;
              return across > 1 ? `\\multicolumn{${across}}{l}{${text}}` : text;
            })
            .join(' & '),
        );
        const width = `p{${(0.92 / wide).toFixed(3)}\\linewidth}`;
        return `\\begin{table}[htbp]\n${caption}\n\\begin{tabular}{${width.repeat(wide)}}\n\\hline\n${rows.join(' \\\\\n')} \\\\\n\\hline\n\\end{tabular}\n\\end{table}`;
        });
      case 'figure':
        return floats(() => `\\begin{figure}[htbp]\n\\centering\n${one.picture ? `\\includegraphics[width=\\linewidth,height=0.6\\textheight,keepaspectratio]{pictures/${one.file}.png}\n` : ''}${captionOf(one)}\n\\end{figure}`);
      case 'formula':
        return `\\[${one.tex.replace(/\n\s*\n/g, '\n')}\\]`;
      case 'code':
        return `\\begin{verbatim}\n${one.text.replaceAll('\\end{verbatim}', '\\end {verbatim}')}\n\\end{verbatim}`;
      case 'rule':
        return '\\begin{center}\\rule{0.3\\linewidth}{0.4pt}\\end{center}';
    }
  };
  const list =
    citing === 'keys'
      ? '\\printbibliography'
      : out.list?.entries.length
        ? `\\section*{References}\n${out.list.hangingIndent ? '\\setlength{\\parindent}{-2em}\\setlength{\\leftskip}{2em}' : '\\setlength{\\parindent}{0pt}'}\n${out.list.entries.map((e) => runsToLatex(entryRuns(e))).join('\n\n')}`
        : '';
  return `\\documentclass{article}
\\usepackage{iftex}
\\ifPDFTeX\\usepackage[T1]{fontenc}\\usepackage[utf8]{inputenc}\\else\\usepackage{fontspec}\\fi
\\usepackage{amsmath,graphicx}
\\usepackage[normalem]{ulem}
${citing === 'keys' ? `\\usepackage[style=${inNotes ? 'verbose-note' : 'authoryear'}]{biblatex}\n\\addbibresource{references.bib}\n` : ''}\\usepackage{hyperref}
\\title{${tex(out.title)}}
\\date{}
\\begin{document}
\\maketitle
${[...laid.map(block), list].filter(Boolean).join('\n\n')}
\\end{document}
`;
} // prettier-ignore
