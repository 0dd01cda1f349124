import { describe, expect, it } from 'vitest';
import { nameText } from '../source';
import { looksLikeReference, parseReference, referenceListIn, splitReferences } from './index';

const parse = (text: string) => {
  const { record } = parseReference(text);
  const { retexa: _ours, author, editor, issued, ...rest } = record;
  return {
    ...rest,
    ...(author ? { author: author.map(nameText) } : {}),
    ...(editor ? { editor: editor.map(nameText) } : {}),
    ...(issued ? { year: issued['date-parts']?.[0]?.[0] } : {}),
  };
};

/** The shapes are those of the styles named; the works are invented. */
describe('one reference', () => {
  it('author-date with the year in brackets (APA)', () => {
    expect(
      parse(
        'Ferreira, A., Ng, T. H., & Ó Súilleabháin, C. (2021). Salt marsh recovery behind breached dams. Marsh Letters, 3(1–2), 7–24. https://doi.org/10.5555/marsh.3.7',
      ),
    ).toEqual({
      type: 'article-journal',
      author: ['Ferreira, A.', 'Ng, T. H.', 'Ó Súilleabháin, C.'],
      year: 2021,
      title: 'Salt marsh recovery behind breached dams',
      'container-title': 'Marsh Letters',
      volume: '3',
      issue: '1-2',
      page: '7-24',
      DOI: '10.5555/marsh.3.7',
    });
  });
  it('author-date with the year between full stops (Chicago)', () => {
    expect(
      parse(
        'Ferreira, Ana, and Tsz Ho Ng. 2021. “Salt Marsh Recovery behind Breached Dams.” Marsh Letters 3 (1): 7–24.',
      ),
    ).toMatchObject({
      type: 'article-journal',
      author: ['Ferreira, Ana', 'Ng, Tsz Ho'],
      year: 2021,
      title: 'Salt Marsh Recovery behind Breached Dams',
      'container-title': 'Marsh Letters',
      volume: '3',
      page: '7-24',
    });
  });
  it('numbered (ICMJE)', () => {
    expect(
      parse('12. Ferreira A, Ng TH. Salt marsh recovery behind breached dams. Marsh Lett. 2021;3(1):7-24.'),
    ).toMatchObject({
      type: 'article-journal',
      author: ['Ferreira, A.', 'Ng, T. H.'],
      year: 2021,
      title: 'Salt marsh recovery behind breached dams',
      volume: '3',
      issue: '1',
      page: '7-24',
    });
  });
  it('with volume and pages in words (MLA)', () => {
    expect(
      parse(
        'Sato, Yuki. “Turbines in Old Wheelhouses.” Small Hydropower Review, vol. 9, no. 2, 2020, pp. 33–51.',
      ),
    ).toMatchObject({
      type: 'article-journal',
      author: ['Sato, Yuki'],
      year: 2020,
      title: 'Turbines in Old Wheelhouses',
      'container-title': 'Small Hydropower Review',
      volume: '9',
      issue: '2',
      page: '33-51',
    });
  });
  it('a chapter with editors', () => {
    expect(
      parse(
        'van der Zee, M. (2015). Ledgers of the harbour towns. In K. Osei & M. Lindqvist (Eds.), Water and work (pp. 88–109). Strand University Press.',
      ),
    ).toMatchObject({
      type: 'chapter',
      author: ['van der Zee, M.'],
      editor: ['Osei, K.', 'Lindqvist, M.'],
      'container-title': 'Water and work',
      page: '88-109',
      title: 'Ledgers of the harbour towns',
    });
  });
  it('a book and a thesis', () => {
    expect(
      parse(
        'Barrow, E. M. (1998). Grain and tide: A history (2nd ed.). Northsound: Strand University Press.',
      ),
    ).toMatchObject({
      type: 'book',
      title: 'Grain and tide: A history',
      edition: '2',
      'publisher-place': 'Northsound',
      publisher: 'Strand University Press',
    });
    expect(
      parse(
        'Lindqvist, M. (2016). Tide mills of the northern sounds [Doctoral dissertation, University of Northsound].',
      ),
    ).toMatchObject({
      type: 'thesis',
      title: 'Tide mills of the northern sounds',
      publisher: 'University of Northsound',
    });
  });
  it('reads as far as it goes and makes nothing up', () => {
    expect(parse('that thesis Maja mentioned about the Skerry mill')).not.toHaveProperty('author');
    expect(
      parse('the pamphlet on the Skerry flood, 1954, cited without a title in the harbour ledger'),
    ).not.toHaveProperty('author');
    expect(parse('')).toEqual({ type: 'document' });
  });
});

describe('a pasted list', () => {
  it('is cut at numbers, blank lines, or where a line begins as a reference', () => {
    expect(splitReferences('[1] A. One (2001).\ncontinued here.\n[2] B. Two (2002).')).toEqual([
      'A. One (2001). continued here.',
      'B. Two (2002).',
    ]);
    expect(splitReferences('Barrow, E. (1998). One.\n\nNg, T. (2021).\nTwo.')).toEqual([
      'Barrow, E. (1998). One.',
      'Ng, T. (2021). Two.',
    ]);
    expect(splitReferences('Barrow, E. (1998). One.\nNg, T. (2021). Two,\nwith a second line.')).toEqual([
      'Barrow, E. (1998). One.',
      'Ng, T. (2021). Two, with a second line.',
    ]);
  });
  it('a reference is told from a thought', () => {
    expect(
      looksLikeReference(
        'Sato, Y. (2020). Turbines in old wheelhouses. Small Hydropower Review, 9(2), 33–51.',
      ),
    ).toBe(true);
    expect(looksLikeReference('Ask Tessa whether the 1904 survey is in the county archive')).toBe(false);
    expect(looksLikeReference('Marsh plants')).toBe(false);
  });
});

describe('the list at the end of an article', () => {
  const ONE = 'Barrow, E. M. (1998). Grain, toll and tide. Journal of Coastal Economic History, 44, 1–20.';
  const TWO = 'Ng, T. H. (2021). Open gates. Marsh Letters, 3(1), 7–24.';
  const texts = (text: string) => referenceListIn(text)?.references.map((r) => r.text);

  it('stands under the last heading that heads one, up to what comes behind it', () => {
    expect(
      referenceListIn(
        `Contents\nReferences\nThe mill\nThe mill stopped in 1790.\nReferences\n${ONE}\n${TWO}\nAcknowledgements\nWe thank A. Pell (2001).`,
      ),
    ).toEqual({
      heading: 'References',
      references: [
        { text: ONE, likely: true },
        { text: TWO, likely: true },
      ],
    });
  });
  it('is headed in other languages, and with a number', () => {
    for (const head of ['7. References', 'VI. Works cited:', 'LITERATURVERZEICHNIS', 'Références bibliographiques', 'Bibliografía', '参考文献'])
      expect(texts(`Words.\n${head}\n${ONE}`), head).toEqual([ONE]);
  }); // prettier-ignore
  it('goes on over the leaves of a PDF, without their numbers and running heads', () => {
    const leaf = (n: number, ...lines: string[]) => ['Marsh Letters 3 (2021)', ...lines, `${n}`];
    const text = [
      ...leaf(22, 'The gates shut.', 'REFERENCES', 'Barrow, E. M. (1998). Grain, toll and tide. Journal of'),
      ...leaf(23, 'Coastal Economic History, 44, 1–20.', 'Ng, T. H. (2021). Open gates. Marsh Let-', 'ters, 3(1), 7–24.'),
      ...leaf(24, 'Pell, M. (2001). Ledgers of the shore. Mole Press.'),
    ].join('\n'); // prettier-ignore
    expect(texts(text)).toEqual([ONE, TWO, 'Pell, M. (2001). Ledgers of the shore. Mole Press.']);
  });
  it('is cut by its numbers', () => {
    expect(texts(`Words.\nReferences\n[1] ${ONE}\n[2] ${TWO}`)).toEqual([ONE, TWO]);
  });
  it('is not found where a heading heads no references, or none is there', () => {
    expect(referenceListIn('References\nThe words of a reader who refers to nothing.')).toBeUndefined();
    expect(referenceListIn(`${ONE}\n${TWO}`)).toBeUndefined();
    expect(referenceListIn('')).toBeUndefined();
  });
});
