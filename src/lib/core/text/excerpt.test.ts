import { describe, expect, it } from 'vitest';
import { excerpt } from './index';

const shown = (text: string, words: string, around?: number) =>
  excerpt(text, words, around)
    ?.parts.map((p) => (p.hit ? `[${p.text}]` : p.text))
    .join('');

describe('an excerpt', () => {
  it('marks words as searching finds them: case, diacritics and endings aside', () => {
    expect(shown('Die Mühlen am Étang standen still.', 'muhle ETANG')).toBe(
      'Die [Mühlen] am [Étang] standen still.',
    );
    expect(shown('The miller’s mill', 'millers')).toBe('The [miller’s] mill');
  });
  it('is taken where the words stand together, not where one of them comes first', () => {
    const text = `A pond. ${'Nothing of note. '.repeat(40)}The pond of the mill.`;
    expect(shown(text, 'mill pond', 10)).toBe('… note. The [pond] of the [mill].');
    expect(excerpt(text, 'mill pond')!.exact).toBe('pond of the mill');
  });
  it('is taken where one stands when they never stand together', () => {
    const text = `A pond. ${'Nothing of note. '.repeat(40)}A mill.`;
    expect(shown(text, 'mill pond', 12)).toBe('A [pond]. Nothing of …');
  });
  it('leaves no half word at its ends, and no line breaks', () => {
    expect(shown('unquestionably\nthe   tide turned irrevocably then', 'tide', 10)).toBe(
      '… the [tide] turned …',
    );
  });
  it('is nothing when the words are not there, or are no words', () => {
    expect(excerpt('The tide turned.', 'mill')).toBeUndefined();
    expect(excerpt('The tide turned.', ' – ')).toBeUndefined();
    expect(excerpt('', 'mill')).toBeUndefined();
  });
  it('keeps characters outside the basic plane whole', () => {
    expect(shown('𐌰𐌱𐌲 tide 𝒳𝒴𝒵', 'tide', 3)).not.toMatch(
      /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/,
    );
  });
});
