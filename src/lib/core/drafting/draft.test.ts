import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  blockWords,
  captionIn,
  checkDraft,
  citationsOf,
  citeItem,
  countWords,
  mergedOrder,
  namesOf,
  partContent,
  placed,
  quotesTruly,
  readPart,
  sectionsOf,
  textOfBlock,
  typedPlace,
  typedWork,
  worksCited,
  type Block,
  type DraftAround,
  type DraftPart,
  type Inline,
  type Material,
} from './index';

let n = 0;
const cite = (works: string | string[], more: Partial<{ named: boolean; locator: string }> = {}): Inline => ({
  type: 'cite',
  attrs: {
    id: `c${++n}`,
    works: [works].flat().map((id) => ({ id, ...(more.locator ? { locator: more.locator } : {}) })),
    named: more.named ?? false,
  },
});
const text = (words: string, passage?: string): Inline => ({
  type: 'text',
  text: words,
  ...(passage ? { marks: [{ type: 'passage', attrs: { id: passage, as: 'quotation' } }] } : {}),
});
const paragraph = (...content: Inline[]): Block => ({ type: 'paragraph', content });
const heading = (level: number, words: string, goal?: number): Block => ({
  type: 'heading',
  attrs: { level, ...(goal ? { goal } : {}) },
  content: [text(words)],
});
const parts = (...blocks: Block[]): DraftPart[] => blocks.map((content, i) => ({ id: `p${i}`, content }));
const reads = (...blocks: Block[]) => parts(...blocks).map(readPart);

describe('what is typed to cite', () => {
  it.each([
    ['fitch sluices', { wanted: 'fitch sluices' }],
    ['see also Fitch', { wanted: 'Fitch', prefix: 'see also' }],
    ['cf. -fitch', { wanted: 'fitch', prefix: 'cf.', withoutAuthor: true }],
    ['vgl. Müller', { wanted: 'Müller', prefix: 'vgl.' }],
    ['@fitch2001', { wanted: 'fitch2001' }],
    // A word that only begins so is looked for.
    ['seed banks', { wanted: 'seed banks' }],
  ])('%s', (typed, expected) => expect(typedWork(typed)).toEqual(expected));

  it.each([
    ['12-14', { label: 'page', locator: '12-14' }],
    ['ch. 3, on the sluice', { label: 'chapter', locator: '3', suffix: ', on the sluice' }],
    ['emphasis added', { suffix: 'emphasis added' }],
    ['', {}],
  ])('its place: %s', (typed, expected) => expect(typedPlace(typed)).toEqual(expected));

  it('stands apart from the words around it', () => {
    expect(citeItem({ id: 'a', locator: ' 7 ', prefix: 'see', suffix: 'passim', withoutAuthor: true })).toEqual({
      id: 'a', locator: '7', label: 'page', prefix: 'see ', suffix: ' passim', 'suppress-author': true,
    }); // prettier-ignore
    expect(citeItem({ id: 'a', suffix: ', passim', prefix: ' ' })).toEqual({ id: 'a', suffix: ', passim' });
  });
});

describe('a part as it is kept', () => {
  it('is what the editor may hold, and nothing else of it', () => {
    const given = { type: 'paragraph', attrs: { id: 'x', textAlign: 'left' }, content: [{ type: 'text', text: 'a', marks: [{ type: 'link', attrs: { href: 'https://a.example', target: '_blank' } }] }] }; // prettier-ignore
    expect(partContent.parse(given)).toEqual({
      type: 'paragraph', attrs: { id: 'x' }, content: [{ type: 'text', text: 'a', marks: [{ type: 'link', attrs: { href: 'https://a.example' } }] }],
    }); // prettier-ignore
  });
  it.each([
    ['no such node', { type: 'script' }],
    ['a link that runs', { type: 'paragraph', content: [{ type: 'text', text: 'a', marks: [{ type: 'link', attrs: { href: 'javascript:x' } }] }] }],
    ['empty text', { type: 'paragraph', content: [{ type: 'text', text: '' }] }],
    ['nothing', null],
  ])('refuses %s', (_what, given) => expect(partContent.safeParse(given).success).toBe(false)); // prettier-ignore

  it('refuses what stands in itself endlessly, without going down to its end', () => {
    let deep: unknown = { type: 'paragraph' };
    for (let i = 0; i < 50_000; i++) deep = { type: 'blockquote', content: [deep] };
    expect(partContent.safeParse(deep).success).toBe(false);
  });
});

describe('reading a draft', () => {
  it('counts words as people do', () => {
    expect(countWords('The miller’s e-mail, 12.5 tides — and more.')).toBe(7);
    expect(countWords('潮汐磨坊')).toBe(4);
    expect(countWords('')).toBe(0);
  });

  it('has its citations in order, those of footnotes where the footnote stands', () => {
    const note: Inline = { type: 'footnote', attrs: { id: 'f', content: [text('More in '), cite('b')] } };
    const of = reads(
      paragraph(text('One '), cite('a'), note),
      { type: 'blockquote', attrs: { passage: 'q' }, content: [paragraph(text('Two'), cite(['c', 'a']))] },
    ); // prettier-ignore
    expect(worksCited(of)).toEqual(['a', 'b', 'c']);
    const inText = citationsOf(of, { notes: false });
    expect(inText.citations.map((c) => [c.cites.map((k) => k.id).join(), c.note])).toEqual([['a', 0], ['b', 1], ['c,a', 0]]); // prettier-ignore
    // In a style of notes a citation makes one, and one in a footnote stands in that.
    const inNotes = citationsOf(of, { notes: true });
    expect(inNotes.citations.map((c) => c.note)).toEqual([1, 2, 3]);
    expect([...inNotes.notes.values()]).toEqual([1, 2, 3]);
    expect(of[1]!.passages).toEqual(['q']);
  });

  it('knows its sections, how long they are with those under them, and what they are to be', () => {
    const of = sectionsOf(
      reads(paragraph(text('Before it.')), heading(1, 'Mills', 500), paragraph(text('One two three')), heading(2, 'Gates'), paragraph(text('Four five'), cite('a')), heading(1, 'Silt')),
    ); // prettier-ignore
    expect(of.map((s) => [s.name, s.words, s.whole, s.citations, s.goal])).toEqual([
      ['', 2, 2, 0, undefined], ['Mills', 3, 5, 0, 500], ['Gates', 2, 2, 1, undefined], ['Silt', 0, 0, 0, undefined],
    ]); // prettier-ignore
  });

  it('meets what a caption cites where it stands, and takes one of words alone as a line', () => {
    const line: Inline[] = [{ type: 'text', text: 'Ponds, after ' }, { type: 'cite', attrs: { id: 'in', works: [{ id: 'pell' }], named: false } }];
    const table: Block = { type: 'table', attrs: { caption: line }, content: [] };
    const figure: Block = { type: 'figure', attrs: { picture: 'd'.repeat(64), caption: 'Floors', alt: '', works: [], cite: 'f' } };
    const [one, two] = reads(table, figure);
    expect(one!.met).toEqual([{ what: 'cite', id: 'in', works: [{ id: 'pell' }], named: false }]);
    expect(two).toMatchObject({ met: [], passages: [], pictures: ['d'.repeat(64)], captioned: { as: 'figure', bare: false } });
    expect(captionIn(figure)).toEqual([{ type: 'text', text: 'Floors' }]);
    expect(textOfBlock(table)).toBe('Ponds, after ');
    // A citation alone says something; blanks say nothing.
    expect(reads({ ...table, attrs: { caption: line.slice(1) } })[0]!.captioned!.bare).toBe(false);
    expect(reads({ ...table, attrs: { caption: ' ' } })[0]!.captioned!.bare).toBe(true);
    for (const block of [table, figure]) expect(partContent.safeParse(block).success).toBe(true);
    expect(partContent.safeParse({ ...figure, attrs: { ...figure.attrs, picture: '../x' } }).success).toBe(false);
  }); // prettier-ignore

  it('calls figures and tables by their numbers, in the language of the text', () => {
    const figure: Block = { type: 'figure', attrs: { passage: 'f', caption: 'Floors', alt: '', works: [], cite: 'x' } };
    const table: Block = { type: 'table', attrs: { caption: 'Tides' }, content: [] };
    const of = reads(figure, table, figure, heading(1, 'Mills'));
    expect([...namesOf(of, 'en-US').values()]).toEqual(['Figure 1', 'Table 1', 'Figure 2', '“Mills”']);
    expect(namesOf(of, 'de-DE').get('p2')).toBe('Abbildung 2');
  }); // prettier-ignore
});

describe('the order of two windows', () => {
  it('keeps what the other put in where it stood', () => {
    expect(mergedOrder(['a', 'x', 'b', 'c', 'y'], ['c', 'a', 'n', 'b'], new Set())).toEqual(['c', 'y', 'a', 'x', 'n', 'b']); // prettier-ignore
    expect(mergedOrder(['x', 'a'], ['a'], new Set(['a']))).toEqual(['x']);
  });
  it('loses nothing and doubles nothing', () => {
    const ids = fc.uniqueArray(fc.constantFrom(...'abcdefghij'), { maxLength: 10 });
    fc.assert(
      fc.property(ids, ids, ids, (there, put, out) => {
        const gone = new Set(out);
        const merged = mergedOrder(there, put, gone);
        expect(new Set(merged).size).toBe(merged.length);
        expect(new Set(merged)).toEqual(new Set([...there, ...put].filter((id) => !gone.has(id))));
        // What the window put stands in its order.
        const kept = put.filter((id) => !gone.has(id));
        expect(merged.filter((id) => kept.includes(id))).toEqual(kept);
      }),
    );
  });
});

describe('a passage in a draft', () => {
  const material: Material = { id: 'q', sourceId: 's', kind: 'quotation', exact: 'The “gates” stood open.', wording: null, gist: 'Open', ownWords: '', locator: { label: 'page', value: '7' }, figure: null }; // prettier-ignore
  const as = (given: Partial<Material>, words = 40) =>
    placed({ ...material, ...given }, { quotes: ['“', '”'], words, newId: () => 'new' });
  it('is quoted with its citation and knows where it came from', () => {
    expect(as({})).toEqual({
      inline: [
        text('“'),
        text('The ‘gates’ stood open.', 'q'),
        text('” '),
        {
          type: 'cite',
          attrs: { id: 'new', works: [{ id: 's', label: 'page', locator: '7' }], named: false },
        },
      ],
    });
  });
  it('is set apart from the length on that the style says', () => {
    const long = as({ exact: `${'word '.repeat(40)}` });
    expect('blocks' in long && long.blocks[0]).toMatchObject({ type: 'blockquote', attrs: { passage: 'q' } });
    // APA 7, 8.27 (from memory): forty words or more.
    expect([blockWords('apa'), blockWords('chicago-author-date')]).toEqual([40, 100]);
    expect('inline' in as({ exact: 'word '.repeat(39) })).toBe(true);
  });
  it('is one’s own words where it has some, and a figure with its caption', () => {
    const own = as({ kind: 'paraphrase', ownWords: 'They were never shut.' });
    expect('inline' in own && own.inline[0]).toEqual({ type: 'text', text: 'They were never shut.', marks: [{ type: 'passage', attrs: { id: 'q', as: 'own' } }] }); // prettier-ignore
    const figure = as({
      kind: 'figure',
      exact: 'Pond floors',
      figure: { number: 'Figure 3', alt: 'A chart' },
    });
    expect('blocks' in figure && figure.blocks[0]).toMatchObject({ type: 'figure', attrs: { caption: 'Pond floors', alt: 'A chart', passage: 'q' } }); // prettier-ignore
  });
});

describe('the checks of a draft', () => {
  const exact = 'None of them knew that the marsh was protected.';
  const around: DraftAround = {
    works: new Map([
      ['a', { label: 'Pell 2001', lacks: [], retracted: false }],
      ['b', { label: 'Ng 2004', lacks: ['publisher'], retracted: true }],
    ]),
    at: { old: 'a' },
    passages: new Map([
      ['q', { sourceId: 'a', exact, wording: null, placed: true }],
      ['u', { sourceId: 'a', exact, wording: null, placed: false }],
    ]),
    related: [],
    listed: [],
    blockWords: 40,
  };
  const found = (blocks: Block[], more: Partial<DraftAround> = {}) =>
    checkDraft(parts(...blocks), { ...around, ...more }).map(({ check, part }) => `${check} ${part}`.trim());

  it('have nothing to say of what is right', () => {
    expect(
      found([paragraph(text('“'), text(exact, 'q'), text('” '), cite('old', { locator: '7' }))]),
    ).toEqual([]);
  });
  it.each<[string, Block[], Partial<DraftAround>, string[]]>([
    ['a work that is gone', [paragraph(cite('x'))], {}, ['work-gone p0']],
    ['what its record lacks, once', [paragraph(cite('b')), paragraph(cite('b'))], {}, ['fields-missing p0', 'retracted p0']],
    ['other words than the passage’s', [paragraph(text('None of us knew that', 'q'), cite('a'))], {}, ['quotation-differs p0']],
    ['no citation beside it', [paragraph(text(exact, 'q')), paragraph(cite('a'))], {}, ['quotation-uncited p0']],
    ['no place', [paragraph(text(exact, 'u'), cite('a'))], {}, ['quotation-without-place p0']],
    ['a place at the citation alone is one', [paragraph(text(exact, 'u'), cite('a', { locator: '3' }))], {}, []],
    ['set apart too soon', [{ type: 'blockquote', attrs: { passage: 'q' }, content: [paragraph(text(exact), cite('a'))] }], {}, ['block-too-short p0']],
    ['run in too long', [paragraph(text(exact, 'q'), cite('a'))], { blockWords: 5 }, ['quotation-too-long p0']],
    ['a passage that is gone', [paragraph(text('x', 'gone'), cite('a'))], {}, ['passage-gone p0']],
    ['a section on nothing', [heading(1, 'Silt'), paragraph(text('silt '.repeat(90)))], {}, ['section-uncited p0']],
    ['two versions', [paragraph(cite(['a', 'b']))], { related: [{ a: 'a', b: 'b', words: 'preprint' }] }, ['fields-missing p0', 'retracted p0', 'both-versions']],
    ['a work in the list alone', [paragraph(cite('a'))], { listed: ['b', 'old'] }, ['listed-uncited']],
    ['a pointer to nothing', [paragraph({ type: 'crossref', attrs: { to: 'p9' } })], {}, ['points-nowhere p0']],
    ['a table without a caption', [{ type: 'table', content: [] }], {}, ['without-caption p0']],
  ])('find %s', (_what, blocks, more, expected) => expect(found(blocks, more)).toEqual(expected)); // prettier-ignore

  it('take what was left out or put in in brackets for what it is', () => {
    const known = { exact: 'The gates, which the miller built in spring, stood open.', wording: null };
    expect(quotesTruly('the gates […] stood open', known)).toBe(true);
    expect(quotesTruly('The gates … stood open.', known)).toBe(true);
    expect(quotesTruly('The gates, which [he] dug in spring', known)).toBe(false);
    expect(quotesTruly('The gates, which [the miller] built in spring', known)).toBe(true);
    expect(quotesTruly('stood open […] the gates', known)).toBe(false);
    expect(quotesTruly('The “gates”, which the miller', known)).toBe(true);
  });
});
