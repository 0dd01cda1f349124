/** Leaves as the HTML the CSL test suite is written in: tags in each other as the style’s elements are. */
import type { Frame, Leaf } from '../../src/lib/core/csl';

const escape = (text: string) => text.replace(/&/g, '&#38;').replace(/</g, '&#60;').replace(/>/g, '&#62;');

function tagsOf({ look = {}, piece: { display } }: Frame): [open: string, close: string] {
  const pairs: [string, string][] = [];
  const span = (style: string) => pairs.push([`<span style="${style}">`, '</span>']);
  if (display) pairs.push([`<div class="csl-${display}">`, '</div>']);
  if (look.align === 'sup') pairs.push(['<sup>', '</sup>']);
  if (look.align === 'sub') pairs.push(['<sub>', '</sub>']);
  if (look.align === 'baseline') span('baseline');
  if (look.decoration === 'underline') span('text-decoration:underline;');
  if (look.decoration === 'none') span('text-decoration:none;');
  if (look.weight === 'bold') pairs.push(['<b>', '</b>']);
  else if (look.weight) span(`font-weight:${look.weight};`);
  if (look.variant) span(`font-variant:${look.variant};`);
  if (look.style === 'italic') pairs.push(['<i>', '</i>']);
  if (look.style === 'oblique') pairs.push(['<em>', '</em>']);
  if (look.style === 'normal') span('font-style:normal;');
  return [
    pairs.map(([o]) => o).join(''),
    pairs
      .map(([, c]) => c)
      .reverse()
      .join(''),
  ];
}

function around(frame: Frame | undefined): Frame[] {
  const frames: Frame[] = [];
  for (let f = frame; f; f = f.parent) if (f.look || f.piece.display) frames.unshift(f);
  return frames;
}

export function suiteHtml(leaves: Leaf[]): string {
  let html = '';
  const open: Frame[] = [];
  const closeTo = (depth: number) => {
    while (open.length > depth) html += tagsOf(open.pop()!)[1];
  };
  for (const leaf of leaves) {
    const frames = around(leaf.frame);
    let same = 0;
    while (same < open.length && same < frames.length && open[same] === frames[same]) same++;
    closeTo(same);
    for (const frame of frames.slice(same)) {
      html += tagsOf(frame)[0];
      open.push(frame);
    }
    html += escape(leaf.text);
  }
  closeTo(0);
  return html;
}
