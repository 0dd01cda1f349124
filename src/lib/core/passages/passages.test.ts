import { JSDOM } from 'jsdom';
import fc from 'fast-check';
import { describe as suite, expect, it } from 'vitest';
import { sliceCodePoints } from '../text';
import {
  anchor,
  describe,
  locatorText,
  offsetOf,
  overlap,
  piecesOf,
  quotingChanges,
  selectors,
  textOf,
} from './index';

const PAGE =
  '<h1>Ponds</h1><p>Within six years of a breach the <i>pond floor</i> had risen by a median of 31 cm.</p><p>The rise was fastest near the sluice 𓇽.</p>';
const body = (html: string) => new JSDOM(`<body>${html}</body>`).window.document.body;
const select = (text: string, words: string) =>
  describe(text, text.indexOf(words), text.indexOf(words) + words.length);

suite('the text of a copy', () => {
  it('puts one line feed between blocks and none for markup', () => {
    expect(textOf(body(PAGE)).text).toBe(
      'Ponds\nWithin six years of a breach the pond floor had risen by a median of 31 cm.\nThe rise was fastest near the sluice 𓇽.\n',
    );
  });
  it('is the same when a part is wrapped in a mark', () => {
    const plainText = textOf(body(PAGE)).text;
    const marked = PAGE.replace('six years', '<mark>six</mark><mark> years</mark>');
    expect(textOf(body(marked)).text).toBe(plainText);
  });
  it('leads from offsets to nodes and back', () => {
    const root = body(PAGE);
    const { text, segments } = textOf(root);
    const start = text.indexOf('the pond floor had');
    const pieces = piecesOf(segments, start, start + 'the pond floor had'.length);
    expect(pieces.map((p) => p.node.data.slice(p.from, p.to))).toEqual(['the ', 'pond floor', ' had']);
    expect(offsetOf(segments, pieces[0]!.node, pieces[0]!.from)).toBe(start);
    expect(offsetOf(segments, root, 0)).toBe(0);
    expect(offsetOf(segments, root, 99)).toBe(text.trimEnd().length);
  });
});

suite('anchoring', () => {
  const text = textOf(body(PAGE)).text;
  const words = 'pond floor had risen by a median of 31 cm';

  it('finds a passage where it was', () => {
    const s = select(text, words);
    expect(selectors.parse(s)).toEqual(s);
    expect(anchor(text, s)).toMatchObject({ state: 'found', start: text.indexOf(words) });
  });
  it('finds it again when the text around it changed', () => {
    const s = select(text, words);
    const changed = `A new preface of some length. ${text.replace('Within six years of a breach', 'Six years after breaching')}`;
    const found = anchor(changed, s);
    expect(found.state).toBe('moved');
    expect(changed.slice(found.start, found.end)).toBe(words);
  });
  it('finds it, and says that it changed, when a little of the words did', () => {
    const now = text.replace('31 cm', '13 cm');
    const changed = anchor(now, select(text, words));
    expect(changed.state).toBe('changed');
    expect(now.slice(changed.start, changed.end)).toBe('pond floor had risen by a median of 13 cm');
  });
  it('reports its loss when other words stand there, and says where it was', () => {
    const now = text.replace(words, 'sluice had been opened twice a day for the eel fishers');
    const lost = anchor(now, select(text, words));
    expect(lost.state).toBe('lost');
    expect(lost.near && now.slice(lost.near.start, lost.near.end)).toContain('eel fishers');
  });
  it('reports its loss when it was left out, even where its words stand somewhere else', () => {
    const said = 'The keepers were paid in flour.';
    const before = `The mill ground by night. ${said} Nobody kept the books of it for long. In the north it was otherwise. ${said} So say the rolls.`;
    const sought = describe(before, before.indexOf(said), before.indexOf(said) + said.length);
    expect(anchor(before.replace(`${said} Nobody`, 'Nobody'), sought).state).toBe('lost');
    expect(anchor(before.replace(`${said} So`, 'So'), sought).state).toBe('found');
  });
  it.each([
    ['ligatures', 'The ﬁne grain of the oﬃce', 'The fine grain of the office'],
    [
      'hyphens at line ends',
      'The sedi-\nment was not limi-\nting here',
      'The sediment was not limiting here',
    ],
    ['blanks lost', 'Thesediment was notlimiting here', 'The sediment was not limiting here'],
    ['letters read wrong', 'Tlie sedirnent was not lirniting hete', 'The sediment was not limiting here'],
    ['a word put in', 'The sediment was certainly not limiting here', 'The sediment was not limiting here'],
  ])('finds it, changed, through %s', (_what, now, before) => {
    const around = (middle: string) =>
      `Of the ponds we know little. ${middle}, and so the dam was cut. More below.`;
    const old = around(before);
    const found = anchor(
      around(now),
      describe(old, old.indexOf(before), old.indexOf(before) + before.length),
    );
    expect(found.state).toBe('changed');
    expect(around(now).slice(found.start, found.end)).toBe(now);
  });
  it('tells two places with the same words apart by their surroundings', () => {
    const twice = 'The mill closed in spring. Then came the flood. The mill closed for good.';
    const second = describe(
      twice,
      twice.lastIndexOf('The mill closed'),
      twice.lastIndexOf('The mill closed') + 15,
    );
    const moved = `Preface here. ${twice}`;
    expect(anchor(moved, second).start).toBe(moved.lastIndexOf('The mill closed'));
  });
  it('finds it through other quotation marks and dashes', () => {
    const s = select('He said “ponds – all of them” fill.', '“ponds – all of them”');
    const now = 'He said "ponds - all of them" fill.';
    const found = anchor(now, s);
    expect(found.state).toBe('changed');
    expect(now.slice(found.start, found.end)).toBe('"ponds - all of them"');
  });
  // W3C Web Annotation Data Model 4.2.5: positions count characters as code points, end exclusive.
  it('counts code points in selectors', () => {
    const s = select(text, '𓇽.');
    expect(sliceCodePoints(text, s.position.start, s.position.end)).toBe('𓇽.');
    expect(s.position.end - s.position.start).toBe(2);
  });
  it('finds every stretch of any text in that text', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', minLength: 3, maxLength: 200 }),
        fc.nat(),
        fc.nat(),
        (t, a, b) => {
          const [start, end] = [a % t.length, b % t.length].sort((x, y) => x - y) as [number, number];
          if (t.slice(start, end).trim() === '') return;
          const s = describe(t, start, end);
          const found = anchor(t, s);
          expect(found.state).toBe('found');
          expect(t.slice(found.start, found.end)).toBe(s.quote.exact);
        },
      ),
    );
  });
  it('refuses a stretch of white space', () => {
    expect(() => describe('a   b', 1, 3)).toThrow(RangeError);
  });
});

suite('locators', () => {
  it('are shown short', () => {
    expect(locatorText({ label: 'page', value: '9' })).toBe('p. 9');
    expect(locatorText({ label: 'page', value: '9–11' })).toBe('pp. 9–11');
    expect(locatorText({ label: 'page', value: '3, 7' })).toBe('pp. 3, 7');
    expect(locatorText({ label: 'paragraph', value: '3' })).toBe('para. 3');
    expect(locatorText({ label: 'timestamp', value: '0:12' })).toBe('timestamp 0:12');
    expect(locatorText(null)).toBe('');
  });
});

suite('own words', () => {
  const quote = 'Recovery stalled at the two sites where the wheelhouse had been rebuilt for show';
  it('marks the runs that are still the author’s, each where it stands', () => {
    expect(overlap(quote, 'At two sites, rebuilding the mill stopped recovery').tooClose).toBe(false);
    const own = 'Recovery stalled at the two sites with a new mill; the wheelhouse had been rebuilt there';
    const close = overlap(quote, own);
    expect(close.runs.map(({ start, end }) => own.slice(start, end))).toEqual([
      'Recovery stalled at the two sites',
      'the wheelhouse had been rebuilt',
    ]);
    // 6 and 5 of 16 words
    expect(close).toMatchObject({ longest: 6, tooClose: true, share: 11 / 16 });
    expect(overlap(quote, '').share).toBe(0);
  });
  it('takes capitals, accents and punctuation for no difference', () => {
    const own = 'RECOVERY stalled: at the “two” sites';
    expect(overlap(quote, own).runs).toEqual([]);
    expect(overlap('où le moulin était bâti', 'Ou le moulin, etait bati').longest).toBe(5);
  });
  it('respects the marks of what is quoted, in any language, and no apostrophe for one', () => {
    for (const own of [
      'They say that “the two sites where the wheelhouse had been rebuilt” did worse',
      'Sie sagen, „the two sites where the wheelhouse had been rebuilt“ sei so',
      'Ils disent « the two sites where the wheelhouse had been rebuilt »',
      'It is "the two sites where the wheelhouse had been rebuilt" that did worse',
    ])
      expect(overlap(quote, own)).toMatchObject({ runs: [], tooClose: false });
    const open = 'It is “the two sites where the wheelhouse had been rebuilt';
    expect(overlap(quote, open).tooClose).toBe(true);
    const apostrophes = 'the ‘miller’s view: two sites where the wheelhouse had been rebuilt';
    expect(overlap(quote, apostrophes).tooClose).toBe(true);
  });
  it('knows words of scripts that write no blanks', () => {
    const own = '潮汐磨坊的水车在两个地点被重建了';
    expect(overlap(own, own)).toMatchObject({ share: 1, tooClose: true });
  });
});

suite('a quotation as it is printed', () => {
  const exact = 'The miller, who had no clock, rose with the tide; he ground until the ebb.';
  it('says what was left out and what was put in', () => {
    expect(quotingChanges(exact, exact)).toEqual([]);
    expect(quotingChanges(exact, 'The miller […] rose with the tide')).toEqual([
      { kind: 'left out', words: 'who had no clock,' },
    ]);
    expect(quotingChanges(exact, 'The miller ... [...] rose with the tide')).toHaveLength(1);
    expect(quotingChanges(exact, '[H]e ground until the [falling] ebb')).toEqual([
      { kind: 'put in', words: 'H', instead: 'h' },
      { kind: 'put in', words: 'falling', instead: '' },
    ]);
    expect(quotingChanges(exact, 'rose with the tide; [the miller] ground')).toEqual([
      { kind: 'put in', words: 'the miller', instead: 'he' },
    ]);
  });
  it('says what nothing in brackets speaks of', () => {
    expect(quotingChanges(exact, 'The miller, who had no watch, rose')).toEqual([
      { kind: 'unmarked', words: 'The miller, who had no watch, rose' },
    ]);
    expect(quotingChanges(exact, 'The miller [sic] rose')).toEqual([
      { kind: 'put in', words: 'sic', instead: 'who had no clock,' },
    ]);
  });
});
