import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BORROWED_WORDS, borrowedFrom, borrowings, indexOwn, ownTexts } from './borrowed';
import type { Block, DraftPart, Inline } from './document';

const p = (id: string, ...content: Inline[]): DraftPart => ({ id, content: { type: 'paragraph', content } });
const t = (text: string, quoted = false): Inline => ({
  type: 'text',
  text,
  ...(quoted ? { marks: [{ type: 'passage', attrs: { id: 'q', as: 'quotation' } }] } : {}),
});
const cite = (id: string): Inline => ({
  type: 'cite',
  attrs: { id: `c${id}`, works: [{ id, prefix: '', suffix: '', locator: '' } as never], named: false },
});
const told = (parts: DraftPart[], ...documents: string[]) => {
  const index = indexOwn(ownTexts(parts));
  return borrowings(
    index,
    documents.map((text, i) => ({ document: String(i), runs: borrowedFrom(index, text) })),
  );
};
const DOCUMENT =
  'Before that. The pond was let every year to the miller who kept the gates in order, and nobody else fished in it.';

describe('words that stand in a document', () => {
  it('are told with both places, case and marks and lines set aside', () => {
    const [one, ...more] = told(
      [
        p(
          'a',
          t(
            'As we know, THE POND was let every year—to the miller, who kept the gátes in order. So it went.',
          ),
        ),
      ],
      DOCUMENT.replace('every year', 'every\nyear'),
    );
    expect(more).toEqual([]);
    expect(one).toMatchObject({ part: 'a', words: 15, document: '0' });
    expect(one!.text).toBe('THE POND was let every year—to the miller, who kept the gátes in order');
    expect(DOCUMENT.slice(one!.start, one!.end)).toBe(
      'The pond was let every year to the miller who kept the gates in order',
    );
  });
  it('are not told when they are fewer', () => {
    const words = DOCUMENT.split(' ').slice(2);
    const taken = (n: number) => told([p('a', t(`It says ${words.slice(0, n).join(' ')} only`))], DOCUMENT);
    expect(taken(BORROWED_WORDS - 1)).toEqual([]);
    expect(taken(BORROWED_WORDS)).toHaveLength(1);
  });
  it('are not told where they are quoted: in marks, set apart, or from a passage', () => {
    const run = 'the pond was let every year to the miller';
    const apart: Block = { type: 'blockquote', content: [p('', t(run)).content] };
    expect(told([p('a', t(`He says “${run}”.`))], DOCUMENT)).toEqual([]);
    expect(told([p('a', t('He says '), t(run, true), t('.'))], DOCUMENT)).toEqual([]);
    expect(told([{ id: 'a', content: apart }], DOCUMENT)).toEqual([]);
    // Half in marks: neither half is long enough, and no run goes across them.
    expect(told([p('a', t(`the pond was let “every” year to the miller`))], DOCUMENT)).toEqual([]);
  });
  it('are found in footnotes and tables, and do not run from one paragraph into the next', () => {
    const run = 'the pond was let every year to the miller';
    const note: Inline = { type: 'footnote', attrs: { id: 'f', content: [t(run)] } };
    expect(told([p('a', t('x'), note)], DOCUMENT)).toHaveLength(1);
    expect(told([p('a', t('the pond was let every')), p('b', t('year to the miller'))], DOCUMENT)).toEqual(
      [],
    );
  });
  it('say which document has most of them, and which have all', () => {
    const run = 'the pond was let every year to the miller';
    const found = told([p('a', t(`${run} who kept the gates in order`))], run, DOCUMENT, `So: ${DOCUMENT}`);
    expect(found).toMatchObject([{ document: '1', words: 15, others: ['2'] }]);
  });
  it('come with the works cited beside them', () => {
    expect(ownTexts([p('a', t('One.'), cite('w'), cite('w'))])).toEqual([
      { part: 'a', text: 'One.  ', works: ['w'] },
    ]);
  });
  it('count letters of scripts without blanks each', () => {
    const said = '潮水推动磨坊的轮子';
    expect(told([p('a', t(`我们知道${said}。`))], `古人云${said}`)).toMatchObject([{ text: said, words: 9 }]);
  });
  it('are all found, wherever they are put into a document (property)', () => {
    const word = fc.constantFrom('mill', 'pond', 'gate', 'tide', 'salt', 'weir', 'the', 'of');
    const words = (least: number) => fc.array(word, { minLength: least, maxLength: 40 });
    fc.assert(
      fc.property(words(0), words(BORROWED_WORDS), words(0), (before, run, after) => {
        const index = indexOwn(ownTexts([p('a', t(run.join(' ')))]));
        const runs = borrowedFrom(index, [...before, ...run, ...after].join(' '));
        expect(runs.length).toBeGreaterThan(0);
        // What is told is there: the same words in both.
        const text = [...before, ...run, ...after].join(' ');
        for (const { from, words: n, start, end } of runs)
          expect(text.slice(start, end)).toBe(run.slice(from, from + n).join(' '));
      }),
    );
  });
});
