import { describe, expect, it } from 'vitest';
import {
  codePointLength,
  decodeEntities,
  fold,
  isShouting,
  plain,
  sentenceCase,
  similarity,
  sliceCodePoints,
  toCodePoint,
  toCodeUnit,
  spokenText,
} from './index';

describe('fold', () => {
  it('drops case, diacritics and punctuation', () => {
    expect(fold('Ó Súilleabháin, C.')).toBe('o suilleabhain c');
    expect(fold('Straße & Œuvre — Łódź')).toBe('strasse oeuvre lodz');
    expect(fold('The Miller’s Tide')).toBe(fold('the millers tide'));
  });
  it('keeps other scripts', () => {
    expect(fold('潮汐水車')).toBe('潮汐水車');
    expect(fold('طاحونة المدّ')).toBe(fold('طاحونة المد'));
  });
});

describe('units', () => {
  it('counts code points where a character takes two UTF-16 units', () => {
    const text = 'a𝄞b';
    expect(text.length).toBe(4);
    expect(codePointLength(text)).toBe(3);
    expect(toCodePoint(text, 3)).toBe(2);
    expect(toCodeUnit(text, 2)).toBe(3);
    expect(sliceCodePoints(text, 1, 2)).toBe('𝄞');
  });
});

describe('case', () => {
  it('tells shouting from abbreviations', () => {
    expect(isShouting('DREDGING AND THE LAW OF THE FORESHORE')).toBe(true);
    expect(isShouting('DNA of USA salmon')).toBe(false);
    expect(isShouting('Tide mills')).toBe(false);
    expect(isShouting('潮汐水車の歴史')).toBe(false);
  });
  it('guesses sentence case and restarts after a colon', () => {
    expect(sentenceCase('DREDGING AND THE LAW: A HISTORY')).toBe('Dredging and the law: A history');
    expect(sentenceCase('The eDNA of Tide Ponds')).toBe('The eDNA of tide ponds');
  });
});

describe('similarity', () => {
  it('is one for the same and falls with difference', () => {
    expect(similarity('tide', 'tide')).toBe(1);
    // bigrams ni ig gh ht / na ac ch ht share one of four each: 2*1/8
    expect(similarity('night', 'nacht')).toBeCloseTo(0.25);
  });
});

describe('markup', () => {
  it('decodes references and strips rich text', () => {
    expect(decodeEntities('a &amp; b &#233; &#xe9; &unknown;')).toBe('a & b é é &unknown;');
    expect(plain('<i>Zostera</i> in x<sub>2</sub> <span class="nocase">DNA</span> a < b')).toBe(
      'Zostera in x2 DNA a < b',
    );
  });
});

describe('spoken words', () => {
  it('are written without hesitation, in sentences', () => {
    expect(spokenText('umm, the gate was, uh, open  . hmm why')).toBe('The gate was, open. Why.');
    expect(spokenText('Ähm, die Mühle stand still. und dann?')).toBe('Die Mühle stand still. Und dann?');
    expect(spokenText('euh, le moulin était fermé')).toBe('Le moulin était fermé.');
  });
  it('that only look like hesitation stay', () => {
    for (const said of ['Er ging um acht.', 'Humber estuary.', 'The um-brella.', 'An era ends.'])
      expect(spokenText(said)).toBe(said);
    expect(spokenText(' uhm ')).toBe('');
  });
});
