import { markdownDocument, runsToMarkdown } from '../citing';
import { inOneLine } from '../text';
import { withKeys } from './keys';
import { laidOut, type DraftOut, type Laid, type Stretch } from './layout';

/** With citekeys, to be printed by whoever reads it, or with citations and list as they print. */
export type Citing = 'keys' | 'printed';

const md = (text: string) => runsToMarkdown([{ text: inOneLine(text) }]);

/** What would begin a list, a heading or a quotation at the start of a line is no more than words. */
const begun = (text: string) =>
  text.replace(/^(\s*)(\d{1,9})([.)])(?=\s|$)/, '$1$2\\$3').replace(/^(\s*)([-+=:])/, '$1\\$2');

/** A draft as pandoc’s Markdown: headings, footnotes, tables, formulas; figures point at files `pictures/…png`. */
export function draftToMarkdown(out: DraftOut, citing: Citing): string {
  const notes: string[] = [];
  const sign = (number: number, content: string) => {
    notes.push(`[^${number}]: ${content || '…'}`);
    return `[^${number}]`;
  };
  const line = (stretches: readonly Stretch[]): string =>
    stretches
      .map((one) => {
        switch (one.is) {
          case 'runs': {
            if (one.code) return `\`${one.runs.map((r) => r.text.replace(/`/g, "'")).join('')}\``;
            const text = runsToMarkdown(one.runs);
            const said = one.strike ? `~~${text}~~` : text;
            return one.href ? `[${said}](<${one.href.replace(/[<>\s]/g, encodeURIComponent)}>)` : said;
          }
          case 'cite':
            if (citing === 'keys') return withKeys(one, out.keys);
            if (one.note !== undefined)
              return runsToMarkdown(one.author) + sign(one.note, runsToMarkdown(one.runs));
            return [runsToMarkdown(one.author), runsToMarkdown(one.runs)].filter(Boolean).join(' ');
          case 'note':
            return sign(one.number, line(one.content));
          case 'tex':
            return `$${inOneLine(one.tex).trim().replace(/\$/g, '\\$')}$`;
          case 'pointer':
            return md(one.name);
          case 'break':
            return '\\\n';
        }
      })
      .join('');
  const set = (text: string, before: string, rest = before) =>
    text
      .split('\n')
      .map((l, i) => (l || i === 0 ? (i === 0 ? before : rest) + l : rest.trimEnd()))
      .join('\n');
  const block = (one: Laid): string => {
    switch (one.is) {
      case 'heading':
        return `${'#'.repeat(Math.min(6, one.level + 1))} ${line(one.line).replace(/\\?\n/g, ' ')}`;
      case 'paragraph':
        return begun(line(one.line));
      case 'quotation':
        return set(one.content.map(block).join('\n\n'), '> ');
      case 'list':
        return one.items
          .map((item, i) => {
            const mark = one.ordered ? `${one.start + i}. ` : '- ';
            return set(item.map(block).join('\n\n'), mark, ' '.repeat(mark.length));
          })
          .join('\n');
      case 'table': {
        // Cells of pipe tables are one line each (Pandoc User’s Guide, "Extension: pipe_tables").
        const cell = (content: Laid[]) => inOneLine(content.map(block).join(' ')).replace(/(?<!\\)\|/g, '\\|');
        const rows = one.rows.map((row) =>
          row.flatMap(({ content, across }) => [cell(content), ...Array<string>(across - 1).fill('')]),
        );
        const wide = Math.max(1, ...rows.map((row) => row.length));
        const headed = one.rows[0]?.some((c) => c.head) ?? false;
        const all = headed ? rows : [Array<string>(wide).fill(''), ...rows];
        const lines = all.map(
          (row) => `| ${Array.from({ length: wide }, (_, i) => row[i] ?? '').join(' | ')} |`,
        );
        lines.splice(1, 0, `|${' --- |'.repeat(wide)}`);
        return `${lines.join('\n')}\n\n: ${[one.name, inOneLine(line(one.caption))].filter(Boolean).join('. ')}`;
      }
      case 'figure': {
        const caption = [`**${md(one.name)}.**`, inOneLine(line(one.caption)), line(one.line)].filter(Boolean).join(' ');
        return one.picture
          ? `![${md(one.alt)}](pictures/${one.file}.png)\\\n${caption}`
          : caption;
      }
      case 'formula':
        return `$$${one.tex.trim().replace(/\n\s*\n/g, '\n').replace(/\$/g, '\\$')}$$`;
      case 'code':
        return `~~~~~~\n${one.text.replace(/^~{6,}/gm, '~~~~~')}\n~~~~~~`;
      case 'rule':
        return '* * *';
    }
  }; // prettier-ignore
  const blocks = laidOut(out).map(block).filter(Boolean);
  const list =
    out.list?.entries.length && citing === 'printed'
      ? markdownDocument(out.list, 'References').trimEnd().replace(/^# /, '## ')
      : citing === 'keys'
        ? '## References\n\n::: {#refs}\n:::'
        : '';
  const title = `---\ntitle: ${JSON.stringify(out.title)}\nlang: ${out.lang}\n${citing === 'keys' ? 'bibliography: references.json\n' : ''}---`;
  return `${[title, ...blocks, ...notes, list].filter(Boolean).join('\n\n')}\n`;
}
