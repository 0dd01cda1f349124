import { describe, expect, it } from 'vitest';
import {
  codePointLength,
  decodeEntities,
  fold,
  isShouting,
  isTitleCased,
  languageOfTitle,
  plain,
  sentenceCase,
  titleCase,
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
  // The first is the example of the APA's page on sentence case (from memory); the others are common practice.
  it.each([
    [
      'Turning Frowns (and Smiles) Upside Down: A Multilevel Examination of Surface Acting Positive and Negative Emotions on Well-Being',
      'Turning frowns (and smiles) upside down: A multilevel examination of surface acting positive and negative emotions on well-being',
    ],
    ['World War II and the French Navy in March', 'World war II and the French navy in March'],
    ['X-Ray Studies of Long-Term Change', 'X-ray studies of long-term change'],
    ['What I Saw: McAdam’s Roads', 'What I saw: McAdam’s roads'],
    [
      'Ponds of <span class="nocase">Old Skerry</span> Today',
      'Ponds of <span class="nocase">Old Skerry</span> today',
    ],
  ])('sets %s in sentence case', (title, sentence) => expect(sentenceCase(title)).toBe(sentence));
  it('keeps names that are known, German nouns, and small letters behind a colon of other languages', () => {
    const known = new Map([['skerry', 'Skerry']]);
    expect(sentenceCase('THE MILLS OF SKERRY SOUND', { known })).toBe('The mills of Skerry sound');
    expect(sentenceCase('Die Mühlen der Küste', { language: 'de' })).toBe('Die Mühlen der Küste');
    expect(sentenceCase('Les Moulins de la Côte : une histoire', { language: 'fr' })).toBe(
      'Les moulins de la côte : une histoire',
    );
  });
  // Titles of The Chicago Manual of Style, 17th ed., 8.159 to 8.161, as far as CSL's stop words are theirs (from memory).
  it.each([
    'Mnemonics That Work Are Better Than Rules That Do Not',
    'Singing While You Work',
    'A Little Learning Is a Dangerous Thing',
    'Sitting on the Floor in an Empty Room',
    'Bed-and-Breakfast Options in Upstate New York',
    'Record-Breaking Borrowings from Medium-Sized Libraries',
    'Cross-Stitching for Beginners',
    'Ninety-Fifth Avenue Blues',
    'Tired but Happy',
  ])('sets “%s” in title case', (title) => {
    expect(titleCase(title.charAt(0) + title.slice(1).toLowerCase())).toBe(title);
    expect(titleCase(title)).toBe(title);
  });
  it('leaves titles of other languages, and tells those that have capitals', () => {
    expect(titleCase('Les moulins de la côte', { language: 'fr' })).toBe('Les moulins de la côte');
    expect(isTitleCased('The Tide Mills of the Eastern Shore')).toBe(true);
    expect(isTitleCased('The tide mills of the Eastern Shore')).toBe(false);
    expect(isTitleCased('TIDE MILLS OF THE EASTERN SHORE')).toBe(false);
  });
});

describe('the language of a title', () => {
  it.each([
    ['The tide mills of Kent and Essex', 'en'],
    ['Die Gezeitenmühlen der Nordsee und ihre Geschichte', 'de'],
    ['Les moulins à marée et les ports de la côte', 'fr'],
    ['Los molinos de marea y el puerto', 'es'],
    ['Het getij en de molens van Zeeland', 'nl'],
    ['Dressing a millstone: A practical guide', undefined],
    ['Salt marsh recovery', undefined],
    ['Historia de la molienda', undefined],
  ])('of “%s” is %s', (title, language) => expect(languageOfTitle(title)).toBe(language));
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
