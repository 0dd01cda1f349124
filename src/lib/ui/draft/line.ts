import type { Node as PmNode } from '@tiptap/pm/model';
import { captionIn, type Block, type Inline, type Mark } from '$lib/core/drafting';
import { escapeHtml } from '$lib/core/text';
import { mathHtml } from './maths';
import type { Showing } from './showing';

const LOOKS: Partial<Record<Mark['type'], string>> = { bold: 'b', italic: 'i', underline: 'u', strike: 's', code: 'code' }; // prettier-ignore

/** A line of a draft as it reads now, as HTML. */
export const lineHtml = (content: readonly Inline[], showing: Showing): string =>
  content
    .map((one) => {
      switch (one.type) {
        case 'text':
          return (one.marks ?? []).reduce((html, mark) => {
            const look = LOOKS[mark.type];
            return look ? `<${look}>${html}</${look}>` : html;
          }, escapeHtml(one.text));
        case 'hardBreak':
          return '<br>';
        case 'cite':
          return showing.citation(one.attrs.id, one.attrs.works).html;
        case 'footnote':
          return `<sup>${showing.note(one.attrs.id) ?? '*'}</sup>`;
        case 'formula':
          return mathHtml(one.attrs.tex);
        case 'crossref':
          return escapeHtml(showing.name(one.attrs.to) ?? 'what is gone');
      }
    })
    .join('');

/** What is said of a figure or a table in the editor. */
export const captionOf = ({ type, attrs }: PmNode): Inline[] =>
  captionIn({ type: type.name, attrs } as unknown as Block);

/** What a line is drawn from, by the names it is watched by. */
export const watchedIn = (content: readonly Inline[]): string[] =>
  content.flatMap((one) =>
    one.type === 'cite' || one.type === 'footnote'
      ? [one.attrs.id]
      : one.type === 'crossref'
        ? [`name ${one.attrs.to}`]
        : [],
  );
