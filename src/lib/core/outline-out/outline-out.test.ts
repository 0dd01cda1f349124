import { describe, expect, it } from 'vitest';
import type { PassageOut } from '../passages-out';
import {
  outlineDocument,
  outlineToMarkdown,
  outlineToOpml,
  paragraphsOfPassage,
  type OutlineOut,
} from './index';

const passage = (rest: Partial<PassageOut> = {}): PassageOut => ({
  kind: 'quotation', source: 'Pell 2001', citekey: 'pell2001', quotation: 'The gates stood open.', exact: 'The gates stood open.', gist: '',
  ownWords: '', locator: { label: 'page', value: '7' }, citation: [{ text: '(Pell, ' }, { text: '2001', italic: true }, { text: ', p. 7)' }],
  tint: 'claim', tags: [], sections: [], state: 'found', added: '', address: '', figure: null, ...rest,
}); // prettier-ignore
const OUT: OutlineOut = {
  title: 'Tide mills & ponds',
  lang: 'en-US',
  lines: [
    { kind: 'section', depth: 0, name: 'How they *work*' },
    { kind: 'sentence', depth: 0, words: 'Mills ground with the tide.' },
    { kind: 'passage', depth: 0, passage: passage() },
    { kind: 'section', depth: 1, name: 'Gates' },
    { kind: 'source', depth: 1, title: 'Sluices', citation: [{ text: '(Ng, 2020)' }] },
    { kind: 'section', depth: 0, name: 'Why they closed' },
    { kind: 'question', depth: 0, words: 'Whose "law"?' },
  ],
  references: undefined,
};

describe('an outline goes out', () => {
  it('as Markdown, what means something there escaped', () => {
    expect(outlineToMarkdown(OUT, { quotations: true }).split('\n\n')).toEqual([
      '# Tide mills \\& ponds',
      '## How they \\*work\\*',
      'Mills ground with the tide.',
      '> “The gates stood open.” (Pell, *2001*, p. 7)',
      '### Gates',
      '- Sluices (Ng, 2020)',
      '## Why they closed',
      'Whose "law"?\n',
    ]);
  });
  it('as HTML', () => {
    const html = outlineDocument(OUT, { quotations: true });
    expect(html).toContain(
      '<h3>Gates</h3>\n<p class="source">Sluices (Ng, 2020)</p>\n<h2>Why they closed</h2>',
    );
    expect(html).toContain(
      '<blockquote><p>“The gates stood open.” (Pell, <i>2001</i>, p. 7)</p></blockquote>',
    );
    expect(html).toContain('<p class="question">Whose &quot;law&quot;?</p>');
  });
  it('as OPML, whose sections hold what stands under them', () => {
    const opml = outlineToOpml(OUT, { quotations: true });
    const body = opml.slice(opml.indexOf('<body>') + 7, opml.indexOf('  </body>'));
    expect(body.split('\n').map((l) => l.slice(4))).toEqual([
      '<outline text="How they *work*">',
      '  <outline text="Mills ground with the tide."/>',
      '  <outline text="“The gates stood open.” (Pell, 2001, p. 7)"/>',
      '  <outline text="Gates">',
      '    <outline text="Sluices (Ng, 2020)"/>',
      '  </outline>',
      '</outline>',
      '<outline text="Why they closed">',
      '  <outline text="Whose &quot;law&quot;?"/>',
      '</outline>',
      '',
    ]);
  });
});

describe('what a passage says', () => {
  const said = (p: PassageOut, quotations: boolean) =>
    paragraphsOfPassage(p, { quotations }).map((s) => `${s.kind}: ${s.text}${s.citation ? ' (cited)' : ''}`);
  it('is cited once, with the words that are the work’s', () => {
    expect(said(passage({ gist: 'Open gates' }), true)).toEqual(['quotation: “The gates stood open.” (cited)', 'own: Open gates']); // prettier-ignore
    expect(said(passage({ kind: 'paraphrase', ownWords: 'Nobody shut them.' }), true)).toEqual(['quotation: “The gates stood open.”', 'own: Nobody shut them. (cited)']); // prettier-ignore
  });
  it('keeps its citation where quotations are left out', () => {
    expect(said(passage({ gist: 'Open gates' }), false)).toEqual(['own: Open gates (cited)']);
    expect(said(passage(), false)).toEqual(['own:  (cited)']);
  });
});
