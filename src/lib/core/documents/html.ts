import { escapeHtml, nfc } from '../text';
import { bodySize, compoundsOf, joined, linesOf, paragraphsOf } from './lines';
import type { Leaf } from './types';

const round = (n: number) => Math.round(n * 10) / 10;

/**
 * The document as the reader sets it: `section.leaf` with its number in the file (`data-leaf`), its printed label
 * (`data-page`, when known) and size in points; in it a `p` a paragraph and a `span.line` a line with left edge,
 * base line, width and size. The text of the spans is the document's text: words divided at a line's end are joined,
 * and the hyphen that is printed there is named by the class `divided`.
 */
export function readingHtml(leaves: Leaf[], labels: (string | undefined)[]): string {
  const body = bodySize(leaves);
  const words = compoundsOf(leaves);
  return leaves
    .map((leaf, i) => {
      const label = labels[i];
      const paragraphs = paragraphsOf(linesOf(leaf), body).map(({ lines }) => {
        const { parts } = joined(lines, words);
        const spans = lines.map((line, j) => {
          const divided = parts[j]!.length < line.text.length ? ' divided' : '';
          return `<span class="line${divided}" data-x="${round(line.x)}" data-y="${round(line.y)}" data-w="${round(line.width)}" data-s="${round(line.size)}">${escapeHtml(nfc(parts[j]!))}</span>`;
        });
        return `<p>${spans.join('')}</p>`;
      });
      return `<section class="leaf" data-leaf="${i + 1}"${label ? ` data-page="${escapeHtml(label)}"` : ''} data-width="${round(leaf.width)}" data-height="${round(leaf.height)}">${paragraphs.join('')}</section>`;
    })
    .join('');
}
