import { listToHtml, runsToHtml } from '../citing';
import { escapeHtml } from '../text';
import { laidOut, notesIn, type DraftOut, type Laid, type Stretch } from './layout';

/** How a formula of TeX is written in HTML: MathML by whoever can make it, else as it was typed. */
export type MathsOf = (tex: string, display: boolean) => string;

const asTyped: MathsOf = (tex) => `<code>${escapeHtml(tex)}</code>`;

/** A draft as a whole HTML document: headings, notes that lead there and back, captions, the list. */
export function draftDocument(out: DraftOut, maths: MathsOf = asTyped): string {
  const sign = (number: number) =>
    `<sup id="r${number}"><a href="#n${number}" role="doc-noteref">${number}</a></sup>`;
  const line = (stretches: readonly Stretch[]): string =>
    stretches
      .map((one) => {
        switch (one.is) {
          case 'runs': {
            let html = runsToHtml(one.runs);
            if (one.code) html = `<code>${html}</code>`;
            if (one.strike) html = `<s>${html}</s>`;
            return one.href ? `<a href="${escapeHtml(one.href)}">${html}</a>` : html;
          }
          case 'cite':
            if (one.note !== undefined) return runsToHtml(one.author) + sign(one.note);
            return [runsToHtml(one.author), runsToHtml(one.runs)].filter(Boolean).join(' ');
          case 'note':
            return sign(one.number);
          case 'tex':
            return maths(one.tex, false);
          case 'pointer':
            return `<a href="#p-${escapeHtml(one.to)}">${escapeHtml(one.name)}</a>`;
          case 'break':
            return '<br>';
        }
      })
      .join('');
  const at = (id: string) => (id ? ` id="p-${escapeHtml(id)}"` : '');
  const block = (one: Laid): string => {
    switch (one.is) {
      case 'heading':
        return `<h${Math.min(6, one.level + 1)}${at(one.id)}>${line(one.line)}</h${Math.min(6, one.level + 1)}>`;
      case 'paragraph':
        return `<p>${line(one.line)}</p>`;
      case 'quotation':
        return `<blockquote>${one.content.map(block).join('\n')}</blockquote>`;
      case 'list': {
        const items = one.items.map((item) => `<li>${item.map(block).join('\n')}</li>`).join('\n');
        return one.ordered
          ? `<ol${one.start === 1 ? '' : ` start="${one.start}"`}>${items}</ol>`
          : `<ul>${items}</ul>`;
      }
      case 'table': {
        const caption = [one.name, line(one.caption)].filter(Boolean).join('. ');
        const rows = one.rows.map(
          (row) =>
            `<tr>${row
              .map(({ head, across, down, content }) => {
                const name = head ? 'th' : 'td';
                const spans = `${across > 1 ? ` colspan="${across}"` : ''}${down > 1 ? ` rowspan="${down}"` : ''}`;
                return `<${name}${spans}>${content.map(block).join('')}</${name}>`;
              })
              .join('')}</tr>`,
        );
        return `<table${at(one.id)}>${caption ? `<caption>${caption}</caption>` : ''}<tbody>${rows.join('\n')}</tbody></table>`;
      }
      case 'figure': {
        const picture = one.picture
          ? `<img src="data:image/png;base64,${one.picture.png}" alt="${escapeHtml(one.alt)}" width="${Math.round(Math.min(one.picture.width / 2, 600))}">`
          : '';
        return `<figure${at(one.id)}>${picture}<figcaption><b>${escapeHtml(one.name)}.</b> ${line(one.caption)} ${line(one.line)}</figcaption></figure>`;
      }
      case 'formula':
        return `<p class="formula">${maths(one.tex, true)}</p>`;
      case 'code':
        return `<pre><code>${escapeHtml(one.text)}</code></pre>`;
      case 'rule':
        return '<hr>';
    }
  };
  const laid = laidOut(out);
  const notes = notesIn(laid);
  const behind = [
    notes.length
      ? `<section role="doc-endnotes"><h2>Notes</h2><ol>${notes
          .map(
            (n) =>
              `<li id="n${n.number}" value="${n.number}">${line(n.content)} <a href="#r${n.number}" role="doc-backlink">↩</a></li>`,
          )
          .join('\n')}</ol></section>`
      : '',
    out.list?.entries.length ? `<h2>References</h2>\n${listToHtml(out.list)}` : '',
  ].filter(Boolean);
  return `<!doctype html>
<html lang="${escapeHtml(out.lang)}">
<head><meta charset="utf-8"><title>${escapeHtml(out.title)}</title>
<style>body{font-family:serif;max-width:40em;margin:2em auto;padding:0 1em;line-height:1.5}table{border-collapse:collapse}td,th{border:1px solid;padding:.2em .5em;text-align:left;vertical-align:top}figure{margin:1em 0}img{max-width:100%;height:auto}.formula{text-align:center}
@page{margin:25mm}@media print{body{max-width:none;margin:0;padding:0;font-size:11pt}h2,h3,h4,h5,h6{break-after:avoid}figure,tr,blockquote{break-inside:avoid}p{orphans:2;widows:2}a{color:inherit;text-decoration:none}[role=doc-backlink]{display:none}}</style>
</head>
<body>
<h1>${escapeHtml(out.title)}</h1>
${[...laid.map(block), ...behind].join('\n')}
</body>
</html>
`;
}
