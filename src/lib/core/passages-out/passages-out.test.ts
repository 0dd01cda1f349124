import { JSDOM } from 'jsdom';
import { describe as suite, expect, it } from 'vitest';
import { describe, type Selectors } from '../passages';
import {
  annotationPage,
  passagesDocument,
  passagesToCsv,
  passagesToHtml,
  passagesToMarkdown,
  passagesToText,
  readAnnotations,
  type PassageOut,
} from './index';

const passage = (more: Partial<PassageOut> = {}): PassageOut => ({
  kind: 'quotation',
  source: 'Pell, Sluices',
  citekey: 'pell2001',
  quotation: 'The gate […] stood open',
  exact: 'The gate, old as it was, stood open',
  gist: 'Gates were left open',
  ownWords: 'Nobody shut it.',
  locator: { label: 'page', value: '9' },
  citation: [{ text: '(Pell, 2001, p. 9)' }],
  tint: 'claim',
  tags: ['gates', 'law'],
  sections: ['Decline'],
  state: 'found',
  added: '2026-11-26T10:00:00.000Z',
  address: 'https://a.example/1',
  figure: null,
  ...more,
});
const out = (...passages: PassageOut[]) => ({
  title: 'Passages',
  lang: 'en-US',
  passages,
  references: {
    entries: [{ id: 'a', runs: [{ text: 'Pell, A. (2001). ' }, { text: 'Sluices', italic: true as const }] }],
    hangingIndent: true,
    hasList: true,
  },
});

suite('passages written out', () => {
  it('have what was said to them behind one’s own words, by whom, where that goes out', () => {
    const said = passage({ replies: [{ by: 'Ben', text: 'Is this <so>?' }, { by: 'Ada', text: 'p. 4 | 5' }] }); // prettier-ignore
    expect(passagesToText(out(said)).split('\n\n').slice(4, 7)).toEqual([
      'Gates were left open Nobody shut it.',
      'Ben: Is this <so>?',
      'Ada: p. 4 | 5',
    ]);
    expect(passagesToMarkdown(out(said), 'beside')).toContain(
      'Ben: Is this \\<so\\>?<br>Ada: p. 4 \\\\| 5 |',
    );
    expect(passagesToHtml(out(said), 'below')).toContain('Ben: Is this &lt;so&gt;?');
    expect(passagesToCsv([said])).toContain('"Ben: Is this <so>?\nAda: p. 4 | 5"');
    expect(passagesToCsv([passage()])).not.toContain('Ben');
  });

  it('stand by source, words and own words apart, the citation with what is cited', () => {
    const own = passage({ kind: 'paraphrase' });
    const other = passage({ source: 'Roe, Tides', citekey: 'roe1999', citation: [{ text: '(Roe, 1999)' }] });
    const text = passagesToText(out(passage(), own, other));
    expect(text.split('\n\n')).toEqual([
      'Passages',
      'Pell, Sluices',
      'Quotation, p. 9:',
      '“The gate […] stood open” (Pell, 2001, p. 9)',
      'Gates were left open Nobody shut it.',
      'Paraphrase, p. 9:',
      '“The gate […] stood open”',
      'Gates were left open Nobody shut it. (Pell, 2001, p. 9)',
      'Roe, Tides',
      'Quotation, p. 9:',
      '“The gate […] stood open” (Roe, 1999)',
      'Gates were left open Nobody shut it.',
      'References',
      'Pell, A. (2001). Sluices\n',
    ]);
  });
  it('cites a word on a whole document with what is said', () => {
    const whole = passage({ kind: 'response', quotation: '', exact: '', gist: '' });
    expect(passagesToText(out(whole))).toContain('Nobody shut it. (Pell, 2001, p. 9)');
    expect(passagesToText(out(whole))).not.toContain('“”');
  });
  it('stand side by side in two columns, or one below the other', () => {
    const beside = new JSDOM(passagesDocument(out(passage()), 'beside')).window.document;
    const [words, mine] = beside.querySelectorAll('td');
    expect(words!.textContent).toBe('“The gate […] stood open” (Pell, 2001, p. 9)');
    expect([...mine!.querySelectorAll('p')].map((p) => p.textContent)).toEqual([
      'Quotation, p. 9',
      'Gates were left open',
      'Nobody shut it.',
    ]);
    const below = new JSDOM(passagesToHtml(out(passage()), 'below')).window.document;
    expect(below.querySelector('table')).toBeNull();
    expect(below.querySelector('blockquote')!.textContent).toContain('The gate […] stood open');
    expect(below.body.innerHTML).toContain('<i>Sluices</i>');
  });
  it('are tables or quotes in Markdown, with what means something there escaped', () => {
    const odd = passage({ quotation: 'a | b *c*\n\nd', gist: '# no heading' });
    const beside = passagesToMarkdown(out(odd), 'beside');
    const row = beside.split('\n').find((line) => line.startsWith('| “a'))!;
    expect(row.replace(/\\\|/g, '').split('|')).toHaveLength(4);
    expect(row).toContain('\\*c\\*');
    const below = passagesToMarkdown(out(odd), 'below');
    expect(below).toMatch(/^> “a/m);
    expect(below).not.toMatch(/^# no/m);
  });
  it('shows no markup of theirs as ours in HTML', () => {
    const html = passagesToHtml(out(passage({ quotation: '<img src=x>', ownWords: '<b>x</b>' })), 'beside');
    expect(html).not.toContain('<img');
    expect(html).not.toContain('<b>x');
  });
  it('are rows of comma-separated values as RFC 4180 has them, and no formula of a spreadsheet', () => {
    const csv = passagesToCsv([passage({ gist: 'He said "no",\nand left', ownWords: '=1+1' })]);
    const [head, ...rest] = csv.split('\r\n');
    expect(head!.startsWith('"Source","Citekey","Kind"')).toBe(true);
    expect(rest.join('\r\n')).toContain('"He said ""no"",\nand left"');
    expect(csv).toContain('"\'=1+1"');
    expect(csv.endsWith('\r\n')).toBe(true);
  });
});

/** Examples of the W3C Recommendation "Web Annotation Data Model", 23 February 2017, their numbers and words from memory. */
const W3C = {
  quote: {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    id: 'http://example.org/anno23',
    type: 'Annotation',
    body: 'http://example.org/comment1',
    target: {
      source: 'http://example.org/page1',
      selector: {
        type: 'TextQuoteSelector',
        exact: 'anotation',
        prefix: 'this is an ',
        suffix: ' that has some',
      },
    },
  },
  position: {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    id: 'http://example.org/anno24',
    type: 'Annotation',
    body: 'http://example.org/review1',
    target: {
      source: 'http://example.org/ebook1',
      selector: { type: 'TextPositionSelector', start: 412, end: 795 },
    },
  },
  refined: {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    id: 'http://example.org/anno28',
    type: 'Annotation',
    body: 'http://example.org/comment1',
    target: {
      source: 'http://example.org/page1',
      selector: {
        type: 'FragmentSelector',
        value: 'para5',
        refinedBy: {
          type: 'TextQuoteSelector',
          exact: 'Selected Text',
          prefix: 'text before the ',
          suffix: ' and text after it',
        },
      },
    },
  },
  value: {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    id: 'http://example.org/anno6',
    type: 'Annotation',
    bodyValue: 'Comment text',
    target: 'http://example.org/target1',
  },
  tagging: {
    '@context': 'http://www.w3.org/ns/anno.jsonld',
    id: 'http://example.org/anno15',
    type: 'Annotation',
    motivation: 'bookmarking',
    body: [
      { type: 'TextualBody', value: 'readme', purpose: 'tagging' },
      {
        type: 'TextualBody',
        value: 'A good description of the topic that bears further investigation',
        purpose: 'describing',
      },
    ],
    target: 'http://example.org/page1',
  },
};

suite('annotations of the W3C model', () => {
  const read = (...given: unknown[]) => readAnnotations(JSON.stringify(given));
  it('are read from the examples of the Recommendation', () => {
    const { annotations, problems } = read(...Object.values(W3C));
    expect(problems).toEqual([]);
    const [quote, position, refined, value, tagging] = annotations;
    expect(quote!.quote).toEqual({ exact: 'anotation', prefix: 'this is an ', suffix: ' that has some' });
    expect(position).toMatchObject({ position: { start: 412, end: 795 }, quote: null });
    expect(refined!.quote!.exact).toBe('Selected Text');
    expect(value).toMatchObject({ kind: 'response', ownWords: 'Comment text', quote: null });
    expect(tagging).toMatchObject({
      tags: ['readme'],
      ownWords: 'A good description of the topic that bears further investigation',
    });
  });
  it('are read from a page, a collection with its first page, and one alone', () => {
    const page = { type: 'AnnotationPage', items: [W3C.quote, W3C.value] };
    expect(readAnnotations(JSON.stringify(page)).annotations).toHaveLength(2);
    expect(
      readAnnotations(JSON.stringify({ type: 'AnnotationCollection', first: page })).annotations,
    ).toHaveLength(2);
    expect(readAnnotations(JSON.stringify(W3C.quote)).annotations).toHaveLength(1);
  });
  it('say which of them could not be read, and why', () => {
    expect(read(W3C.quote, 7, { type: 'Person' }, { type: 'Annotation' }).problems).toEqual([
      { nth: 2, reason: 'it is no object' },
      { nth: 3, reason: 'its type is not Annotation' },
      { nth: 4, reason: 'it has no target' },
    ]);
    expect(() => readAnnotations('{')).toThrow('The file is no JSON');
  });

  const text = 'Before it. 🌊 The gate stood open. After it.';
  const at = text.indexOf('The gate');
  const selectors: Selectors = describe(text, at, at + 'The gate stood open.'.length);
  const kept = {
    id: '019300aa-0000-7000-8000-000000000000',
    kind: 'paraphrase' as const,
    tint: 'doubt' as const,
    exact: 'The gate stood open.',
    wording: 'The gate […] open',
    selectors,
    gist: 'Open',
    ownWords: 'Nobody shut it.',
    locator: { label: 'page' as const, value: 'xii' },
    tags: ['gates'],
    added: '2026-11-26T10:00:00.000Z',
    figure: null,
    further: [],
  };
  const document = {
    address: 'https://a.example/1',
    title: 'A page',
    mediaType: 'text/html',
    creator: 'You',
  };

  it('carry a passage out and in again, whole', () => {
    const [back] = readAnnotations(JSON.stringify(annotationPage([kept], document))).annotations;
    const { exact, selectors: _s, id: _id, added: _added, figure: _figure, ...said } = kept;
    expect(back).toMatchObject({ ...said, position: selectors.position });
    expect(back!.quote).toEqual(selectors.quote);
    expect(back!.quote!.exact).toBe(exact);
  });
  it('of several stretches have a target for each (W3C, 3.2.2), and come back with all of them', () => {
    const further = [{ ...selectors, quote: { ...selectors.quote, exact: 'six years' } }];
    const page = annotationPage([{ ...kept, further }], document);
    expect(readAnnotations(JSON.stringify(page)).annotations[0]).toMatchObject({
      quote: selectors.quote,
      further: [{ quote: { exact: 'six years' } }],
    });
  });
  it('say the page of a PDF by a fragment, refined by the words', () => {
    const page = annotationPage([kept], {
      ...document,
      mediaType: 'application/pdf',
      leafOf: new Map([[kept.id, 4]]),
    });
    expect(JSON.stringify(page)).toContain('"value":"page=4","refinedBy":{"type":"TextQuoteSelector"');
    expect(readAnnotations(JSON.stringify(page)).annotations[0]).toMatchObject({ leaf: 4 });
  });
  it('of a figure on a page of a PDF say its box by an SVG selector that refines the page (W3C, 4.2.7 and 4.2.9)', () => {
    const place = { on: 'leaf' as const, leaf: 3, box: { x: 0.1, y: 0.2, width: 0.5, height: 0.25 } };
    const image = { sha256: 'a'.repeat(64), mediaType: 'image/png', width: 10, height: 10 };
    const arrow = { id: 'a', tint: 'doubt' as const, shape: 'arrow' as const };
    const drawing = [{ ...arrow, from: [0.1, 0.1] as [number, number], to: [0.9, 0.9] as [number, number] }];
    const figure = { place, image, number: 'Figure 2', alt: 'A sluice', drawing };
    const kind = 'figure' as const;
    const one = { ...kept, kind, selectors: null, exact: 'A gate', wording: null, figure };
    const page = annotationPage([one], { ...document, mediaType: 'application/pdf' });
    const said = JSON.stringify(page);
    expect(said).toContain('"value":"page=3","refinedBy":{"type":"SvgSelector","value":"<svg ');
    expect(readAnnotations(said).annotations[0]).toMatchObject({
      kind: 'figure',
      leaf: 3,
      region: { box: place.box, caption: 'A gate', number: 'Figure 2', alt: 'A sluice', drawing },
    });
  });
  it('on a part of a picture are figures, by SVG or by a media fragment', () => {
    const read = (target: unknown) =>
      readAnnotations(JSON.stringify({ type: 'Annotation', body: [], target })).annotations[0]!;
    const box = { x: 0.25, y: 0.5, width: 0.5, height: 0.25 };
    const svg = '<svg viewBox="0 0 200 100"><polygon points="50,50 150,50 150,75 50,75"/></svg>';
    expect(
      read({ source: 'https://a.example/1.png', selector: { type: 'SvgSelector', value: svg } }),
    ).toMatchObject({
      kind: 'figure',
      region: { box, picture: 'https://a.example/1.png' },
    });
    expect(read('https://a.example/1.png#xywh=percent:25,50,50,25')).toMatchObject({
      kind: 'figure',
      region: { box, picture: 'https://a.example/1.png' },
    });
  });
  it('of a whole document have no selector', () => {
    const whole = { ...kept, kind: 'response' as const, selectors: null, exact: '', wording: null };
    const page = annotationPage([whole], document);
    expect(JSON.stringify(page)).not.toContain('selector');
    expect(readAnnotations(JSON.stringify(page)).annotations[0]).toMatchObject({
      kind: 'response',
      quote: null,
    });
  });
});
