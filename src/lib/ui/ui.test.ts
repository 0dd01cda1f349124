import { JSDOM } from 'jsdom';
import { describe, expect, it } from 'vitest';
import { describe as locate, textOf } from '$lib/core/passages';
import { parts } from './frame/differences';
import { signOf } from './source/findings';
import { listScope } from './lists/list-scope';
import { drawMarks, placeOf, readText } from './reader/marking';
import { preflight, type Checked } from './lists/preflight';

const docOf = (html: string) => new JSDOM(`<body>${html}</body>`).window.document;
const PAGE =
  '<h1>Ponds</h1><p>Within <i>six years</i> of a breach the floor had risen.</p><p>Owners gave reasons.</p>';
const passage = (doc: Document, id: string, words: string, tint: 'claim' | 'evidence' = 'claim') => {
  const { text } = textOf(doc.body);
  return { id, tint, selectors: locate(text, text.indexOf(words), text.indexOf(words) + words.length) };
};
const marks = (doc: Document) => {
  const found: Record<string, string> = {};
  for (const m of doc.querySelectorAll<HTMLElement>('mark'))
    found[m.dataset.passage!] = (found[m.dataset.passage!] ?? '') + m.textContent;
  return found;
};

describe('what is said before a list goes out', () => {
  const entry = (more: Partial<Checked>): Checked => ({ findings: [], missing: [], ...more });
  const pair = { a: '1', b: '2' };
  it('counts each entry once, for the gravest', () => {
    const said = preflight([
      entry({ findings: [{ pencil: 'blue' }, { pencil: 'red' }], twice: pair, missing: ['issue'] }),
      entry({ findings: [{ pencil: 'blue' }] }),
      entry({ twice: pair, missing: ['issue'] }),
      entry({ missing: ['issue', 'page'] }),
      entry({}),
    ]);
    expect(said.map((s) => s.words)).toEqual([
      '1 will print wrong',
      '2 to ask about',
      '1 lacks what this style prints',
    ]);
  });
  it('says nothing of a list that prints complete', () => expect(preflight([entry({})])).toEqual([]));
});

describe('marks in a page', () => {
  it('stand on their words, across elements, and leave the text as it was', () => {
    const doc = docOf(PAGE);
    const before = readText(doc).text;
    const { places } = drawMarks(doc, [
      passage(doc, 'a', 'six years of a breach'),
      passage(doc, 'b', 'Owners gave', 'evidence'),
    ]);
    expect(marks(doc)).toEqual({ a: 'six years of a breach', b: 'Owners gave' });
    expect(readText(doc).text).toBe(before);
    expect([...places.values()].map((p) => p.state)).toEqual(['found', 'found']);
    expect(doc.querySelector('mark[data-passage="b"]')?.className).toBe('evidence');
  });
  it('may overlap and lie within each other', () => {
    const doc = docOf(PAGE);
    drawMarks(doc, [
      passage(doc, 'a', 'Within six years of a breach'),
      passage(doc, 'b', 'years of'),
      passage(doc, 'c', 'breach the floor'),
    ]);
    expect(marks(doc)).toEqual({ a: 'Within six years of a breach', b: 'years of', c: 'breach the floor' });
  });
  it('are drawn anew without traces of the old', () => {
    const doc = docOf(PAGE);
    const before = doc.body.innerHTML;
    const list = [passage(doc, 'a', 'six years of')];
    for (let i = 0; i < 3; i++) drawMarks(doc, list);
    expect(doc.querySelectorAll('mark')).toHaveLength(2);
    drawMarks(doc, []);
    expect(doc.body.innerHTML).toBe(before);
  });
  it('are not drawn for a passage that is lost, and a selection not kept yet is', () => {
    const doc = docOf(PAGE);
    const gone = { ...passage(doc, 'a', 'six years'), selectors: locate('seven years', 0, 11) };
    const { places } = drawMarks(doc, [gone], [{ start: 0, end: 5 }]);
    expect(places.get('a')?.state).toBe('lost');
    expect(marks(doc)).toEqual({ new: 'Ponds' });
  });
  it('know their paragraph, or the printed page of their leaf', () => {
    const doc = docOf(PAGE);
    expect(placeOf(doc.querySelector('i')!.firstChild!)).toEqual({ label: 'paragraph', value: '1' });
    expect(placeOf(doc.querySelectorAll('p')[1]!.firstChild!)).toEqual({ label: 'paragraph', value: '2' });
    expect(placeOf(doc.querySelector('h1')!.firstChild!)).toBeUndefined();
    const leaves = docOf(
      '<section class="leaf" data-page="xii"><p><span>a</span></p></section><section class="leaf"><p>b</p></section>',
    );
    expect(placeOf(leaves.querySelector('span')!.firstChild!)).toEqual({ label: 'page', value: 'xii' });
    expect(placeOf(leaves.querySelectorAll('p')[1]!.firstChild!)).toBeUndefined();
  });
});

describe('differences', () => {
  const show = (a: string, b: string) =>
    parts(a, b)
      .map((p) => (p.differs ? `[${p.text}]` : p.text))
      .join('');
  it.each([
    ['2021, November', '2021', '2021[, November]'],
    ['Ng, T. H.', 'Ng, Tsz Ho', 'Ng, T[.] H[.]'],
    ['same', 'same', 'same'],
    ['7-24', '', '7-24'],
    ['𝄞a', 'a', '[𝄞]a'],
  ])('%s against %s', (a, b, shown) => expect(show(a, b)).toBe(shown));
  it('compare long texts by their words', () => {
    expect(parts('x'.repeat(500), 'y')).toEqual([{ text: 'x'.repeat(500), differs: true }]);
  });
});

describe('what a list holds', () => {
  const read = (search: string, projectId?: string) => listScope(new URLSearchParams(search), projectId);
  it.each<[string, string | undefined, string, unknown]>([
    ['', undefined, 'library', { kind: 'library' }],
    ['', 'p', 'project', { kind: 'project', projectId: 'p' }],
    ['scope=library', 'p', 'library', { kind: 'library' }],
    ['scope=project', undefined, 'project', { kind: 'library' }],
    ['scope=section:s1', 'p', 'section:s1', { kind: 'section', sectionId: 's1' }],
    ['scope=tag:sea: level', undefined, 'tag:sea: level', { kind: 'tag', tag: 'sea: level' }],
    ['scope=tag:silt', 'p', 'tag:silt', { kind: 'tag', tag: 'silt', projectId: 'p' }],
    ['ids=a,b', 'p', 'selection', { kind: 'selection', ids: ['a', 'b'] }],
    ['ids=a,,b&scope=cited', 'p', 'cited', { kind: 'selection', ids: ['a', 'b'] }],
  ])('%s in the project %s is %s', (search, projectId, name, scope) =>
    expect(read(search, projectId)).toMatchObject({ name, scope }),
  );
});

describe('proof signs', () => {
  it('are those of the finding', () => {
    expect(signOf({ check: 'title-capitals', pencil: 'red' })).toBe('capitals');
    expect(signOf({ check: 'doi-form', pencil: 'red' })).toBe('dele');
    expect(signOf({ check: 'isbn-invalid', pencil: 'red' })).toBe('cross');
    expect(signOf({ check: 'page-missing', pencil: 'red' })).toBe('caret');
    expect(signOf({ check: 'author-missing', pencil: 'blue' })).toBe('question');
  });
});
